import type { FftOf } from '#core/audio/samples/index.ts';
import { BASE_HZ, type Baseband, EVENING_HOP, type Evening, evened, tuneBaseband } from './baseband.ts';
import { BLOCK, BLOCKS } from './blocks.ts';

/** Position of a tune in a take, to a small fraction of a sample. */
export interface Fine {
  /** When its first note begins, in samples of the baseband. */
  readonly at: number;
  /** How much faster the take's clock counts than the player's. */
  readonly ppm: number;
  /** Of the tune as it was made (see `TUNE_GAIN`), linear. */
  readonly gain: number;
  /** Carrier phase, radians: relative to another source it shows inverted polarity. */
  readonly phase: number;
  readonly blocks: readonly FineBlock[];
}

/** Position of a second of the tune. */
export interface FineBlock {
  /** Samples later than the whole says. */
  readonly late: number;
  /** Its peak over the mean of the correlation round it. */
  readonly standsOut: number;
  readonly gain: number;
}

/** Lags to each side of where the line has it. */
const REACH = 32;
/** The first look is for parts of a sample that fine; the second goes on from there. */
const OVER = 16;
const PPM_STEP = 0.5;
const PPM_ROUND = 30;
const WIDTH = 2 * REACH + 1;

/** A tune in the take round one place, both evened out by what the take is like there. */
export interface Held {
  /** Complex correlations, a row of 2 * 65 a block; how strong the tune itself is in each block. */
  readonly c: Float32Array;
  readonly energy: Float64Array;
  readonly first: number;
  readonly ppm: number;
}

const ON_ONE_LINE: readonly number[] = new Array<number>(BLOCKS).fill(0);

/**
 * Holds a tune against a take at a place that is roughly known, block by block. What is loud beside it at an instant and a
 * pitch gets little say, in the take and in the tune alike: the best estimate in noise that is not white.
 * @param late  whole samples that each block is looked for later
 */
export function holdAt(
  fftOf: FftOf,
  even: Baseband,
  evening: Evening,
  id: number,
  at: number,
  ppm: number,
  late: readonly number[] = ON_ONE_LINE,
): Held {
  // From a whole frame of the evening, so that both are evened by the same.
  const first = EVENING_HOP * Math.floor(Math.round(at) / EVENING_HOP);
  const tune = evened(fftOf, tuneBaseband(id, ppm, at - first), evening, first / EVENING_HOP);
  const c = new Float32Array(2 * WIDTH * BLOCKS);
  const energy = new Float64Array(BLOCKS);
  const samples = even.length / 2;
  const last = tune.length / 2;
  for (let b = 0; b < BLOCKS; b++) {
    const [from, to] = [b * BLOCK, b === BLOCKS - 1 ? last : (b + 1) * BLOCK];
    for (let n = from; n < to; n++) energy[b]! += tune[2 * n]! ** 2 + tune[2 * n + 1]! ** 2;
    for (let l = -REACH; l <= REACH; l++) {
      let re = 0;
      let im = 0;
      const shift = first + late[b]! + l;
      const [a, z] = [Math.max(from, -shift), Math.min(to, samples - shift)];
      for (let n = a; n < z; n++) {
        const xr = even[2 * (n + shift)]!;
        const xi = even[2 * (n + shift) + 1]!;
        const sr = tune[2 * n]!;
        const si = tune[2 * n + 1]!;
        re += xr * sr + xi * si;
        im += xi * sr - xr * si;
      }
      // The carrier turns by half a circle a sample.
      const sign = shift % 2 === 0 ? 1 : -1;
      c[2 * (WIDTH * b + l + REACH)] = sign * re;
      c[2 * (WIDTH * b + l + REACH) + 1] = sign * im;
    }
  }
  return { c, energy, first: at, ppm };
}

