import { type FftOf, fftSize } from '#core/audio/samples/index.ts';
import { BASE_HZ, type Baseband, EVENING_HOP, type Evening, evened, tuneBaseband } from './baseband.ts';
import type { Fine } from './fine.ts';

/** Range of lags of a response, relative to the strongest arrival. */
export const BEFORE_MS = 400;
export const AFTER_MS = 1500;
const before = Math.round((BEFORE_MS * BASE_HZ) / 1000);
const after = Math.round((AFTER_MS * BASE_HZ) / 1000);
export const RESPONSE_LAGS = before + after;

/** The response of a source at a take: strength and phase at each lag, `-BEFORE_MS` to `AFTER_MS`, real and imaginary interleaved. */
export type Response = Float32Array;

/** A tune in the whitened take, as a whole and in halves. */
export interface MeasurementStatus {
  readonly first: number;
  readonly tune: Baseband;
}

export function standingOf(
  fftOf: FftOf,
  evening: Evening,
  id: number,
  { at, ppm }: Pick<Fine, 'at' | 'ppm'>,
): MeasurementStatus {
  const first = EVENING_HOP * Math.floor(Math.round(at) / EVENING_HOP);
  return { first, tune: evened(fftOf, tuneBaseband(id, ppm, at - first), evening, first / EVENING_HOP) };
}

/** How strongly a tune is in a take just where it stands, linear. */
export function gainOf(take: Baseband, { first, tune }: MeasurementStatus): number {
  let [re, im, energy] = [0, 0, 0];
  const [from, to] = [Math.max(0, -first), Math.min(tune.length / 2, take.length / 2 - first)];
  for (let n = from; n < to; n++) {
    const xr = take[2 * (n + first)]!;
    const xi = take[2 * (n + first) + 1]!;
    const sr = tune[2 * n]!;
    const si = tune[2 * n + 1]!;
    re += xr * sr + xi * si;
    im += xi * sr - xr * si;
    energy += sr * sr + si * si;
  }
  return energy > 0 ? Math.hypot(re, im) / energy : 0;
}

/** Regularization: this fraction of the mean power is added where the tune has little. */
const FLOOR = 0.02;

/**
 * Response of the way from a player to a take: the take divided by the tune, held back where the tune has nothing.
 * @param half  only the first or the second half of the tune: what is real is in both
 */
export function responseOf(fftOf: FftOf, take: Baseband, { first, tune }: MeasurementStatus, half?: 0 | 1): Response {
  const length = tune.length / 2;
  const size = fftSize(length + after + before);
  const fft = fftOf.complex(size);
  const x = new Float32Array(2 * size);
  const s = new Float32Array(2 * size);
  const part = new Float32Array(2 * size);
  const middle = length >> 1;
  const [from, to] = half === undefined ? [0, length] : half === 0 ? [0, middle] : [middle, length];
  part.set(tune.subarray(2 * from, 2 * to), 2 * from);
  fft.forward(part, s);
  part.fill(0);
  const start = first - before;
  const [a, z] = [Math.max(0, start + from), Math.min(take.length / 2, start + Math.min(to + before + after, size))];
  if (z > a) part.set(take.subarray(2 * a, 2 * z), 2 * (a - start));
  fft.forward(part, x);
  let mean = 0;
  for (let i = 0; i < 2 * size; i++) mean += s[i]! * s[i]!;
  const floor = (FLOOR * mean) / size;
  for (let i = 0; i < 2 * size; i += 2) {
    const xr = x[i]!;
    const xi = x[i + 1]!;
    const sr = s[i]!;
    const si = s[i + 1]!;
    const k = 1 / (sr * sr + si * si + floor || 1);
    x[i] = (xr * sr + xi * si) * k;
    x[i + 1] = (xi * sr - xr * si) * k;
  }
  fft.inverse(x, part);
  return part.slice(0, 2 * RESPONSE_LAGS);
}

export const lagMs = (index: number): number => (1000 * (index - before)) / BASE_HZ;
const indexOf = (ms: number): number => before + Math.round((ms * BASE_HZ) / 1000);

/** A second way by which a source comes, against the strongest. */
export interface SecondWay {
  /** Positive: later. */
  readonly afterMs: number;
  /** Under the strongest. */
  readonly underDb: number;
  /** So near that it may as well be a wall. */
  readonly perhapsReflection: boolean;
}

export interface Seconds {
  readonly ways: readonly SecondWay[];
  /** Nothing further than this under the strongest could have been seen beyond its own blur. */
  readonly noneAboveDb: number;
}

const NEAREST_MS = 1.5;
const NEAR_MS = 10;
const MIN_DB = -32;
const MIN_NEAR_DB = -22;
const OVER_MIDDLE = 4.5;
const OVER_MIDDLE_HALVES = 2.5;
const ROUND_MS = 20;
const REFLECTION_MS = 20;
const MAX_WAYS = 3;

