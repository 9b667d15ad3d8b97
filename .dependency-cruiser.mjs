// Who may import whom. A row names a folder and the folders it may import; what is not listed is forbidden. Read it from
// top to bottom: what stands below rests on what stands above, so there can be no circle. A folder with an index.ts is
// imported by that alone. Tests may import what they like. Run with: npm run walls

/** The core: no interface, no Node.js, no browser. */
const core = {
  'core/base/said': [], // codes that are returned in place of sentences
  'core/base/memo': [], // computed once for each object
  'core/base/search': [], // what is reached from what
  'core/base/text': [], // CSV, calendars, Markdown
  'core/model/units': ['base'],
  'core/model/plug': ['base'],
  'core/model/picture': ['base', 'model/units'],
  'core/model/rig': ['base', 'model/units', 'model/plug'], // the document knows sockets and units, not what is heard
  'core/signal': ['base', 'model'], // what arrives where: the heart; rests on the document alone
  'core/rules': ['base', 'model', 'signal'],
  'core/audio/samples': ['base'], // takes know no rigs
  'core/audio/process': ['base', 'model/units', 'audio/samples'],
  'core/audio/measure': ['base', 'model/units', 'audio/samples', 'audio/process'],
  'core/audio/mix': ['base', 'model/units', 'audio'],
  'core/audio/blind-test': [],
  'core/routing/grammar': ['base', 'model'], // text as it is typed, before it is drawn
  'core/routing/suggest': ['base', 'model', 'signal'],
  'core/routing/wiring': ['base', 'model', 'signal', 'rules', 'routing/grammar', 'routing/suggest'],
  'core/routing/variants': ['base', 'model', 'signal', 'rules'],
  'core/routing/plan': ['base', 'model', 'signal', 'routing'],
  'core/intake': ['base', 'model', 'signal', 'rules', 'routing'], // a first desk: all that plans, at once
  'core/live/run': ['base', 'model', 'signal', 'rules'],
  'core/live/guides': ['base', 'model', 'signal', 'rules', 'routing/plan'], // jobs that people come with, as data
  'core/live/next': ['base', 'model', 'signal', 'rules', 'routing/suggest', 'routing/plan', 'live/run'], // what to do, in which order
  'core/live/troubleshoot': ['base', 'model', 'signal', 'rules', 'audio/measure'], // faults in a take, explained by the rig
  'core/desk-tests/tunes': ['model/units', 'audio/samples'], // tunes and slates are read without a rig
  'core/desk-tests/scan': ['base/memo', 'model/units', 'audio/samples'],
  'core/desk-tests/slates': ['model/units', 'audio'],
  'core/desk-tests/reconcile': ['base', 'model', 'signal', 'audio/process'],
  'core/desk-tests/sync-test': ['base', 'model', 'signal', 'desk-tests/reconcile'],
  'core/desk-tests/stand-ins': ['model', 'signal', 'audio', 'desk-tests/tunes', 'desk-tests/slates'],
  'core/desk-tests/tap-test': ['base', 'model', 'signal', 'audio/samples', 'live/troubleshoot', 'desk-tests'],
  // A scan held against the rig: devices that browsers name, links that were found.
  'core/desk-tests/drawn': [
    'base',
    'model',
    'signal',
    'live/troubleshoot',
    'routing/wiring',
    'desk-tests/tunes',
    'desk-tests/scan',
    'desk-tests/tap-test',
  ],
  'core/output/layout': ['base/search'], // graphs on a page; knows no rigs
  'core/output/map': ['base/memo', 'model', 'signal', 'output/layout'],
  'core/output/exchange': ['base', 'model', 'signal', 'rules', 'live/run'],
  'core/output/sheets': ['base', 'model', 'signal', 'rules', 'routing/wiring', 'live/run', 'live/next', 'output/map'],
};

