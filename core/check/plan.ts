import { applyEdit, findDevice, findTypes, settingOf } from '#core/rig/index.ts';
import {
  deviceName,
  type Evaluation,
  evaluate,
  type Pair,
  SCALE_UNITS,
  type Stop,
  whereItStops,
} from '#core/signal/index.ts';
import { type Context, type Fix, type Reason, type Rule, rule, type Severity, type Stage, setFix } from './finding.ts';

const nameOf = (list: readonly { id: string; name: string }[], id: string): string =>
  list.find((e) => e.id === id)?.name ?? id;

interface Said {
  readonly id: string;
  readonly stage: Stage;
  readonly severity: Severity;
  readonly words: readonly Pair['verdict']['word'][];
  readonly says: (source: string, listener: string, pair: Pair) => string;
  readonly fixes?: (context: Context, pair: Pair) => readonly Fix[];
}

const sayUnder = ({ underVoiceDb }: Pair): string => {
  const db = Math.round(underVoiceDb ?? 0);
  return `${Math.abs(db)} dB ${db < 0 ? 'over' : 'under'} the main voice`;
};
const ms = (pair: Pair): string => Math.abs(pair.verdict.offsetMs ?? 0).toFixed(0);

/** What the hearing plan wants, against what arrives. */
const SAID: readonly Said[] = [
  {
    id: 'plan-missing',
    stage: 'route',
    severity: 'stop',
    words: ['missing'],
    says: (source, listener) => `${source} does not reach ${listener}, although the plan wants it.`,
    fixes: openDoors,
  },
  {
    id: 'plan-unwanted',
    stage: 'route',
    severity: 'fix',
    words: ['unwanted'],
    says: (source, listener) => `${source} reaches ${listener}, although the plan does not want it.`,
    fixes: (context, pair) => shutDoors(context, pair, pair.ways[0]!.settings),
  },
  {
    id: 'plan-twice',
    stage: 'route',
    severity: 'fix',
    words: ['twice'],
    says: (source, listener, pair) =>
      `${source} reaches ${listener} twice, ${pair.verdict.apartMs?.toFixed(0)} ms apart: hollow below 30 ms, an echo above.`,
    fixes: (context, pair) => {
      const [first, ...others] = pair.ways;
      const kept = new Set(first!.settings);
      return shutDoors(
        context,
        pair,
        [...new Set(others.flatMap((w) => w.settings))].filter((s) => !kept.has(s)),
      );
    },
  },
  {
    id: 'plan-too-loud',
    stage: 'route',
    severity: 'watch',
    words: ['too-loud'],
    says: (source, listener, pair) =>
      `${source} stands too high at ${listener}: ${sayUnder(pair)}, and wanted lower. Turn it down on its way, or measure a take.`,
  },
  {
    id: 'plan-too-quiet',
    stage: 'route',
    severity: 'watch',
    words: ['too-quiet'],
    says: (source, listener, pair) =>
      `${source} is drowned at ${listener}: ${sayUnder(pair)}, and wanted higher. Turn it up on its way, or measure a take.`,
  },
  {
    id: 'plan-late',
    stage: 'sync',
    severity: 'fix',
    words: ['late'],
    says: (source, listener, pair) =>
      `${source} is ${ms(pair)} ms late against its picture at ${listener}: set the delays in Sync.`,
  },
  {
    id: 'plan-early',
    stage: 'sync',
    severity: 'fix',
    words: ['early'],
    says: (source, listener, pair) =>
      `${source} is ${ms(pair)} ms early against its picture at ${listener}: set the delays in Sync.`,
  },
  {
    id: 'plan-time-uncertain',
    stage: 'sync',
    severity: 'watch',
    words: ['perhaps-late', 'perhaps-early', 'perhaps-either'],
    says: (source, listener) =>
      `${source} may be out of time at ${listener}: the figures are too uncertain to tell. Measure a take.`,
  },
];

export const planRules: readonly Rule[] = SAID.map((said) =>
  rule(
    said.stage,
    said.id,
    (context) =>
      context.evaluation.pairs
        .filter((pair) => said.words.includes(pair.verdict.word))
        .map((pair) => ({
          at: `${pair.sourceId}>${pair.listenerId}`,
          severity: said.severity,
          where: { sourceId: pair.sourceId, listenerId: pair.listenerId, deviceIds: pair.ways[0]?.deviceIds ?? [] },
          says: said.says(
            nameOf(context.rig.sources, pair.sourceId),
            nameOf(context.rig.listeners, pair.listenerId),
            pair,
          ),
          why: reasonsFor(context, pair),
        })),
    (context, { where }) => {
      const pair = context.evaluation.pairs.find(
        (p) => p.sourceId === where.sourceId && p.listenerId === where.listenerId,
      );
      return (pair && said.fixes?.(context, pair)) ?? [];
    },
  ),
);