const SINC_REACH = 8;
/** A row between its samples, by windowed sinc. */
function between(c: Float32Array, row: number, at: number, out: Float64Array): void {
  const base = Math.floor(at);
  let re = 0;
  let im = 0;
  for (let i = Math.max(0, base - SINC_REACH + 1); i <= Math.min(WIDTH - 1, base + SINC_REACH); i++) {
    const t = at - i;
    const w =
      t === 0 ? 1 : (Math.cos((Math.PI * t) / (2 * (SINC_REACH + 1))) ** 2 * Math.sin(Math.PI * t)) / (Math.PI * t);
    // Sinc works on what turns slowly: the carrier's half turn a sample is taken out of the row, and put in again.
    const s = (i & 1) === 0 ? w : -w;
    re += c[2 * (row + i)]! * s;
    im += c[2 * (row + i) + 1]! * s;
  }
  const turn = Math.PI * at;
  const [cos, sin] = [Math.cos(turn), Math.sin(turn)];
  out[0] = re * cos - im * sin;
  out[1] = re * sin + im * cos;
}

/**
 * Delay, clock, strength and phase of a tune that is held against a take: all its blocks together.
 * @param used  blocks on one line; those beyond a lost buffer are left out
 */
export function finest(held: Held, used: readonly boolean[]): Fine {
  const { c, energy, first, ppm } = held;
  const sum = new Float64Array(2);
  const one = new Float64Array(2);
  const at = (lag: number, off: number): number => {
    sum[0] = 0;
    sum[1] = 0;
    for (let b = 0; b < BLOCKS; b++) {
      if (!used[b]) continue;
      const k = lag + REACH + off * 1e-6 * BLOCK * (b + 0.5);
      if (k < 0 || k > WIDTH - 1) continue;
      between(c, WIDTH * b, k, one);
      sum[0]! += one[0]!;
      sum[1]! += one[1]!;
    }
    return Math.hypot(sum[0]!, sum[1]!);
  };
  let best = { lag: 0, off: 0, height: -1 };
  const tryAt = (lag: number, off: number) => {
    const height = at(lag, off);
    if (height > best.height) best = { lag, off, height };
  };
  for (let off = -PPM_ROUND; off <= PPM_ROUND; off += 2) for (let lag = -4; lag <= 4; lag += 0.25) tryAt(lag, off);
  for (let step = 1; step >= PPM_STEP / 16; step /= 2) {
    const { lag, off } = best;
    for (const d of [-1, 0, 1])
      for (const o of [-1, 0, 1]) if (d !== 0 || o !== 0) tryAt(lag + (d * step * 4) / OVER, off + o * step);
  }
  at(best.lag, best.off);
  const total = energy.reduce((s, e, b) => (used[b] ? s + e : s), 0);
  const phase = Math.atan2(sum[1]!, sum[0]!);
  const blocks = Array.from(
    { length: BLOCKS },
    (_, b): FineBlock => blockOf(held, b, best.lag + best.off * 1e-6 * BLOCK * (b + 0.5)),
  );
  return {
    at: first + best.lag,
    ppm: ppm + best.off,
    gain: total > 0 ? best.height / total : 0,
    phase,
    blocks,
  };
}

/** @param due  samples later than where it was held */
export function blockOf({ c, energy }: Held, b: number, due: number): FineBlock {
  let [top, peak, power] = [0, -1, 0];
  for (let i = 0; i < WIDTH; i++) {
    const p = c[2 * (WIDTH * b + i)]! ** 2 + c[2 * (WIDTH * b + i) + 1]! ** 2;
    power += p;
    if (p > peak) [peak, top] = [p, i];
  }
  const mean = (power - peak) / (WIDTH - 1);
  return {
    late: top - REACH - due,
    standsOut: mean > 0 ? Math.sqrt(peak / mean) : 0,
    gain: energy[b]! > 0 ? Math.sqrt(peak) / energy[b]! : 0,
  };
}

export const msOf = (samples: number): number => (1000 * samples) / BASE_HZ;