/** Further paths: peaks of the response that are prominent in the whole and in both halves. */
export function secondWays(whole: Response, halves: readonly [Response, Response]): Seconds {
  const size = magnitudes(whole);
  const parts = halves.map(magnitudes);
  const main = indexOf(0);
  const top = Math.max(...size.subarray(main - 2, main + 3));
  const round = indexOf(ROUND_MS) - main;
  const ways: SecondWay[] = [];
  let noise = 0;
  for (let i = 2; i < size.length - 2; i++) {
    const ms = Math.abs(lagMs(i));
    if (ms < NEAREST_MS) continue;
    const v = size[i]!;
    if (v < size[i - 1]! || v <= size[i + 1]!) continue;
    const least = top * 10 ** ((ms < NEAR_MS ? MIN_NEAR_DB : MIN_DB) / 20);
    if (v < least) continue;
    const stands = (of: Float32Array, k: number) => peakNear(of, i) > k * medianRound(of, i, round);
    if (!stands(size, OVER_MIDDLE) || !parts.every((p) => stands(p, OVER_MIDDLE_HALVES))) continue;
    ways.push({
      afterMs: lagMs(i + vertex(size[i - 1]!, v, size[i + 1]!)),
      underDb: -20 * Math.log10(v / top),
      perhapsReflection: ms < REFLECTION_MS,
    });
  }
  for (let i = round; i < size.length - round; i += round)
    if (Math.abs(i - main) >= 2 * round) noise = Math.max(noise, medianRound(size, i, round));
  ways.sort((a, b) => a.underDb - b.underDb);
  const kept = ways.filter((w, i) => !ways.slice(0, i).some((o) => Math.abs(o.afterMs - w.afterMs) < NEAREST_MS));
  return { ways: kept.slice(0, MAX_WAYS), noneAboveDb: 20 * Math.log10(Math.max(1e-4, (OVER_MIDDLE * noise) / top)) };
}

export function magnitudes(of: Response): Float32Array {
  const out = new Float32Array(of.length / 2);
  for (let i = 0; i < out.length; i++) out[i] = Math.hypot(of[2 * i]!, of[2 * i + 1]!);
  return out;
}

const peakNear = (of: Float32Array, i: number): number => Math.max(of[i - 1]!, of[i]!, of[i + 1]!);

function medianRound(of: Float32Array, i: number, round: number): number {
  const part = of.slice(Math.max(0, i - round), i + round + 1).sort();
  return part[part.length >> 1]!;
}

const vertex = (a: number, b: number, c: number): number => {
  const bend = a - 2 * b + c;
  return bend === 0 ? 0 : Math.max(-0.5, Math.min(0.5, (0.5 * (a - c)) / bend));
};

/** What of a response is the source itself: round its strongest arrival, and round each second one. */
const OWN_MS = { before: 3, after: 30 };
const OWN_SECOND_MS = { before: 1, after: 4 };

/** Takes a source away from a take, or puts it back (`sign` 1): its tune by the part of its response that is surely its own. */
export function addSource(
  fftOf: FftOf,
  take: Baseband,
  standing: MeasurementStatus,
  response: Response,
  ways: readonly SecondWay[],
  sign: 1 | -1,
): void {
  const { first, tune } = standing;
  const length = tune.length / 2;
  const size = fftSize(length + after + before);
  const fft = fftOf.complex(size);
  const own = new Float32Array(2 * size);
  const keep = (fromMs: number, toMs: number) => {
    const [a, z] = [Math.max(0, indexOf(fromMs)), Math.min(RESPONSE_LAGS, indexOf(toMs))];
    own.set(response.subarray(2 * a, 2 * z), 2 * a);
  };
  keep(-OWN_MS.before, OWN_MS.after);
  for (const { afterMs } of ways) keep(afterMs - OWN_SECOND_MS.before, afterMs + OWN_SECOND_MS.after);
  const h = new Float32Array(2 * size);
  const s = new Float32Array(2 * size);
  fft.forward(own, h);
  own.fill(0);
  own.set(tune);
  fft.forward(own, s);
  for (let i = 0; i < 2 * size; i += 2) {
    const hr = h[i]!;
    const hi = h[i + 1]!;
    const sr = s[i]!;
    const si = s[i + 1]!;
    h[i] = hr * sr - hi * si;
    h[i + 1] = hr * si + hi * sr;
  }
  fft.inverse(h, own);
  const start = first - before;
  const [a, z] = [Math.max(0, start), Math.min(take.length / 2, start + size)];
  for (let n = a; n < z; n++) {
    take[2 * n]! += sign * own[2 * (n - start)]!;
    take[2 * n + 1]! += sign * own[2 * (n - start) + 1]!;
  }
}
