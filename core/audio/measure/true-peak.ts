import { interpolators, kaiser, sinc } from '#core/audio/samples/index.ts';
import { type LevelsKernel, levelsKernel } from './kernel/index.ts';

/** The highest sample, and the highest point of the wave between samples; linear, full scale 1. */
export interface PeakMeter {
  push(channels: readonly Float32Array[]): void;
  /** Of what has all its neighbors: more follows. */
  latest(): Readonly<Peaks>;
  /** What is still in the filter is counted: nothing follows. */
  result(): Readonly<Peaks>;
}

export interface Peaks {
  samplePeak: number;
  truePeak: number;
}

/** Samples to each side of a point that its value between samples is made of. */
const REACH = 16;
export const TAPS = 2 * REACH;
/** Kaiser's beta: 80 dB down beyond the band. */
const BETA = 8;
/** Oversampled at least to this: at 48 kHz eight times, so that no sine up to 20 kHz is read more than 0.06 dB low. */
const RATE_HZ = 352_800;
const BLOCK = 64;
/**
 * Of samples and the points halfway between them, those at least so near the highest are looked at closely: a wave of
 * 20 kHz at 44.1 kHz, met as badly as can be, stands at cos(pi 20 / 88.2) = 0.757 of its top there; the short filter takes up to 6 % off such a wave.
 */
const NEAR = 0.7;

/** Scans samples that have their taps before them; what exceeds the peaks so far replaces them. */
type Look = (joined: Float32Array, peaks: Peaks) => void;

export interface PeakOptions {
  /** What was last before the first sample, a tap or more of each channel; silence where absent. */
  readonly before?: readonly Float32Array[];
  /** What looks; the plain code where null. */
  readonly kernel?: LevelsKernel | null;
}

/**
 * True peak by oversampling with a windowed sinc; ITU-R BS.1770-5 annex 2 asks for four times at least. A stretch that
 * cannot hold a higher one is passed over: a value between samples is at most the largest sample near it, times the sum
 * of the filter's magnitudes. Of the rest, the point halfway is worked out, and all points only where it stands near.
 */
export function peakMeter(
  channelCount: number,
  sampleRateHz: number,
  { before: given, kernel = levelsKernel() }: PeakOptions = {},
): PeakMeter {
  const times = Math.max(1, Math.min(8, Math.ceil(RATE_HZ / sampleRateHz)));
  const phases = interpolators(times, REACH, BETA);
  const bound = Math.max(1, ...phases.map((p) => p.reduce((sum, c) => sum + Math.abs(c), 0)));
  const look = kernel ? lookByKernel(kernel, phases, bound) : lookPlainly(phases, bound);
  // Each channel keeps the last taps of the piece before: a point between pieces is made of both.
  const before = Array.from({ length: channelCount }, (_, c) => {
    const taps = new Float32Array(TAPS);
    if (given) taps.set(given[c]!.subarray(-TAPS), Math.max(0, TAPS - given[c]!.length));
    return taps;
  });
  const peaks: Peaks = { samplePeak: 0, truePeak: 0 };
  const run = (channel: number, x: Float32Array, into: Peaks): void => {
    const joined = new Float32Array(TAPS + x.length);
    joined.set(before[channel]!);
    joined.set(x, TAPS);
    look(joined, into);
    before[channel]!.set(joined.subarray(joined.length - TAPS));
  };
  return {
    push(channels) {
      for (let c = 0; c < channelCount; c++) run(c, channels[c]!, peaks);
    },
    latest: () => ({ ...peaks }),
    result() {
      const ended = { ...peaks };
      const ends = before.map((b) => b.slice());
      for (let c = 0; c < channelCount; c++) run(c, new Float32Array(TAPS), ended);
      ends.forEach((b, c) => {
        before[c]!.set(b);
      });
      return ended;
    },
  };
}

