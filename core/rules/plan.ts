import { listOf, type Said, type Text } from '#core/base/said/index.ts';
import { listenerIn } from '#core/model/rig/index.ts';
import { width } from '#core/model/units/index.ts';
import { deviceName, evaluationAt, type Pair, SCALE_UNITS, sayBreak } from '#core/signal/index.ts';
import { openDoors, otherDevices, shutDoors, stopOf } from './doors.ts';
import {
  type Context,
  type Finding,
  type Fix,
  type Reason,
  type Rule,
  rule,
  type Severity,
  type Stage,
} from './finding.ts';
import { say } from './sayings.ts';

const nameOf = (list: readonly { id: string; name: string }[], id: string): string =>
  list.find((e) => e.id === id)?.name ?? id;

interface Judgement {
  readonly id: string;
  readonly stage: Stage;
  readonly severity: Severity;
  readonly words: readonly Pair['verdict']['word'][];
  readonly says: (source: string, listener: string, pair: Pair, others: readonly string[]) => Said;
  readonly fixes?: (context: Context, pair: Pair) => readonly Fix[];
}

const sayUnder = ({ underVoiceDb }: Pair): Said => {
  const db = Math.round(underVoiceDb ?? 0);
  return say.againstVoice({ db: Math.abs(db), under: db < 0 ? say.above() : say.below() });
};
const ms = (pair: Pair): string => Math.abs(pair.verdict.offsetMs ?? 0).toFixed(0);

const offsetOf = (pair: Pair) => pair.ways[0]?.offset ?? null;
/** '96 ms early', or both where it may be either. */
const sayOffset = (pair: Pair): Said => {
  const word = pair.verdict.word;
  if (word === 'perhaps-either') return say.lateOrEarly();
  const isLate = word === 'perhaps-late';
  const side = isLate ? say.late() : say.early();
  const by = (pair.verdict.offsetMs ?? 0) * (isLate ? 1 : -1);
  return by >= 1 ? say.byMs({ pair: ms(pair), side }) : side;
};
const sayRange = (pair: Pair): Text => {
  const value = offsetOf(pair)?.value;
  return value
    ? say.offsetRange({ n0: value.low.toFixed(0), n02: value.high > 0 ? '+' : '', n03: value.high.toFixed(0) })
    : '';
};
/** Of what the offset is made of, the figure that is known worst: measured, it narrows most. */
const sayWidest = (pair: Pair): Text => {
  const terms = (offsetOf(pair)?.terms ?? []).filter((t) => width(t.value) > 0);
  if (terms.length < 2) return '';
  const widest = terms.reduce((a, b) => (width(b.value) > width(a.value) ? b : a));
  return say.widestFigure({ widest: widest.label, n0: width(widest.value).toFixed(0) });
};

/** Two arrivals closer than this sound hollow (comb filtering); further apart, like an echo. Rule of thumb, ms. */
const ECHO_MS = 30;