const stopOf = ({ rig, evaluation }: Context, { sourceId, listenerId }: Pair): Stop | null => {
  const source = rig.sources.find((s) => s.id === sourceId)!;
  const listener = rig.listeners.find((l) => l.id === listenerId)!;
  return whereItStops(evaluation.graph, source.sound, listener.sound);
};

/** 'shut at Mixer, Strip 1, mute, then at …'; or how far it comes where there is no way. */
function sayStop(context: Context, pair: Pair): string {
  const stop = stopOf(context, pair);
  const name = (id: string) => context.box(id).device.name;
  if (stop?.kind === 'shut')
    return `it is shut at ${stop.doors.map((d) => `${name(d.deviceId)}, ${context.box(d.deviceId).setting(d.settingId)?.spec.name ?? d.settingId}`).join(', then at ')}`;
  if (stop?.kind === 'no-way' && stop.reaches.length > 0)
    return `nothing leads on from ${stop.reaches.map(name).join(', ')}`;
  return 'no way to it is open';
}

/** What a verdict on a pair rests on: its times, where time is the matter; the ways and their levels otherwise. */
function reasonsFor(context: Context, pair: Pair): Reason[] {
  const { rig } = context;
  const terms = pair.ways[0]?.offset?.terms ?? [];
  if (terms.length > 0 && TIME_WORDS.has(pair.verdict.word))
    return terms.map((t) => ({ says: `${t.label}: ${t.value.nominal.toFixed(1)} ${t.unit}`, source: t.source }));
  if (pair.ways.length === 0) return [{ says: sayStop(context, pair), source: 'the ways of this rig' }];
  return pair.ways.slice(0, WAYS_TOLD).map((way) => ({
    says: `by ${way.deviceIds.map((id) => deviceName(rig, id)).join(', ')}: ${way.levelDb.nominal.toFixed(0)} ${SCALE_UNITS[way.scale]}`,
    source: 'the ways of this rig, typical levels',
  }));
}
const WAYS_TOLD = 3;
const TIME_WORDS = new Set(['late', 'early', 'perhaps-late', 'perhaps-early', 'perhaps-either']);

/** What is there for nothing: no listener has the source, or no source comes to the listener. */
export const idleRules: readonly Rule[] = [
  rule('route', 'plan-source-nowhere', ({ rig, evaluation }) => {
    const heard = new Set(evaluation.pairs.filter((p) => p.ways.length > 0).map((p) => p.sourceId));
    return rig.sources
      .filter((s) => !heard.has(s.id))
      .map((source) => ({
        at: source.id,
        severity: 'watch' as const,
        where: { sourceId: source.id, deviceIds: [source.sound.deviceId] },
        says: `${source.name} reaches nobody.`,
        why: [{ says: 'no listener has it by any way', source: 'the ways of this rig' }],
      }));
  }),
  rule('route', 'plan-listener-silent', ({ rig, evaluation, box }) => {
    const hears = new Set(evaluation.pairs.filter((p) => p.ways.length > 0).map((p) => p.listenerId));
    const silent = rig.listeners.filter((l) => rig.sources.length > 0 && !hears.has(l.id));
    const said = (at: string, names: string, deviceId: string, listenerId?: string) => ({
      at,
      severity: 'watch' as const,
      where: { deviceIds: [deviceId], ...(listenerId && { listenerId }) },
      says: `${names} nothing at all.`,
      why: [{ says: 'no source comes there by any way', source: 'the ways of this rig' }],
    });
    return [...new Set(silent.map((l) => l.sound.deviceId))].flatMap((deviceId) => {
      const here = silent.filter((l) => l.sound.deviceId === deviceId);
      const all = rig.listeners.filter((l) => l.sound.deviceId === deviceId);
      // A box that gets nothing anywhere is one matter, not one for each of its tracks.
      return here.length > 1 && here.length === all.length
        ? [said(deviceId, `${box(deviceId).device.name} gets, on stream or tracks,`, deviceId)]
        : here.map((l) => said(l.id, `${l.name} gets`, deviceId, l.id));
    });
  }),
  rule('route', 'level-clips', ({ rig, evaluation }) =>
    evaluation.pairs.flatMap((pair) => {
      const [way] = pair.ways;
      if (pair.want !== 'must' || !way || way.headroomDb === null || way.headroomDb >= 0) return [];
      return [
        {
          at: `${pair.sourceId}>${pair.listenerId}`,
          severity: 'fix' as const,
          where: { sourceId: pair.sourceId, listenerId: pair.listenerId, deviceIds: way.deviceIds },
          says: `${nameOf(rig.sources, pair.sourceId)} clips on its way to ${nameOf(rig.listeners, pair.listenerId)}: its level stands ${(-way.headroomDb).toFixed(0)} dB over what a stage takes. Turn down before that stage.`,
          why: [
            {
              says: `${way.headroomDb.toFixed(0)} dB of headroom`,
              source: 'levels and ceilings of the stages, typical',
            },
          ],
        },
      ];
    }),
  ),
];

const setTo = (label: string, deviceId: string, settingId: string, value: number | boolean): Fix => ({
  label,
  changes: [{ deviceId, settingId, value }],
  edit: { kind: 'set-setting', deviceId, settingId, setting: { value, known: 'assumed' } },
});

