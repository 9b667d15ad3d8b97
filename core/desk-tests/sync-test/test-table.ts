import { median } from 'd3-array';
import type { Text } from '#core/base/said/index.ts';
import { asMade, reconcilePicture, type SetDelay } from '#core/desk-tests/reconcile/index.ts';
import type { Edit, Measurement, Rig } from '#core/model/rig/index.ts';
import { findDevice, settingAt, settingKey } from '#core/model/rig/index.ts';
import { frameMs, type Interval } from '#core/model/units/index.ts';
import { delaySettingsFor, type Evaluation, evaluate, type Pair, uncertain } from '#core/signal/index.ts';
import { type Cause, causesOf } from './causes.ts';
import { say } from './sayings.ts';

/** One take of a path test, as the rig keeps it. */
export type PathTake = Extract<Measurement, { kind: 'offset' }>;

/** A take beside what the rig led one to expect of it. */
export interface TestedTake {
  readonly take: PathTake;
  /** Prediction of the model with the delays of that time, before anything of this path was measured. */
  readonly expected: Interval;
  /** What is left once everything that is known exactly is taken off: the same for every take of the path. */
  readonly sumMs: number;
  /** Why it does not agree with the others; null where it does. */
  readonly odd: Text | null;
  readonly counts: boolean;
}

/** One path: a source's sound against its picture at a listener. */
export interface TestedPath {
  readonly sourceId: string;
  readonly listenerId: string;
  /** Delay settings on it, `device.setting`. */
  readonly settings: readonly string[];
  readonly takes: readonly TestedTake[];
  /** The offset as the rig has it now. */
  readonly now: Interval;
  readonly nowIsMeasured: boolean;
  /** All takes that count, together: the sum of what is uncertain; null for none. */
  readonly together: { readonly sumMs: number; readonly sdMs: number; readonly count: number } | null;
  readonly cause: Cause;
}

/** Takes agree where they are nearer than this to the middle of all, whatever they say of themselves. */
const AGREE_MS = 4;
/** Or than this many of their own standard deviations, or of the usual distance. */
const AGREE_SD = 3;
const AGREE_USUAL = 4;
const FEWEST_TO_JUDGE = 3;

/** Every path that has a picture to keep time with, with the takes that tested it. */
export function testTable(rig: Rig): TestedPath[] {
  const evaluation = evaluate(rig);
  const readable = evaluation.pairs.filter((p) => p.ways[0]?.offset);
  const expects = expectations(rig);
  const tested = readable.map((pair) => testedPath(rig, evaluation, pair, expects));
  return tested.map((path) => ({ ...path, cause: causesOf(rig, evaluation, path, tested) }));
}

/** The model's prediction for a take, with the delays set then. */
interface Expectation {
  readonly offset: Interval;
  /** All of it that is known exactly: air, and delays that were set. */
  readonly exactMs: number;
}

/** What a path should show by typical figures, for every way its delays were set: worked out once each. */
function expectations(rig: Rig): (pair: Pair, settings: readonly SetDelay[]) => Expectation {
  const known = new Map<string, Expectation>();
  return (pair, settings) => {
    const key = `${pair.sourceId} ${pair.listenerId} ${settings.map((s) => `${s.setting}=${s.value}`).sort()}`;
    const before = known.get(key);
    if (before) return before;
    const isPair = (m: { sourceId: string; listenerId: string }) =>
      m.sourceId === pair.sourceId && m.listenerId === pair.listenerId;
    const measurements = rig.measurements.filter((m) => !(m.kind === 'delay' && isPair(m)));
    const made = asMade(rig, { madeWith: settings, listenerId: pair.listenerId });
    const way = evaluate({ ...made, measurements }).pairs.find(isPair)?.ways[0] ?? pair.ways[0]!;
    const open = new Set(uncertain(way.offsetTerms));
    const exactMs = way.offsetTerms.filter((t) => !open.has(t)).reduce((ms, t) => ms + t.count * t.term.ms.nominal, 0);
    const expectation = { offset: way.offset?.value ?? pair.ways[0]!.offset!.value, exactMs };
    known.set(key, expectation);
    return expectation;
  };
}

type Untold = Omit<TestedPath, 'cause'> & { cause: Cause };

function testedPath(rig: Rig, evaluation: Evaluation, pair: Pair, expects: ReturnType<typeof expectations>): Untold {
  const way = pair.ways[0]!;
  const own = rig.measurements
    .filter(
      (m): m is PathTake => m.kind === 'offset' && m.sourceId === pair.sourceId && m.listenerId === pair.listenerId,
    )
    .map((take) => {
      const { offset, exactMs } = expects(pair, take.settings);
      return { take, expected: offset, sumMs: take.ms.mean - exactMs };
    });
  const takes = withOdd(rig, own);
  const counting = takes.filter((t) => t.counts);
  return {
    sourceId: pair.sourceId,
    listenerId: pair.listenerId,
    settings: settingsOn(rig, evaluation, pair),
    takes,
    now: way.offset!.value,
    nowIsMeasured: way.offset!.kind === 'measured',
    together: counting.length === 0 ? null : together(counting),
    cause: { follows: 'device', says: '' },
  };
}

