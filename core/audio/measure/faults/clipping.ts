import { say } from '#core/audio/measure/sayings.ts';
import { dbFromRatio } from '#core/model/units/index.ts';
import { type Fault, sayAt, sideName } from './fault.ts';

/** Flatness tolerances: a top that was clipped and stored again, and one with a little noise over it. */
const FLAT = [
  { within: 4.6e-5, isPart: false },
  { within: 0.004, isPart: true },
] as const;
const MIN_SAMPLES = 3;
/** A round top that is flat within e over three samples has fallen by at most 9 e two samples further on. */
const CORNER = 12;
/** Minimum level of a top. */
const MIN_LEVEL = 0.02;
/** Steepness on both sides of a top beyond which it is a square wave by design. */
const JUMP = 0.8;
/** Minimum number of tops at one level: at the maximum, and below it, where a part of the take was turned down. */
const MIN_TOPS = { highest: 3, below: 12 } as const;
const BINS = [16_384, 250] as const;
/** Distance from the highest sample within which a top counts as one of the highest. */
const HIGHEST_PART = 0.99;
/** Steps of 14 bits and fewer. */
const FEW_BITS_STEP = 1e-4;
const PLACES = 5;
const APART_S = 0.3;
/** Number of positions kept for each level. */
const KEPT = 400;

interface Shelf {
  tops: number;
  samples: number;
  readonly at: number[];
}

/** Looks for tops cut flat, at full scale or at any level that they were turned down to afterwards. */
export function clippingMeter(channelCount: number, sampleRateHz: number) {
  // By channel and flatness: signed levels, in bins, with the tops at each.
  const shelves = Array.from({ length: channelCount }, () => FLAT.map(() => new Map<number, Shelf>()));
  const peaks = Array.from({ length: channelCount }, () => ({ up: 0, down: 0 }));
  let from = 0;
  return {
    /** Tops that cross the border of two pieces are skipped. */
    push(channels: readonly Float32Array[]): void {
      for (let c = 0; c < channelCount; c++) {
        const x = channels[c]!;
        const { coarse, up, down } = readPiece(x);
        const peak = peaks[c]!;
        peak.up = Math.max(peak.up, up);
        peak.down = Math.max(peak.down, down);
        FLAT.forEach(({ within, isPart }, f) => {
          const flat = isPart ? within * Math.max(up, down) : Math.max(within, coarse);
          // Of tops that are not quite flat only the very highest are judged, with those a bin beside them.
          const above = (highest: number) => (isPart ? HIGHEST_PART * highest - 2 / BINS[f]! : 0);
          const over = { up: above(peak.up), down: above(peak.down) };
          if (flat > 0) findTops(x, flat, over, from, BINS[f]!, shelves[c]![f]!);
        });
      }
      from += channels[0]?.length ?? 0;
    },
    result: (): Fault[] => shelves.flatMap((own, c) => judge(own, peaks[c]!, c, channelCount, sampleRateHz)),
  };
}

/** The highest of each polarity; and one step and a half of a file of few bits, whose tops are all flat. */
function readPiece(x: Float32Array): { coarse: number; up: number; down: number } {
  let up = 0;
  let down = 0;
  for (let i = 1; i < x.length; i++) {
    const v = x[i]!;
    if (v > up) up = v;
    else if (-v > down) down = -v;
  }
  let least = Number.POSITIVE_INFINITY;
  for (let i = 1; i < x.length && least > FEW_BITS_STEP; i++) {
    const step = Math.abs(x[i]! - x[i - 1]!);
    if (step > 0 && step < least) least = step;
  }
  return { coarse: least > FEW_BITS_STEP && Number.isFinite(least) ? 1.5 * least : 0, up, down };
}

/**
 * Cuts a piece into runs as flat as `flat`, each begun where the one before could not go on, and keeps those that are
 * tops. Two samples that are further apart belong to two runs, so that only what lies between two such places is cut;
 * and of three in a run, two stand at an even place and the one after it.
 */
function findTops(
  x: Float32Array,
  flat: number,
  over: { readonly up: number; readonly down: number },
  from: number,
  bins: number,
  shelves: Map<number, Shelf>,
): void {
  const up = Math.max(MIN_LEVEL, over.up) - flat;
  const down = flat - Math.max(MIN_LEVEL, over.down);
  for (let i = 0; i + 1 < x.length; i += 2) {
    const v = x[i]!;
    if (v < up && v > down) continue;
    if (Math.abs(x[i + 1]! - v) > flat) continue;
    let start = i;
    while (start > 0 && Math.abs(x[start]! - x[start - 1]!) <= flat) start--;
    const end = cutRuns(x, start, flat, from, bins, shelves);
    i = (end & ~1) - (end & 1 ? 0 : 2);
  }
}

