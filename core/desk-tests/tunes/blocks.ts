import type { Correlator, FftOf } from '#core/audio/samples/index.ts';
import { BASE_HZ, type Baseband, medianOf } from './baseband.ts';
import { TUNE_S } from './tune.ts';

/** A tune is held against a take second by second: a clock that is off by 200 ppm does not blur one. */
export const BLOCKS = TUNE_S;
export const BLOCK = BASE_HZ;
const PIECE = 16_384;
const STEP = PIECE - BLOCK;
/** A player may have started up to this many blocks before the take. */
const BEFORE_BLOCKS = 7;
export const BEFORE = BEFORE_BLOCKS * BLOCK;
/** Minimum number of blocks of a tune within the take. */
const FEWEST_BLOCKS = 8;

/** A take made ready for the tunes to be held against it. */
export interface Ground {
  /** Its pieces, to be freed when all tunes have been held against it. */
  readonly correlator: Correlator;
  readonly pieces: number;
  /** Possible starts of a tune: this many samples, the first of them `BEFORE` ahead of the take. */
  readonly lags: number;
  /** The half of them where a tune would overlap most sound: used to estimate chance. */
  readonly loudest: Lags;
}

/** A stretch of lags. */
export interface Lags {
  readonly from: number;
  readonly lags: number;
}

/** Search range to each side of where blocks are due by an exact clock: for drift and lost buffers. */
export const MARGIN = 512;

export function groundOf(fftOf: FftOf, evened: Baseband): Ground {
  const correlator = fftOf.correlator(PIECE);
  const samples = evened.length / 2;
  const lags = Math.max(1, samples + BEFORE - FEWEST_BLOCKS * BLOCK);
  const span = lags + BLOCKS * BLOCK + 2 * MARGIN;
  let pieces = 0;
  const part = new Float32Array(2 * PIECE);
  for (let from = 0; from < span; from += STEP) {
    part.fill(0);
    const start = from - BEFORE - MARGIN;
    const [a, b] = [Math.max(0, start), Math.min(samples, start + PIECE)];
    if (b > a) part.set(evened.subarray(2 * a, 2 * b), 2 * (a - start));
    correlator.keep(part);
    pieces++;
  }
  return { correlator, pieces, lags, loudest: loudestOf(evened, lags) };
}

/** A take is weighed in steps of this many samples. */
const WEIGHED = 400;

/** The half of all lags in which a tune's length holds the most sound: silence would bias the estimate of chance. */
function loudestOf(evened: Baseband, lags: number): Lags {
  const steps = Math.ceil((lags + BLOCKS * BLOCK) / WEIGHED);
  const sums = new Float64Array(steps + 1);
  for (let i = 0; i < steps; i++) {
    const start = i * WEIGHED - BEFORE;
    let sum = 0;
    for (let n = Math.max(0, 2 * start); n < Math.min(evened.length, 2 * (start + WEIGHED)); n++)
      sum += evened[n]! ** 2;
    sums[i + 1] = sums[i]! + sum;
  }
  const half = Math.ceil(lags / 2);
  const [long, wide] = [Math.floor((BLOCKS * BLOCK) / WEIGHED), Math.floor(half / WEIGHED)];
  const under = (i: number) => sums[Math.min(steps, i + long)]! - sums[i]!;
  let now = 0;
  for (let i = 0; i < wide; i++) now += under(i);
  let [best, most] = [0, now];
  for (let i = 1; (i + wide) * WEIGHED <= lags; i++) {
    now += under(i + wide - 1) - under(i - 1);
    if (now > most) [best, most] = [i, now];
  }
  return { from: Math.min(best * WEIGHED, lags - half), lags: half };
}

/** How strongly each block of a tune is there at each lag, one row a block: each from where it is due. */
export interface BlockPowers {
  readonly powers: Float32Array;
  /** Of each row: one over the mean power of noise. */
  readonly scales: Float64Array;
  /** The first lag of the tune, and how many. A row has `MARGIN` more before and behind. */
  readonly from: number;
  readonly lags: number;
  readonly width: number;
}

const USUAL_EVERY = 61;
/** What is usual of one block is at least this share of what is usual of any. */
const MIN_SHARE = 0.01;

/**
 * Holds every block of a tune against a take.
 * @param part  which lags: all, or at least the loudest
 * @param into  room of an earlier one that is done with
 */
export function powersOf(
  { correlator, pieces, loudest }: Ground,
  tune: Baseband,
  { from, lags }: Lags,
  into: Float32Array = new Float32Array(0),
): BlockPowers {
  const width = lags + 2 * MARGIN;
  const powers = into.length >= BLOCKS * width ? into : new Float32Array(BLOCKS * width);
  const usual = new Float64Array(BLOCKS);
  for (let b = 0; b < BLOCKS; b++) {
    correlator.against(tune.subarray(2 * BLOCK * b, 2 * BLOCK * (b + 1)));
    const row = powers.subarray(b * width, (b + 1) * width);
    const start = from + b * BLOCK;
    for (let p = Math.floor(start / STEP); p < pieces && p * STEP < start + width; p++)
      squared(correlator.withPiece(p), row, p * STEP - start);
    // By the middle: an exponential spread has it at ln 2 of its mean. Where it is loudest, whatever part is looked at.
    const first = loudest.from - from;
    usual[b] = medianOf(row.subarray(first, first + loudest.lags + 2 * MARGIN), USUAL_EVERY) / Math.LN2;
  }
  // Where a block is outside the take, or in silence, only rounding is left: relative to that everything would be prominent.
  const least = MIN_SHARE * usual.reduce((most, u) => Math.max(most, u), 0);
  const scales = usual.map((u) => (least > 0 ? 1 / Math.max(u, least) : 0));
  return { powers, scales, from, lags, width };
}

/** Adds the power of a piece's correlation to the row, as far as it overlaps; `at` is the position of its first lag. */
function squared(c: Float32Array, row: Float32Array, at: number): void {
  const to = Math.min(row.length, at + STEP);
  const from = Math.max(0, at);
  for (let i = from, k = 2 * (from - at); i < to; i++, k += 2) {
    const re = c[k]!;
    const im = c[k + 1]!;
    row[i] = re * re + im * im;
  }
}