/** What the hearing plan wants, against what arrives. */
const SAID: readonly Judgement[] = [
  {
    id: 'plan-missing',
    stage: 'route',
    severity: 'stop',
    words: ['missing'],
    says: (source, listener) => say.missing({ source, listener }),
    fixes: (context, pair) => [...otherDevices(context, pair), ...openDoors(context, pair)],
  },
  {
    id: 'plan-unwanted',
    stage: 'route',
    severity: 'fix',
    words: ['unwanted'],
    says: (source, listener) => say.unwanted({ source, listener }),
    fixes: (context, pair) => shutDoors(context, pair, pair.ways[0]!.settings),
  },
  {
    id: 'plan-twice',
    stage: 'route',
    severity: 'fix',
    words: ['twice'],
    says: (source, listener, pair) =>
      (Math.abs(pair.verdict.apart!.value.nominal) < ECHO_MS ? say.hollowTwice : say.echoTwice)({
        source,
        listener,
        ms: Math.abs(pair.verdict.apart!.value.nominal).toFixed(0),
      }),
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
    says: (source, listener, pair) => say.tooLoud({ source, listener, pair: sayUnder(pair) }),
  },
  {
    id: 'plan-too-quiet',
    stage: 'route',
    severity: 'watch',
    words: ['too-quiet'],
    says: (source, listener, pair) => say.tooQuiet({ source, listener, pair: sayUnder(pair) }),
  },
  {
    id: 'plan-not-alone',
    stage: 'route',
    severity: 'watch',
    words: ['not-alone'],
    says: (source, listener, _pair, others) => say.notAlone({ source, listener, join: others.join(', ') }),
  },
  {
    id: 'plan-late',
    stage: 'sync',
    severity: 'fix',
    words: ['late'],
    says: (source, listener, pair) => say.lateBy({ source, pair: ms(pair), listener }),
  },
  {
    id: 'plan-early',
    stage: 'sync',
    severity: 'fix',
    words: ['early'],
    says: (source, listener, pair) => say.earlyBy({ source, pair: ms(pair), listener }),
  },
  {
    id: 'plan-time-uncertain',
    stage: 'sync',
    severity: 'watch',
    words: ['perhaps-late', 'perhaps-early', 'perhaps-either'],
    says: (source, listener, pair) =>
      say.possiblyOff({ source, pair: sayOffset(pair), listener, pair2: sayRange(pair), pair3: sayWidest(pair) }),
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
          where: {
            sourceId: pair.sourceId,
            listenerId: pair.listenerId,
            ...(pair.ways[0] ? { deviceIds: pair.ways[0].deviceIds } : whereItStopped(context, pair)),
          },
          says: said.says(
            nameOf(context.rig.sources, pair.sourceId),
            nameOf(context.rig.listeners, pair.listenerId),
            pair,
            pair.besides.map((id) => nameOf(context.rig.sources, id)),
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

/** The devices at which a sound stops, and the cables that bring nothing over; who should hear it, where it is neither. */
function whereItStopped(context: Context, pair: Pair): Pick<Finding['where'], 'deviceIds' | 'cableIds'> {
  const stop = stopOf(context, pair);
  const listener = listenerIn(context.rig, pair.listenerId);
  if (stop?.kind === 'shut') return { deviceIds: [...new Set(stop.doors.map((d) => d.deviceId))], cableIds: [] };
  const breaks = stop?.kind === 'no-way' ? stop.breaks : [];
  const cableIds = breaks.flatMap((b) => ('cableId' in b ? [b.cableId] : []));
  const within = breaks.flatMap((b) =>
    b.kind === 'within' ? [b.from.deviceId] : b.kind === 'disabled' ? [b.end.deviceId] : [],
  );
  return { deviceIds: [...new Set([...within, listener.sound.deviceId])], cableIds };
}

/** 'shut at Mixer, Channel 1, mute, then at …'; or how far it comes where there is no way. */
function sayStop(context: Context, pair: Pair): Text {
  const stop = stopOf(context, pair);
  const name = (id: string) => context.box(id).device.name;
  if (stop?.kind === 'shut')
    return say.mutedAt({
      at: listOf(
        'then',
        stop.doors.map(
          (d) => `${name(d.deviceId)}, ${context.box(d.deviceId).setting(d.settingId)?.spec.name ?? d.settingId}`,
        ),
      ),
    });
  if (stop?.kind === 'no-way' && stop.breaks.length > 0)
    return listOf(
      'then',
      stop.breaks.map((b) => sayBreak(context.rig, b)),
    );
  if (stop?.kind === 'no-way' && stop.reaches.length > 0)
    return say.nothingLeadsOnFrom({ join: stop.reaches.map(name).join(', ') });
  return say.noPathToIt();
}

/** What a verdict on a pair rests on: its times, where time is the matter; the ways and their levels otherwise. */
function reasonsFor(context: Context, pair: Pair): Reason[] {
  const { rig } = context;
  const terms = pair.ways[0]?.offset?.terms ?? [];
  if (terms.length > 0 && TIME_WORDS.has(pair.verdict.word))
    return terms.map((t) => ({
      says: say.termIs({ term: t.label, value: t.value.nominal.toFixed(1), unit: t.unit }),
      source: t.source,
    }));
  if (pair.ways.length === 0) return [{ says: sayStop(context, pair), source: say.pathsThisRig() }];
  return pair.ways.slice(0, WAYS_TOLD).map((way) => ({
    says: say.byPath({
      join: way.deviceIds.map((id) => deviceName(rig, id)).join(', '),
      n0: way.levelDb.nominal.toFixed(0),
      scale: SCALE_UNITS[way.scale],
    }),
    source: say.pathsThisRigTypical(),
  }));
}
const WAYS_TOLD = 3;
const TIME_WORDS = new Set(['late', 'early', 'perhaps-late', 'perhaps-early', 'perhaps-either']);

/** Sources without a destination, and destinations without a source. */
export const idleRules: readonly Rule[] = [
  rule('route', 'plan-source-nowhere', ({ rig, evaluation }) => {
    const heardIn = ({ pairs }: typeof evaluation) => pairs.filter((p) => p.ways.length > 0).map((p) => p.sourceId);
    const heard = new Set(heardIn(evaluation));
    const silent = rig.sources.filter((s) => !heard.has(s.id));
    // What a switch lets through in another moment has its turn there.
    const later = new Set(silent.length > 0 ? rig.moments.flatMap((m) => heardIn(evaluationAt(rig, m.id))) : []);
    return silent
      .filter((s) => !later.has(s.id))
      .map((source) => ({
        at: source.id,
        severity: 'watch' as const,
        where: { sourceId: source.id, deviceIds: [source.sound.deviceId] },
        says: say.reachesNone({ source: source.name }),
        why: [{ says: say.itHasNoPath(), source: say.pathsThisRig() }],
      }));
  }),
  rule('route', 'plan-listener-silent', ({ rig, evaluation, box }) => {
    const hears = new Set(evaluation.pairs.filter((p) => p.ways.length > 0).map((p) => p.listenerId));
    const silent = rig.listeners.filter((l) => rig.sources.length > 0 && !hears.has(l.id));
    return [...new Set(silent.map((l) => l.sound.deviceId))].flatMap((deviceId) => {
      const here = silent.filter((l) => l.sound.deviceId === deviceId);
      const all = rig.listeners.filter((l) => l.sound.deviceId === deviceId);
      // Of the tracks of a device, those that no one has use for are none; where nothing comes at all, it is one matter.
      if (here.length < all.length) return [];
      // A plan that asks for nothing there says that no one minds.
      const isAsked =
        rig.plan.length === 0 || rig.plan.some((c) => c.want === 'must' && here.some((l) => l.id === c.listenerId));
      if (!isAsked) return [];
      const [only] = here;
      const one = here.length === 1;
      return [
        {
          at: one ? only!.id : deviceId,
          severity: 'watch' as const,
          where: { deviceIds: [deviceId], ...(one && { listenerId: only!.id }) },
          says: one
            ? say.noSignalAt({ name: only!.name })
            : say.noSignalAtDevice({ device: box(deviceId).device.name }),
          why: [{ says: say.noSourceHasPath(), source: say.pathsThisRig() }],
        },
      ];
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
          says: say.clipsOnWay({
            sourceId: nameOf(rig.sources, pair.sourceId),
            listenerId: nameOf(rig.listeners, pair.listenerId),
            n0: (-way.headroomDb).toFixed(0),
          }),
          why: [
            {
              says: say.dbHeadroom({ n0: way.headroomDb.toFixed(0) }),
              source: say.levelsAndClipPoints(),
            },
          ],
        },
      ];
    }),
  ),
];