/** Delay settings that act on a pair's sound or picture. */
const settingsOn = (rig: Rig, evaluation: Evaluation, pair: Pair): string[] =>
  delaySettingsFor(rig, evaluation, pair.listenerId)
    .filter((s) => s.delaysSound.includes(pair.sourceId) || s.delaysPicture.includes(pair.sourceId))
    .map((s) => settingKey(s.deviceId, s.spec.id));

const readingOf = (take: PathTake) => ({
  // Not its own: the take itself stays in the rig beside what is made of it.
  id: 'of-path-test',
  label: take.label,
  ...(take.takeId === undefined ? {} : { takeId: take.takeId }),
  takenAt: take.takenAt,
  sourceId: take.sourceId,
  listenerId: take.listenerId,
  madeWith: take.settings,
  offsetMs: take.ms.mean,
  sdMs: take.ms.sd,
  count: take.ms.count,
});

/** Which takes do not agree with the middle of all, and what would explain them. */
function withOdd(rig: Rig, own: readonly { take: PathTake; expected: Interval; sumMs: number }[]): TestedTake[] {
  const live = own.filter((t) => !t.take.leftOut);
  const middle = median(live, (t) => t.sumMs) ?? 0;
  const usual = live.length < FEWEST_TO_JUDGE ? 0 : (median(live, (t) => Math.abs(t.sumMs - middle)) ?? 0);
  return own.map((t) => {
    const off = t.sumMs - middle;
    const far = Math.abs(off) > Math.max(AGREE_MS, AGREE_SD * t.take.ms.sd, AGREE_USUAL * usual);
    const odd =
      t.take.leftOut || !far
        ? null
        : live.length < FEWEST_TO_JUDGE
          ? say.isFromOtherThird({ off: sayMs(2 * Math.abs(off)) })
          : explained(rig, t.take, off);
    return { ...t, odd, counts: !t.take.leftOut && (odd === null || live.length < FEWEST_TO_JUDGE) };
  });
}

/** How near a known distance explains an odd one. */
const EXPLAINS_MS = 4;
const EXPLAINS_FRAMES_MS = 2.5;
const BEAT_MS = 2000;
/** A reading with a spread this wide carries little information by itself, ms. */
const WIDE_MS = 15;

function explained(rig: Rig, take: PathTake, off: number): Text {
  const by = { off: sayMs(Math.abs(off)), order: off > 0 ? 'later' : 'earlier' };
  for (const { setting, value } of take.settings)
    if (value !== 0 && Math.abs(Math.abs(off) - value) < EXPLAINS_MS)
      return say.laterThanOthersAs({ off: by.off, order: by.order, delay: nameOf(rig, setting), value });
  if (Math.abs(Math.abs(off) - BEAT_MS) < 5 * EXPLAINS_MS)
    return say.laterThanOthersIt({ off: by.off, order: by.order });
  const frame = frameMs(rig.session.frameRate);
  const frames = Math.round(Math.abs(off) / frame);
  if (frames >= 1 && frames <= 3 && Math.abs(Math.abs(off) - frames * frame) < EXPLAINS_FRAMES_MS)
    return say.laterThanOthersOne({ off: by.off, order: by.order, frames });
  if (take.ms.sd > WIDE_MS) return say.laterThanOthersIts({ off: by.off, order: by.order, sd: sayMs(take.ms.sd) });
  return say.laterThanOthersNothing({ off: by.off, order: by.order });
}

const nameOf = (rig: Rig, key: string): Text => {
  const { deviceId } = settingAt(key);
  return say.delay({ device: findDevice(rig, deviceId)?.name ?? deviceId! });
};
const sayMs = (ms: number): string => `${ms.toFixed(ms < 10 ? 1 : 0)} ms`;

/** Never said to be known better than this: the same device stands a little otherwise from one start to the next. */
const MIN_SD_MS = 0.5;

/** Inverse-variance weighted mean; its spread also includes how far the takes differ. */
function together(takes: readonly TestedTake[]): NonNullable<TestedPath['together']> {
  const weights = takes.map((t) => 1 / Math.max(MIN_SD_MS, t.take.ms.sd) ** 2);
  const total = weights.reduce((a, b) => a + b, 0);
  const sumMs = takes.reduce((sum, t, i) => sum + t.sumMs * weights[i]!, 0) / total;
  const apart = takes.reduce((sum, t, i) => sum + weights[i]! * (t.sumMs - sumMs) ** 2, 0) / total;
  return {
    sumMs,
    sdMs: Math.sqrt(1 / total + (takes.length > 1 ? apart / (takes.length - 1) : 0)),
    count: takes.reduce((sum, t) => sum + t.take.ms.count, 0),
  };
}

/** All takes of a path that count, together, as one measured figure of the rig; null where there is none. */
export function pathIntoRig(rig: Rig, path: TestedPath, id: string, takenAt: string): Edit | null {
  const last = path.takes.filter((t) => t.counts).at(-1);
  if (!path.together || !last) return null;
  const { sumMs, sdMs, count } = path.together;
  const done = reconcilePicture(rig, {
    ...readingOf(last.take),
    id,
    takenAt,
    // What this take would have read, had it read the middle of all.
    offsetMs: last.take.ms.mean - last.sumMs + sumMs,
    sdMs,
    count,
  });
  return done.ok ? done.edit : null;
}
