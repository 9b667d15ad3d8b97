import type { FftOf, Recording } from '#core/audio/samples/index.ts';
import { fineRateHz, type LagReading, type LagWindow, MIN_Z, readLag } from './lag.ts';
import { fitLine } from './line.ts';
import type { Offset } from './offset.ts';
import { durationS } from './windows.ts';

/** A lost or doubled buffer: from an instant on, the other recording is this much later. */
export interface Jump {
  /** Time of the first recording. */
  readonly atMs: number;
  /** How sure that is, to both sides. */
  readonly withinMs: number;
  /** Positive: from there on the same sound stands later in the other. */
  readonly stepMs: number;
}

/** How two recordings move apart, with clock drift and jumps separated. */
export interface Apart {
  readonly jumps: readonly Jump[];
  /** Of the clocks alone, ppm; null where unknown. */
  readonly driftPpm: number | null;
  readonly driftSdPpm: number | null;
  /** The offset at the start of the first recording. */
  readonly startMs: number;
  readonly readings: readonly { readonly atMs: number; readonly offsetMs: number }[];
}

/** Spacing of the readings, closer in short recordings, and their maximum number. */
const EVERY_S = 4;
const CLOSEST_S = 1;
const READINGS_WANTED = 60;
const MAX_READINGS = 1200;
const WINDOW_S = 1;
/** A jump of up to this is followed: two buffers of 4096 at 48 kHz and more. */
const REACH_S = 0.2;
/** A lasting change of the lag by this much is a jump. */
const MIN_STEP_S = 0.0005;
const SCATTERS = 8;
/** Number of readings on each side that decide where the lag was and is. */
const SIDE = 4;
const FEWEST = 3;
const NARROW_S = 0.6;
const NARROW_WINDOW_S = 0.4;
const BEST_READING_S = 2e-6;
const TELLABLE_PPM = 1.5;
const ROUNDS = 3;

/**
 * Follows the offset along two recordings that are known to hold the same sound, wide enough to see it jump.
 * @param offset  what `measureOffset` found: where to begin
 */
export async function measureJumps(
  fftOf: FftOf,
  ref: Recording,
  other: Recording,
  offset: Offset,
  onProgress?: (part: number) => void,
): Promise<Apart> {
  const rate = fineRateHz(ref, other);
  const window: LagWindow = { ref, other, rate, lengthS: WINDOW_S };
  const readings = await follow(fftOf, window, offset, onProgress);
  const slope0 = (offset.driftPpm ?? 0) * 1e-6;
  let slope = slope0;
  let cuts: number[] = [];
  let line = pooled(readings, cuts);
  for (let round = 0; round < ROUNDS; round++) {
    cuts = cutsOf(readings, slope);
    line = pooled(readings, cuts);
    slope = line.slope;
  }
  const levels = [0, ...cuts].map((from, k) => levelOf(readings.slice(from, cuts[k] ?? readings.length), slope));
  const jumps: Jump[] = [];
  for (const [k, cut] of cuts.entries()) {
    const [before, behind] = [readings[cut - 1]!, readings[cut]!];
    const at = await narrowed(fftOf, window, [before.atS, behind.atS], [levels[k]!, levels[k + 1]!], slope);
    jumps.push({
      atMs: 500 * (at[0] + at[1] + WINDOW_S / 2),
      withinMs: 500 * (at[1] - at[0]) + 250 * WINDOW_S,
      stepMs: 1000 * (levels[k + 1]! - levels[k]!),
    });
  }
  const tellable = line.slopeSd * 1e6 < TELLABLE_PPM;
  return {
    jumps,
    driftPpm: tellable ? slope * 1e6 : null,
    driftSdPpm: tellable ? line.slopeSd * 1e6 : null,
    startMs: 1000 * (levels[0] ?? offset.offsetMs / 1000),
    readings: readings.map((r) => ({ atMs: 1000 * r.atS, offsetMs: 1000 * r.lagS })),
  };
}