function lookPlainly(phases: readonly Float64Array[], bound: number): Look {
  const half = halfway();
  let maxima = new Float32Array(0);
  return (x, peaks) => {
    const last = x.length - TAPS;
    const blocks = Math.ceil(x.length / BLOCK);
    if (maxima.length < blocks + 1) maxima = new Float32Array(blocks + 1);
    highestOf(x, maxima);
    maxima[blocks] = 0;
    let { samplePeak, truePeak } = peaks;
    for (let b = 0, at = 0; at < last; b++, at += BLOCK) {
      // What is made of samples of this block reaches into the next one, and no further.
      const most = Math.max(maxima[b]!, maxima[b + 1]!);
      if (most > samplePeak) samplePeak = most;
      if (most > truePeak) truePeak = most;
      if (most * bound > truePeak) truePeak = lookClosely(x, at, Math.min(last, at + BLOCK), half, phases, truePeak);
    }
    peaks.samplePeak = samplePeak;
    peaks.truePeak = truePeak;
  };
}

function lookByKernel(kernel: LevelsKernel, phases: readonly Float64Array[], bound: number): Look {
  const even = phases.length + (phases.length % 2);
  const coefficients = new Float64Array(even * TAPS);
  phases.forEach((phase, p) => {
    for (let k = 0; k < TAPS; k++) coefficients[2 * TAPS * (p >> 1) + 2 * k + (p & 1)] = phase[k]!;
  });
  const half = halfway();
  return (x, peaks) => {
    kernel.phases.set(coefficients);
    kernel.halfway.set(half);
    kernel.peaks[0] = peaks.samplePeak;
    kernel.peaks[1] = peaks.truePeak;
    for (let from = 0; from < x.length - TAPS; from += kernel.frames) {
      const part = x.subarray(from, from + kernel.frames + TAPS);
      kernel.left.set(part);
      kernel.look(part.length, even, bound, NEAR);
    }
    peaks.samplePeak = kernel.peaks[0]!;
    peaks.truePeak = kernel.peaks[1]!;
  };
}

/** The highest magnitude of each block, into `out`. */
function highestOf(x: Float32Array, out: Float32Array): void {
  for (let b = 0, at = 0; at < x.length; b++, at += BLOCK) {
    const end = Math.min(x.length, at + BLOCK);
    let most = 0;
    for (let i = at; i < end; i++) {
      const v = Math.abs(x[i]!);
      if (v > most) most = v;
    }
    out[b] = most;
  }
}

/** The highest point between the samples of a stretch, or what was the highest before. */
function lookClosely(
  x: Float32Array,
  at: number,
  end: number,
  [h0, h1, h2, h3, h4, h5]: ReturnType<typeof halfway>,
  phases: readonly Float64Array[],
  highest: number,
): number {
  let truePeak = highest;
  for (let i = at; i < end; i++) {
    const l = i + REACH - 1;
    const r = l + 1;
    const v =
      h0 * (x[l]! + x[r]!) +
      h1 * (x[l - 1]! + x[r + 1]!) +
      h2 * (x[l - 2]! + x[r + 2]!) +
      h3 * (x[l - 3]! + x[r + 3]!) +
      h4 * (x[l - 4]! + x[r + 4]!) +
      h5 * (x[l - 5]! + x[r + 5]!);
    if (Math.max(Math.abs(v), Math.abs(x[l]!), Math.abs(x[r]!)) < truePeak * NEAR) continue;
    // Every point between these two samples.
    for (let p = 0; p < phases.length; p++) {
      const c = phases[p]!;
      let between = 0;
      for (let k = 0; k < TAPS; k++) between += c[k]! * x[i + k]!;
      if (between > truePeak) truePeak = between;
      else if (-between > truePeak) truePeak = -between;
    }
  }
  return truePeak;
}

/** A short filter for the point halfway, one side of it, since it is even: good enough to see where to look closely. */
function halfway(): [number, number, number, number, number, number] {
  const side = Array.from({ length: 6 }, (_, k) => sinc(k + 0.5) * kaiser((k + 0.5) / 6.5, 4));
  const sum = 2 * side.reduce((a, b) => a + b, 0);
  return side.map((v) => v / sum) as [number, number, number, number, number, number];
}
