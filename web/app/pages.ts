import { frame, guides, help, next, search as say, type TermId } from '#words/index.ts';

/** A page as it is searched for, and what its help says. */
export interface PageEntry {
  readonly to: string;
  readonly label: () => string;
  /** Other names by which people look for it. */
  readonly also: () => string;
  /** The question that it answers, and what one does there. */
  readonly answers: () => string;
  readonly terms: readonly TermId[];
}

const entry = (
  to: string,
  label: () => string,
  also: () => string,
  answers: () => string,
  terms: readonly TermId[],
): PageEntry => ({ to, label, also, answers, terms });

/** What is done with takes that are open: of a rig, or without one. */
const takePages = (from: '/' | ''): PageEntry[] => [
  entry(`${from}bench/balance`, say.balance, say.alsoBalance, help.balance, ['balance', 'lufs', 'ducking', 'fader']),
  entry(`${from}bench/try`, say.tryProcessing, say.alsoTryProcessing, help.tryProcessing, [
    'treatment',
    'low-cut',
    'gate',
    'compressor',
    'limiter',
  ]),
  entry(`${from}bench/join`, say.join, say.alsoJoin, help.join, ['take', 'slip-list', 'drift']),
  entry(`${from}bench/blind`, say.blind, say.alsoBlind, help.blind, ['abx', 'confidence', 'lufs']),
];

export const PAGES: readonly PageEntry[] = [
  entry('/', say.rigs, say.alsoRigs, help.rigs, ['rig', 'template', 'finding', 'as-drawn', 'archive']),
  entry('/new', say.newRig, say.alsoNewRig, help.newRig, ['unknown-device', 'template', 'hearing-plan', 'tap']),
  entry('/bench', frame.measure, say.alsoMeasure, help.measure, ['take', 'lufs', 'true-peak', 'clap', 'slate']),
  ...takePages('/'),
  entry('/slate', say.slate, say.alsoSlate, help.slate, ['slate', 'flash', 'clap', 'slate-skew']),
  entry('/tune', say.testTune, say.alsoTune, help.testTune, ['tune', 'tap-test']),
  entry('/round-trip', say.roundTrip, say.alsoRoundTrip, help.roundTrip, ['round-trip', 'latency', 'bound']),
];

/** Pages of a rig, from its own address on. */
export const RIG_PAGES: readonly PageEntry[] = [
  entry('plan', frame.plan, say.alsoPlan, help.plan, ['hearing-plan', 'source', 'listener', 'moment', 'far-side']),
  entry('wire', frame.wire, say.alsoWire, help.wire, ['tap', 'finding', 'cable', 'ground-loop', 'certainty-drawn']),
  entry('route', frame.route, say.alsoRoute, help.route, [
    'arrival',
    'guest-return',
    'inside',
    'sound-device',
    'twice',
  ]),
  entry('level', frame.level, say.alsoLevel, help.level, [
    'gain-ladder',
    'headroom',
    'snr',
    'set-the-gains',
    'clipping',
  ]),
  entry('sync', frame.sync, say.alsoSync, help.sync, ['lip-sync', 'offset', 'tolerance', 'latency', 'listening-delay']),
  entry('sync/paths', say.syncTest, say.alsoPaths, help.syncTest, ['path-test', 'doubt', 'spread', 'follows-from']),
  entry('run', frame.run, say.alsoRun, help.run, ['run-order', 'go-no-go', 'budget', 'marker', 'door']),
  entry('next', next.title, say.alsoNext, help.next, ['ready', 'finding', 'certainty-drawn']),
  entry('how', guides.title, say.alsoHow, help.how, ['hearing-plan', 'ready', 'take']),
  entry('desk', frame.toDoList, say.alsoDesk, help.desk, ['certainty-drawn', 'unknown-device', 'ready']),
  entry('tap', frame.tapTest, say.alsoTap, help.tap, ['tap-test', 'tune', 'arrival', 'polarity', 'drift']),
  entry('scan', frame.scan, say.alsoScan, help.scan, ['latency', 'polarity', 'drift', 'sound-device', 'twice']),
  entry('trouble', frame.troubleshoot, say.alsoTrouble, help.trouble, ['trouble', 'suspect', 'same-as-last', 'hum']),
  entry('measured', say.measured, say.alsoMeasured, help.measured, ['measured', 'follows-from', 'spread', 'doubt']),
  entry('log', frame.log, say.alsoLog, help.log, ['log', 'control-chart', 'same-as-last', 'archive']),
  entry('versions', frame.versions, say.alsoVersions, help.versions, ['rig', 'archive']),
  entry('ways', frame.alternatives, say.alsoWays, help.ways, ['ways', 'unbeaten', 'can-fail']),
  entry('beside', frame.compare, say.alsoBeside, help.beside, ['ways', 'can-fail', 'proven']),
  entry('bench', frame.measure, say.alsoMeasure, help.measureOfRig, ['take', 'lufs', 'true-peak', 'clap', 'drift']),
  ...takePages(''),
  entry('gear', frame.gear, say.alsoGear, help.gear, ['unknown-device', 'edid', 'typical', 'standard', 'inside']),
];

/** The page at an address; a page of a rig where it has one: 'how/x' is a page of 'how'. */
export function pageAt(pathname: string): PageEntry | null {
  const ofRig = /^\/rigs\/[^/]+\/(.+)$/.exec(pathname)?.[1];
  const pages = ofRig ? RIG_PAGES : PAGES;
  const at = ofRig ?? pathname;
  return (
    pages.find((page) => page.to === at) ??
    pages.find((page) => page.to !== '/' && at.startsWith(`${page.to}/`)) ??
    null
  );
}
