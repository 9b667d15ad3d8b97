import type { Piece } from '#core/audio/samples/index.ts';
import type { Apart } from './jumps.ts';

/** From an instant of the first recording on, the offset of the other: this much later, running this much longer. */
export interface Stretch {
  readonly fromMs: number;
  readonly offsetMs: number;
  readonly longerPpm: number;
}

/** Readings in a row whose median shows how a line misses them: one outlier is ignored. */
const SMOOTH = 9;
/** A line that misses by no more than this is right: it is heard nowhere, and far under a frame. */
const MAX_MISS_MS = 0.2;
/** Minimum number of readings between two bends. */
const READINGS_A_BEND = 12;
const MAX_BENDS = 32;

/**
 * How two recordings lie to each other, stretch by stretch: cut where a buffer was lost or came twice, and between those
 * one straight line for clocks that keep their pace; a bent one, with as few bends as it takes, for clocks that wander
 * as they warm up.
 * @returns at least one, the first from the start of the first recording; the last goes on for ever
 */
export function stretchesOf({ readings, jumps, startMs, driftPpm }: Apart): Stretch[] {
  const cuts = [0, ...jumps.map((j) => j.atMs)];
  return cuts.flatMap((fromMs, k) => {
    const toMs = cuts[k + 1] ?? Number.POSITIVE_INFINITY;
    const own = readings.filter((r) => r.atMs >= fromMs && r.atMs < toMs);
    const lineMs = startMs + jumps.slice(0, k).reduce((sum, j) => sum + j.stepMs, 0);
    const straight: Stretch = { fromMs, offsetMs: lineMs + fromMs * (driftPpm ?? 0) * 1e-6, longerPpm: driftPpm ?? 0 };
    return missMs(own, [straight]) <= MAX_MISS_MS ? [straight] : bent(own, fromMs, straight);
  });
}

type Readings = Apart['readings'];

/** The offset by stretches at an instant of the first recording. */
export function offsetAtMs(stretches: readonly Stretch[], atMs: number): number {
  const own = stretches.findLast((s) => s.fromMs <= atMs) ?? stretches[0]!;
  return own.offsetMs + (atMs - own.fromMs) * own.longerPpm * 1e-6;
}

/** By how much stretches miss readings at worst, single strays aside. */
function missMs(readings: Readings, stretches: readonly Stretch[]): number {
  const off = readings.map((r) => r.offsetMs - offsetAtMs(stretches, r.atMs));
  let worst = 0;
  for (let i = 0; i + SMOOTH <= off.length; i++) {
    const middle = off.slice(i, i + SMOOTH).sort((a, b) => a - b)[SMOOTH >> 1]!;
    worst = Math.max(worst, Math.abs(middle));
  }
  return worst;
}

/** The fewest even bends that miss little enough; as many as the readings allow, where none does. */
function bent(readings: Readings, fromMs: number, straight: Stretch): Stretch[] {
  const most = Math.min(MAX_BENDS, Math.floor(readings.length / READINGS_A_BEND));
  let best = [straight];
  for (let pieces = 1; pieces <= most; pieces = pieces < 4 ? pieces + 1 : Math.ceil(pieces * 1.5)) {
    best = throughKnots(readings, fromMs, pieces);
    if (missMs(readings, best) <= MAX_MISS_MS) break;
  }
  return best;
}

const ROUNDS = 6;
const MIN_SPREAD_MS = 0.02;

/** The line with even bends closest to all readings; outliers lose weight (Huber). */
function throughKnots(readings: Readings, fromMs: number, pieces: number): Stretch[] {
  const endMs = readings.at(-1)!.atMs;
  const stepMs = (endMs - fromMs) / pieces;
  const knots = pieces + 1;
  const parts = readings.map((r) => {
    const at = Math.min(pieces - 1, Math.max(0, Math.floor((r.atMs - fromMs) / stepMs)));
    return { at, share: (r.atMs - fromMs - at * stepMs) / stepMs, y: r.offsetMs };
  });
  let values = new Float64Array(knots);
  let weights = parts.map(() => 1);
  for (let round = 0; round < ROUNDS; round++) {
    values = solve(parts, weights, knots);
    const off = parts.map((p) => Math.abs(p.y - values[p.at]! * (1 - p.share) - values[p.at + 1]! * p.share));
    const usual = Math.max(MIN_SPREAD_MS, 2 * ([...off].sort((a, b) => a - b)[off.length >> 1] ?? 0));
    weights = off.map((d) => (d > usual ? usual / d : 1));
  }
  return Array.from({ length: pieces }, (_, k) => ({
    fromMs: fromMs + k * stepMs,
    offsetMs: values[k]!,
    longerPpm: (1e6 * (values[k + 1]! - values[k]!)) / stepMs,
  }));
}

/** Weighted least squares for hat functions: three bands, by elimination. */
function solve(
  parts: readonly { at: number; share: number; y: number }[],
  weights: readonly number[],
  knots: number,
): Float64Array<ArrayBuffer> {
  const [main, upper, right] = [new Float64Array(knots), new Float64Array(knots), new Float64Array(knots)];
  parts.forEach(({ at, share, y }, i) => {
    const w = weights[i]!;
    main[at]! += w * (1 - share) ** 2;
    main[at + 1]! += w * share ** 2;
    upper[at]! += w * share * (1 - share);
    right[at]! += w * (1 - share) * y;
    right[at + 1]! += w * share * y;
  });
  for (let k = 0; k < knots; k++) main[k]! += 1e-9;
  for (let k = 1; k < knots; k++) {
    const f = upper[k - 1]! / main[k - 1]!;
    main[k]! -= f * upper[k - 1]!;
    right[k]! -= f * right[k - 1]!;
  }
  const out = new Float64Array(knots);
  for (let k = knots - 1; k >= 0; k--) out[k] = (right[k]! - (k + 1 < knots ? upper[k]! * out[k + 1]! : 0)) / main[k]!;
  return out;
}

/** The same as pieces by which a recording is read, so that it is aligned with the first one from end to end. */
export const piecesOf = (stretches: readonly Stretch[], sampleRateHz: number): Piece[] =>
  stretches.map(({ fromMs, offsetMs, longerPpm }) => ({
    fromFrame: (fromMs * sampleRateHz) / 1000,
    readAt: ((fromMs + offsetMs) * sampleRateHz) / 1000,
    step: 1 + longerPpm * 1e-6,
  }));