/** Pairs that are wrong in a way that a mended one must not buy. */
const wrongs = ({ pairs }: Evaluation): Set<string> =>
  new Set(
    pairs
      .filter((p) => ['missing', 'unwanted', 'twice'].includes(p.verdict.word))
      .map((p) => `${p.sourceId}>${p.listenerId}:${p.verdict.word}`),
  );

/** A change that leaves the fault, but this much quieter, is worth offering. */
const WORTH_DB = 6;

/** How many pairs are heard at another level, or not at all: the less a fix touches, the better. */
function touched(before: Evaluation, after: Evaluation): number {
  const levelOf = ({ ways }: Pair): number => ways[0]?.levelDb.nominal ?? Number.NEGATIVE_INFINITY;
  return before.pairs.filter((pair, i) => Math.abs(levelOf(pair) - levelOf(after.pairs[i]!)) > 0.1).length;
}

/** Those of the edits that mend the pair, or most of it, and break nothing else that was right; what touches least first. */
function thatMend({ rig, evaluation }: Context, pair: Pair, fixes: readonly Fix[]): Fix[] {
  const before = wrongs(evaluation);
  const isPair = (p: Pair) => p.sourceId === pair.sourceId && p.listenerId === pair.listenerId;
  const mending = fixes.flatMap((fix): { fix: Fix; touches: number }[] => {
    const done = applyEdit(rig, fix.edit);
    if (!done.ok) return [];
    const after = evaluate(done.rig);
    if ([...wrongs(after)].some((w) => !before.has(w))) return [];
    const touches = touched(evaluation, after);
    const now = after.pairs.find(isPair)!;
    if (now.verdict.word !== pair.verdict.word) return [{ fix, touches }];
    const left = now.ways[0];
    if (pair.verdict.word !== 'unwanted' || !left) return [];
    const lessDb = pair.ways[0]!.levelDb.nominal - left.levelDb.nominal;
    if (lessDb < WORTH_DB) return [];
    const by = left.deviceIds.find((id) => !pair.ways[0]!.deviceIds.includes(id));
    const remains = `${lessDb.toFixed(0)} dB less is left${by ? `, by ${deviceName(rig, by)}` : ''}`;
    return [{ fix: { ...fix, label: `${fix.label} (${remains})` }, touches }];
  });
  return mending.sort((a, b) => a.touches - b.touches).map(({ fix }) => fix);
}

/** Ways to shut: a mute on it, or a level that can be turned down altogether. */
function shutDoors(context: Context, pair: Pair, settings: readonly string[]): Fix[] {
  const types = findTypes(context.rig);
  const fixes = settings.flatMap((key): Fix[] => {
    const [deviceId, settingId] = key.split('.') as [string, string];
    const device = findDevice(context.rig, deviceId)!;
    const spec = types.get(device.typeId)!.settings.find((s) => s.id === settingId)!;
    const label = `${device.name}, ${spec.name}`;
    if (spec.kind === 'mute') return [setTo(`${label}: on`, deviceId, settingId, true)];
    if (spec.kind === 'gain' && spec.offAtMin)
      return [setTo(`${label}: all the way down`, deviceId, settingId, spec.min)];
    return [];
  });
  return thatMend(context, pair, fixes);
}

/** All doors of the way with the fewest shut ones, as one fix. */
function openWay(context: Context, pair: Pair): Fix[] {
  const stop = stopOf(context, pair);
  if (stop?.kind !== 'shut' || stop.doors.length < 2) return [];
  const fixes = stop.doors.flatMap((d) => setFix(context.box(d.deviceId), d.settingId, d.opensAt));
  return [
    {
      label: fixes.map((f) => f.label).join('; '),
      changes: fixes.flatMap((f) => f.changes),
      edit: { kind: 'batch', edits: fixes.map((f) => f.edit) },
    },
  ];
}

/** Doors that are shut now: one that is all that is missing, else all on the way that has the fewest. */
function openDoors(context: Context, pair: Pair): Fix[] {
  const { rig, evaluation } = context;
  const types = findTypes(rig);
  const shut = [...new Set(evaluation.graph.shut.map((s) => `${s.deviceId}.${s.settingId}`))];
  const single = shut.flatMap((key): Fix[] => {
    const [deviceId, settingId] = key.split('.') as [string, string];
    const device = findDevice(rig, deviceId)!;
    const spec = types.get(device.typeId)!.settings.find((s) => s.id === settingId)!;
    const label = `${device.name}, ${spec.name}`;
    if (spec.kind === 'mute') return [setTo(`${label}: off`, deviceId, settingId, false)];
    if (spec.kind === 'gain' && settingOf(device, spec).value === spec.min)
      return [setTo(`${label}: up to 0 dB`, deviceId, settingId, Math.min(0, spec.max))];
    return [];
  });
  return thatMend(context, pair, [...single, ...openWay(context, pair)]);
}
