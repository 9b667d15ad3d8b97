import { type FftOf, fftSize } from '#core/audio/samples/index.ts';

/** Bins this far below the mean magnitude are ignored. */
const EMPTY_BIN = 0.02;

/** The part of the spectrum that takes part in a comparison. */
export interface Band {
  readonly lowHz: number;
  readonly highHz: number;
}

/**
 * Evens out a packed spectrum in place, within the band; outside it becomes zero. Magnitudes are divided by their
 * power of 3/4: by all of it would be the phase transform (Knapp & Carter 1976), which lets empty bins speak as
 * loudly as full ones; a little less keeps noise from deciding.
 */
export function whiten(spectrum: Float32Array, sampleRateHz: number, band: Band): void {
  const size = spectrum.length;
  const perBin = sampleRateHz / size;
  const first = Math.max(1, Math.ceil(band.lowHz / perBin));
  const last = Math.min(size / 2 - 1, Math.floor(band.highHz / perBin));
  spectrum.fill(0, 0, 2 * first);
  spectrum.fill(0, 2 * (last + 1));
  let total = 0;
  for (let k = first; k <= last; k++) total += Math.sqrt(spectrum[2 * k]! ** 2 + spectrum[2 * k + 1]! ** 2);
  const floor = (EMPTY_BIN * total) / Math.max(1, last - first + 1);
  if (floor === 0) return;
  for (let k = first; k <= last; k++) {
    const re = spectrum[2 * k]!;
    const im = spectrum[2 * k + 1]!;
    const root = Math.sqrt(Math.sqrt(re * re + im * im) + floor);
    const g = 1 / (root * Math.sqrt(root));
    spectrum[2 * k] = re * g;
    spectrum[2 * k + 1] = im * g;
  }
}

/** a* times b for packed spectra: its inverse is the correlation, peaks where `b` holds `a` later. Written over `b`. */
export function crossInto(a: Float32Array, b: Float32Array): void {
  b[0]! *= a[0]!;
  b[1]! *= a[1]!;
  for (let i = 2; i < a.length; i += 2) {
    const ar = a[i]!;
    const ai = a[i + 1]!;
    const br = b[i]!;
    const bi = b[i + 1]!;
    b[i] = ar * br + ai * bi;
    b[i + 1] = ar * bi - ai * br;
  }
}

/** A correlation peak: its lag in samples with a fraction, its prominence and its sign. */
export interface Peak {
  readonly lag: number;
  /** Height over the root mean square of the correlation: 5 or so is chance, 10 is not. */
  readonly z: number;
  readonly polarity: 1 | -1;
}

/** Vertex of the parabola through three points around a peak, in samples from the middle one. */
function vertex(before: number, at: number, after: number): number {
  const bend = before - 2 * at + after;
  return bend === 0 ? 0 : Math.max(-0.5, Math.min(0.5, (0.5 * (before - after)) / bend));
}

/** Oversampling around a peak before parabolic interpolation: the correlation is band-limited, so this is exact. */
const FINER = 16;
const SINC_REACH = 12;

/** The correlation between its samples, by windowed sinc; the array is read round the corner. */
function between(c: Float32Array, at: number): number {
  const base = Math.floor(at);
  let sum = 0;
  for (let i = base - SINC_REACH + 1; i <= base + SINC_REACH; i++) {
    const t = at - i;
    const w = Math.cos((Math.PI * t) / (2 * (SINC_REACH + 1))) ** 2;
    sum += c[(i + c.length) % c.length]! * w * (t === 0 ? 1 : Math.sin(Math.PI * t) / (Math.PI * t));
  }
  return sum;
}

/** Where the peak near sample `at` truly is, to a small part of a sample. */
function refinePeak(c: Float32Array, at: number): number {
  const sign = c[(at + c.length) % c.length]! < 0 ? -1 : 1;
  let best = at;
  let height = Number.NEGATIVE_INFINITY;
  for (let k = -FINER; k <= FINER; k++) {
    const v = sign * between(c, at + k / FINER);
    if (v > height) {
      height = v;
      best = at + k / FINER;
    }
  }
  const step = 1 / FINER;
  return best + step * vertex(sign * between(c, best - step), height, sign * between(c, best + step));
}

export interface Comparison {
  /** Samples at `sampleRateHz`. `other` is the longer one; its first sample is lag 0 of `ref`'s first. */
  readonly ref: Float32Array;
  readonly other: Float32Array;
  readonly sampleRateHz: number;
  readonly band: Band;
  /** Only lags in this range of samples are looked at, all of them from 0 to other.length - ref.length. */
  readonly lowestLag: number;
  readonly highestLag: number;
}

/** The best lag within the range, with its fraction; null where either is silent. */
export function bestLag(
  fftOf: FftOf,
  { ref, other, sampleRateHz, band, lowestLag, highestLag }: Comparison,
): Peak | null {
  // The ends run into each other only at lags for which `ref` does not lie within `other`; those are not looked at.
  const size = fftSize(other.length);
  const fft = fftOf(size);
  const padded = new Float32Array(size);
  const a = new Float32Array(size);
  const b = new Float32Array(size);
  padded.set(ref);
  fft.forward(padded, a);
  padded.fill(0);
  padded.set(other);
  fft.forward(padded, b);
  whiten(a, sampleRateHz, band);
  whiten(b, sampleRateHz, band);
  crossInto(a, b);
  fft.inverse(b, padded);
  let at = lowestLag;
  let height = -1;
  for (let lag = lowestLag; lag <= highestLag; lag++) {
    const v = Math.abs(padded[(lag + size) % size]!);
    if (v > height) {
      height = v;
      at = lag;
    }
  }
  // The rest of the correlation estimates the distribution of chance peaks.
  const guard = Math.ceil(sampleRateHz * 0.002);
  let power = 0;
  let count = 0;
  for (let lag = 0; lag <= other.length - ref.length; lag++) {
    if (Math.abs(lag - at) <= guard) continue;
    const v = padded[(lag + size) % size]!;
    power += v * v;
    count++;
  }
  if (power === 0 || height <= 0) return null;
  return {
    lag: refinePeak(padded, at),
    z: height / Math.sqrt(power / count),
    polarity: padded[(at + size) % size]! < 0 ? -1 : 1,
  };
}