/** What is said and sent, and what shows it. `core` alone stands for all of the core. */
const around = {
  words: ['core/base/said'], // and the codes of each folder: see below
  api: ['core'],
  demo: ['core'],
  'server/http': ['core', 'api', 'words'],
  'server/database': ['server/http'],
  'server/storage': ['api', 'words', 'server/http', 'server/database'],
  'server/judgments': ['core', 'words'],
  'server/rigs': ['core', 'api', 'words', 'server/http', 'server/database', 'server/judgments'],
  'server/journal': ['core', 'api', 'words', 'server/http', 'server/database'],
  'server/takes': ['api', 'words', 'server/http', 'server/database', 'server/storage'],
  'server/photos': ['api', 'words', 'server/http', 'server/database', 'server/storage'],
  'server/archive': ['core', 'api', 'words', 'server'],
  'server/backup': ['core', 'api', 'words', 'server'],
  'server/pairing': ['api', 'words', 'server'], // what a phone may do, in an app of its own
  'server/start': ['core', 'api', 'words', 'demo', 'server'], // puts it together
  cli: ['core', 'api', 'words', 'server'],
  'web/shared/parts': ['core', 'api', 'words'], // controls, keys, how figures are written
  'web/shared/store': ['core', 'api', 'words'],
  'web/shared/workers': ['core', 'words'],
  'web/shared/jobs': ['core', 'words', 'web/shared/parts', 'web/shared/workers'], // jobs beside the page, in one queue
  'web/shared/moment': ['core', 'words', 'web/shared/store'],
  'web/shared/trial': ['core', 'words', 'web/shared/parts', 'web/shared/store'],
  'web/shared/players': ['core', 'words'],
  'web/shared/listen': ['core', 'words', 'web/shared/parts', 'web/shared/workers'],
  'web/shared/gate': ['core', 'words', 'web/shared/parts'], // before anything plays
  // What would explain readings: every fault, run in the model.
  'web/shared/faults': ['core', 'words', 'web/shared/parts', 'web/shared/workers', 'web/shared/jobs'],
  'web/shared/charts': ['core', 'words', 'web/shared/parts'],
  'web/shared/take': [
    'core',
    'api',
    'words',
    'web/shared/parts',
    'web/shared/store',
    'web/shared/workers',
    'web/shared/jobs',
  ],
  'web/features': ['core', 'api', 'words', 'web/shared'],
  'web/features/live/tour': ['demo'], // the rig that one practices on
  'web/app': ['core', 'api', 'words', 'web/shared', 'web/features'],
};
/** Features do not know each other, but for these. */
const together = {
  'design/first-desk': ['design/route', 'design/wire'], // draws on their tables
  'live/guides': ['live/next'], // no tick for what nobody confirmed
  'library/rigs': ['live/next', 'live/tour'], // the rig that was open last, and what is next there; the tour
  'live/run': ['live/watch'],
  'live/troubleshoot': ['live/watch'],
  'live/phone': ['live/run', 'live/next', 'measure/tap-test'], // the run and the tunes, small
};

const TESTS = '\\.(test|testkit|spec)\\.tsx?$';
const ENTRY = '^web/[^/]+$';
const inside = (folders) => `^(${folders.join('|')})/`;
const within = (root, names) => names.map((name) => (name.startsWith(root) ? name : `${root}/${name}`));
const allow = (folder, may) => ({ from: { path: inside([folder]) }, to: { path: inside([folder, ...may]) } });
const FEATURE = '^web/features/([^/]+/[^/]+)/';
const indexed = [
  ...Object.keys(core),
  ...Object.keys(around).filter((f) => f.startsWith('web/shared')),
  'web/features/[^/]+/[^/]+',
];

/** @type {import('dependency-cruiser').IConfiguration} */
export default {
  forbidden: [
    { name: 'no-circle', severity: 'error', from: {}, to: { circular: true } },
    { name: 'resolved', severity: 'error', from: {}, to: { couldNotResolve: true, pathNot: '\\?url$' } },
    {
      name: 'core-is-pure',
      severity: 'error',
      from: { path: '^core/', pathNot: TESTS },
      to: { dependencyTypes: ['core'] },
    },
    {
      name: 'page-has-no-node',
      severity: 'error',
      from: { path: '^web/', pathNot: TESTS },
      to: { dependencyTypes: ['core'] },
    },
    ...indexed.map((folder) => ({
      name: 'by-its-index',
      comment: 'A folder is imported by its index.ts alone.',
      severity: 'error',
      from: { path: '^(core|web|cli|server)/', pathNot: [`^${folder}/`, ENTRY, TESTS] },
      to: { path: `^${folder}/`, pathNot: `^${folder}/index\\.ts$` },
    })),
    {
      name: 'features-apart',
      severity: 'error',
      from: { path: FEATURE, pathNot: [TESTS, inside(within('web/features', Object.keys(together)))] },
      to: { path: FEATURE, pathNot: '^web/features/$1/' },
    },
    ...Object.entries(together).map(([feature, others]) => ({
      name: 'features-apart',
      severity: 'error',
      from: { path: `^web/features/${feature}/`, pathNot: TESTS },
      to: { path: FEATURE, pathNot: inside(within('web/features', [feature, ...others])) },
    })),
  ],
  allowedSeverity: 'error',
  allowed: [
    ...Object.entries(core).map(([folder, may]) => allow(folder, within('core', may))),
    ...Object.entries(around).map(([folder, may]) => allow(folder, may)),
    { from: { path: '^words/en/core/' }, to: { path: '/sayings\\.ts$' } },
    { from: { path: `${TESTS}|^(bench|e2e|scripts)/` }, to: {} },
    { from: { path: ENTRY }, to: { path: '^web/' } },
    { from: { path: '^server/index\\.ts$' }, to: { path: '^server/' } },
    { from: {}, to: { path: 'node_modules|\\.generated\\.ts$|\\?url$' } },
    { from: {}, to: { dependencyTypes: ['core'] } }, // Node.js; core and page are kept from it above
  ],
  options: {
    tsPreCompilationDeps: true,
    doNotFollow: { path: 'node_modules' },
    enhancedResolveOptions: {
      exportsFields: ['exports'],
      conditionNames: ['import', 'node', 'default', 'types'],
      extensions: ['.ts', '.tsx', '.mjs', '.js', '.json', '.css'],
    },
  },
};