/** Readings from where the offset is surest to both ends, each near the one before it. */
async function follow(
  fftOf: FftOf,
  window: LagWindow,
  offset: Offset,
  onProgress?: (part: number) => void,
): Promise<LagReading[]> {
  const { ref, other } = window;
  const startS = Math.max(0, -offset.offsetMs / 1000);
  const endS = Math.min(durationS(ref), durationS(other) - offset.offsetMs / 1000) - WINDOW_S;
  const everyS = Math.max(CLOSEST_S, Math.min(EVERY_S, (endS - startS) / READINGS_WANTED));
  const count = Math.max(2, Math.min(MAX_READINGS, Math.floor((endS - startS) / everyS)));
  const times = Array.from({ length: count }, (_, i) => startS + ((endS - startS) * i) / (count - 1));
  const sure = offset.points.filter((p) => p.agrees);
  const first = sure[sure.length >> 1] ?? { atMs: 1000 * startS, offsetMs: offset.offsetMs };
  const slope = (offset.driftPpm ?? 0) * 1e-6;
  const split = times.findIndex((t) => t >= first.atMs / 1000);
  const found: LagReading[] = [];
  let done = 0;
  for (const side of [times.slice(Math.max(0, split)), times.slice(0, Math.max(0, split)).reverse()]) {
    let near = { atS: first.atMs / 1000, lagS: first.offsetMs / 1000 };
    for (const atS of side) {
      const guess = near.lagS + slope * (atS - near.atS);
      const reading = await readLag(fftOf, window, atS, guess, REACH_S, slope);
      if (reading && reading.z >= MIN_Z) {
        found.push(reading);
        near = reading;
      }
      onProgress?.(++done / count);
    }
  }
  return found.sort((a, b) => a.atS - b.atS);
}

const median = (values: readonly number[]): number => [...values].sort((a, b) => a - b)[values.length >> 1] ?? 0;
const levelOf = (readings: readonly LagReading[], slope: number): number =>
  median(readings.map((r) => r.lagS - slope * r.atS));

/** Where the level changes for good: indices of the first reading behind each jump. */
function cutsOf(readings: readonly LagReading[], slope: number): number[] {
  const level = readings.map((r) => r.lagS - slope * r.atS);
  const steps = level.slice(1).map((v, i) => Math.abs(v - level[i]!));
  const least = Math.max(MIN_STEP_S, SCATTERS * median(steps));
  const cuts: number[] = [];
  for (let i = 1; i < level.length; i++) {
    if (Math.abs(level[i]! - level[i - 1]!) < least) continue;
    const [front, back] = [level.slice(Math.max(cuts.at(-1) ?? 0, i - SIDE), i), level.slice(i, i + SIDE)];
    if (front.length < FEWEST || back.length < FEWEST) continue;
    const [before, behind] = [median(front), median(back)];
    // A single outlier returns; a jump stays.
    if (Math.abs(behind - before) >= least && Math.abs(level[i]! - behind) < least) cuts.push(i);
  }
  return cuts;
}

/** One slope for all stretches between jumps, each with a start of its own. */
function pooled(readings: readonly LagReading[], cuts: readonly number[]) {
  const centred = [0, ...cuts].flatMap((from, k) => {
    const part = readings.slice(from, cuts[k] ?? readings.length);
    const [x, y] = [part.map((r) => r.atS), part.map((r) => r.lagS)].map(
      (v) => v.reduce((a, b) => a + b, 0) / Math.max(1, v.length),
    );
    return part.map((r) => ({ x: r.atS - x!, y: r.lagS - y!, weight: r.z * r.z }));
  });
  return fitLine(centred, BEST_READING_S);
}

/** Bisects the stretch that contains a jump, by reading on which side of it its middle is. */
async function narrowed(
  fftOf: FftOf,
  window: LagWindow,
  between: readonly [number, number],
  [before, behind]: readonly [number, number],
  slope: number,
): Promise<[number, number]> {
  let [from, to] = between;
  const fine = { ...window, lengthS: NARROW_WINDOW_S };
  const margin = Math.abs(behind - before) + MIN_STEP_S;
  while (to - from > NARROW_S) {
    const atS = (from + to) / 2;
    const reading = await readLag(fftOf, fine, atS, (before + behind) / 2 + slope * atS, margin, slope);
    if (!reading || reading.z < MIN_Z) break;
    const level = reading.lagS - slope * atS;
    if (Math.abs(level - before) < Math.abs(level - behind)) from = atS;
    else to = atS;
  }
  return [from, to];
}