/** The runs from one place up to the next at which the wave moves on for sure. @returns that place */
function cutRuns(
  x: Float32Array,
  first: number,
  flat: number,
  from: number,
  bins: number,
  shelves: Map<number, Shelf>,
): number {
  let start = first;
  let low = x[first]!;
  let high = low;
  for (let i = first + 1; ; i++) {
    const v = i < x.length ? x[i]! : Number.POSITIVE_INFINITY;
    if (v < low && high - v <= flat) low = v;
    else if (v > high && v - low <= flat) high = v;
    if (v >= low && v <= high) continue;
    const length = i - start;
    if (length >= MIN_SAMPLES && Math.max(high, -low) > MIN_LEVEL && isCut(x, start, i, flat)) {
      // The outermost of it is where it was cut.
      const level = high > 0 ? high : low;
      const bin = Math.round(level * bins);
      const shelf = shelves.get(bin) ?? { tops: 0, samples: 0, at: [] };
      shelf.tops++;
      shelf.samples += length;
      if (shelf.at.length < KEPT) shelf.at.push(from + start);
      shelves.set(bin, shelf);
    }
    if (i >= x.length || Math.abs(v - x[i - 1]!) > flat) return i;
    start = i;
    low = v;
    high = v;
  }
}

/** A top with corners: the wave comes up to it and goes down from it steeper than a round one could. */
function isCut(x: Float32Array, start: number, end: number, flat: number): boolean {
  if (start < 2 || end + 1 >= x.length) return false;
  const sign = x[start]! > 0 ? 1 : -1;
  const level = Math.max(sign * x[start]!, sign * x[end - 1]!);
  const [near, far] = [level - sign * x[start - 1]!, level - sign * x[start - 2]!];
  const [nearAfter, farAfter] = [level - sign * x[end]!, level - sign * x[end + 1]!];
  if (near < 0 || nearAfter < 0 || far < near || farAfter < nearAfter) return false;
  if (Math.min(near, nearAfter) > JUMP * level) return false;
  return Math.max(far, farAfter) > CORNER * flat && Math.min(far, farAfter) > (CORNER * flat) / 3;
}

/** The first few places that stand apart. */
function apartFrom(seconds: readonly number[]): number[] {
  const places: number[] = [];
  for (const at of [...seconds].sort((a, b) => a - b))
    if (places.length < PLACES && at - (places.at(-1) ?? Number.NEGATIVE_INFINITY) >= APART_S) places.push(at);
  return places;
}

function judge(
  shelves: readonly Map<number, Shelf>[],
  peak: { up: number; down: number },
  channel: number,
  channels: number,
  sampleRateHz: number,
): Fault[] {
  let tops = 0;
  let samples = 0;
  let level = 0;
  const at: number[] = [];
  for (const [f, own] of shelves.entries()) {
    for (const [bin, shelf] of own) {
      const shelfLevel = Math.abs(bin) / BINS[f]!;
      const highest = bin > 0 ? peak.up : peak.down;
      const isHighest = shelfLevel >= highest * HIGHEST_PART;
      // Noise over a cut spreads its tops over neighboring levels.
      const together = shelf.tops + (own.get(bin - 1)?.tops ?? 0) + (own.get(bin + 1)?.tops ?? 0);
      const isExact = !FLAT[f]!.isPart;
      if (!isExact && !isHighest) continue;
      if (together < (isHighest ? MIN_TOPS.highest * (isExact ? 1 : 2) : MIN_TOPS.below)) continue;
      tops += shelf.tops;
      samples += shelf.samples;
      level = Math.max(level, shelfLevel);
      at.push(...shelf.at);
    }
    if (tops > 0) break;
  }
  if (tops === 0) return [];
  const where = apartFrom(at.map((i) => i / sampleRateHz));
  const turnedDown = level < 0.97;
  const evidence = say.peaksClippedAtDbfs({
    side: sideName(channel, channels),
    tops,
    level: dbFromRatio(level).toFixed(1),
    turned: turnedDown ? 'down' : 'no',
    samples,
    first: sayAt(where[0]!),
  });
  return [
    {
      id: 'clipping',
      severity: tops >= 10 ? 'fix' : 'watch',
      evidence,
      atS: where,
      channel: channels > 1 ? channel : null,
    },
  ];
}
