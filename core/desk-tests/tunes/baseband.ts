import {
  decimate,
  decimateReach,
  type FftOf,
  type Recording,
  resample,
  resampleReach,
} from '#core/audio/samples/index.ts';
import { type Glide, swell, TUNE_S, tuneOf } from './tune.ts';

/**
 * Sound from 0 to 4 kHz as complex values around 2 kHz, real and imaginary parts in turn: half the work of real ones, and
 * how far the carrier has turned can be read off.
 */
export type Baseband = Float32Array;

export const BASE_HZ = 4000;
const REAL_HZ = 2 * BASE_HZ;
/** Odd taps to each side of the half-band filter that makes the imaginary part. */
const HILBERT_TAPS = 24;
const PIECE_S = 10;
const HALVED_FROM_HZ = 32_000;

/** A take, channels averaged, as baseband; streamed. */
export async function readBaseband(
  sound: Recording,
  onDone: (share: number) => void = () => undefined,
): Promise<Baseband> {
  // High rates are halved first by a short filter: the long one that follows is then half as long.
  const factor = sound.sampleRateHz >= HALVED_FROM_HZ ? 2 : 1;
  const step = sound.sampleRateHz / factor / REAL_HZ;
  const count = 2 * Math.floor(sound.frames / factor / step / 2);
  const real = new Float32Array(count);
  const reach = resampleReach(step) + decimateReach(1);
  const pieceFrames = PIECE_S * REAL_HZ;
  for (let from = 0; from < count; from += pieceFrames) {
    const frames = Math.min(pieceFrames, count - from);
    const start = Math.max(0, Math.floor(from * step) - reach);
    const x = await sound.readMono(factor * start, factor * (Math.ceil(frames * step) + 2 * reach + 2));
    real.set(resample(factor === 1 ? x : decimate(x, factor), from * step - start, step, frames), from);
    onDone((from + frames) / count);
  }
  return analytic(real);
}

const HILBERT = Float32Array.from({ length: HILBERT_TAPS }, (_, k) => {
  const i = 2 * k + 1;
  return ((2 / (Math.PI * i)) * (1 + Math.cos((Math.PI * i) / (2 * HILBERT_TAPS + 1)))) / 2;
});

/** Real samples at 8 kHz as complex ones at 4 kHz: the sound turned down by a quarter of its rate, half of it kept. */
function analytic(real: Float32Array): Baseband {
  const out = new Float32Array(real.length);
  for (let n = 0; n < real.length / 2; n++) {
    const at = 2 * n;
    let imaginary = 0;
    for (let k = 0; k < HILBERT_TAPS; k++) {
      const i = 2 * k + 1;
      imaginary += HILBERT[k]! * ((real[at - i] ?? 0) - (real[at + i] ?? 0));
    }
    // Times (-j)^(2n).
    const sign = n % 2 === 0 ? 1 : -1;
    out[2 * n] = sign * real[at]!;
    out[2 * n + 1] = sign * imaginary;
  }
  return out;
}

/** What reaches the baseband: all down to here, half at the middle of the slope, nothing at its end (see `resample`). */
const SLOPE_HZ = [3040, 4320] as const;
/** Glides lower than this are left out: the way to imaginary parts blurs them, and hardly a headset plays them. */
const LOWEST_HZ = 300;

const passes = (hz: number): number => {
  const along = (hz - SLOPE_HZ[0]) / (SLOPE_HZ[1] - SLOPE_HZ[0]);
  return along <= 0 ? 1 : along >= 1 ? 0 : Math.cos((Math.PI / 2) * along) ** 2;
};

/**
 * A tune without its silences as baseband, made straight from its notes: what `readBaseband` would make of it where its
 * beginning stands `lateSamples` behind an even sample.
 * @param ppm  as seen by a clock that runs this much faster than the player's
 */
export function tuneBaseband(id: number, ppm = 0, lateSamples = 0): Baseband {
  const rate = BASE_HZ * (1 + ppm * 1e-6);
  const out = new Float32Array(2 * (Math.ceil(TUNE_S * rate) + 1));
  for (const glide of tuneOf(id)) {
    if (Math.min(glide.fromHz, glide.toHz) < LOWEST_HZ) continue;
    addAnalytic(out, glide, rate, lateSamples);
  }
  return out;
}

function addAnalytic(out: Baseband, glide: Glide, rate: number, lateSamples: number): void {
  const at = glide.atS * rate + lateSamples;
  const octaves = Math.log(glide.toHz / glide.fromHz);
  const perSample = 1 / (glide.lengthS * rate);
  const last = Math.min(out.length / 2 - 1, Math.floor(at + glide.lengthS * rate));
  for (let n = Math.max(0, Math.ceil(at)); n <= last; n++) {
    const share = (n - at) * perSample;
    const grown = Math.exp(octaves * share);
    const gain = glide.gain * swell(share) * passes(glide.fromHz * grown);
    if (gain === 0) continue;
    const phase = ((2 * Math.PI * glide.fromHz * glide.lengthS) / octaves) * (grown - 1);
    const turned = n % 2 === 0 ? gain : -gain;
    out[2 * n]! += turned * Math.sin(phase);
    out[2 * n + 1]! -= turned * Math.cos(phase);
  }
}

const FRAME = 256;
const HOP = 128;
/** Spread over this many bins and frames, to each side: 7 by 5. */
const BINS_ROUND = 3;
const FRAMES_ROUND = 2;
const FLOOR_SHARE = 1e-3;
const SAMPLED = 61;
const WINDOW = Float32Array.from({ length: FRAME }, (_, i) => Math.sin((Math.PI * (i + 0.5)) / FRAME));

/** By how much each part of a sound, in time and pitch, is turned down so that all are equally strong. */
export interface Evening {
  readonly frames: number;
  /** `frames` rows of 256. */
  readonly gains: Float32Array;
}

const framesOf = (samples: number): number => Math.ceil(samples / HOP) + 1;

/** Spectra of a sound, frame by frame, half a frame apart, the first half a frame before its begin. */
function spectraOf(fftOf: FftOf, x: Baseband): Float32Array {
  const fft = fftOf.complex(FRAME);
  const samples = x.length / 2;
  const frames = framesOf(samples);
  const spectra = new Float32Array(2 * FRAME * frames);
  const part = new Float32Array(2 * FRAME);
  for (let f = 0; f < frames; f++) {
    const start = (f - 1) * HOP;
    for (let i = 0; i < FRAME; i++) {
      const at = start + i;
      const inside = at >= 0 && at < samples;
      part[2 * i] = inside ? WINDOW[i]! * x[2 * at]! : 0;
      part[2 * i + 1] = inside ? WINDOW[i]! * x[2 * at + 1]! : 0;
    }
    fft.forward(part, spectra.subarray(2 * FRAME * f, 2 * FRAME * (f + 1)));
  }
  return spectra;
}

/**
 * How to even a sound out: what is loud at an instant and a pitch gets no more say than what is quiet. It beats a loud
 * talker near a microphone, and leaves quiet tunes beside loud ones.
 */
export function eveningOf(fftOf: FftOf, x: Baseband): Evening {
  const spectra = spectraOf(fftOf, x);
  const frames = spectra.length / (2 * FRAME);
  const power = new Float32Array(frames * FRAME);
  for (let i = 0; i < power.length; i++) power[i] = spectra[2 * i]! ** 2 + spectra[2 * i + 1]! ** 2;
  const smooth = smoothed(power, frames);
  const floor = FLOOR_SHARE * medianOf(smooth, SAMPLED);
  const gains = smooth;
  for (let i = 0; i < gains.length; i++) gains[i] = gains[i]! > 0 ? 1 / Math.sqrt(gains[i]! + floor) : 0;
  return { frames, gains };
}

/** Means over 7 bins, round the corner, and 5 frames. */
function smoothed(power: Float32Array, frames: number): Float32Array {
  const across = new Float32Array(power.length);
  const wide = 2 * BINS_ROUND + 1;
  for (let f = 0; f < frames; f++) {
    const row = f * FRAME;
    let sum = 0;
    for (let k = -BINS_ROUND; k <= BINS_ROUND; k++) sum += power[row + ((k + FRAME) % FRAME)]!;
    for (let k = 0; k < FRAME; k++) {
      across[row + k] = sum / wide;
      sum += power[row + ((k + BINS_ROUND + 1) % FRAME)]! - power[row + ((k - BINS_ROUND + FRAME) % FRAME)]!;
    }
  }
  const out = new Float32Array(power.length);
  for (let f = 0; f < frames; f++) {
    const [from, to] = [Math.max(0, f - FRAMES_ROUND), Math.min(frames - 1, f + FRAMES_ROUND)];
    for (let g = from; g <= to; g++)
      for (let k = 0; k < FRAME; k++) out[f * FRAME + k]! += Math.max(0, across[g * FRAME + k]!);
    for (let k = 0; k < FRAME; k++) out[f * FRAME + k]! /= to - from + 1;
  }
  return out;
}

/** Median of the nonzero values, sampling every nth. */
export function medianOf(values: Float32Array, every: number): number {
  const some = new Float32Array(Math.ceil(values.length / every));
  let count = 0;
  for (let i = 0; i < values.length; i += every) if (values[i]! > 0) some[count++] = values[i]!;
  return some.subarray(0, count).sort()[count >> 1] ?? 0;
}

/**
 * A sound with an evening applied: its own, or that of the take which it is held against.
 * @param firstFrame  which frame of the evening the sound's first one is
 */
export function evened(fftOf: FftOf, x: Baseband, { gains, frames }: Evening, firstFrame = 0): Baseband {
  const fft = fftOf.complex(FRAME);
  const spectra = spectraOf(fftOf, x);
  const samples = x.length / 2;
  const out = new Float32Array(x.length);
  const part = new Float32Array(2 * FRAME);
  for (let f = 0; f < spectra.length / (2 * FRAME); f++) {
    const row = f + firstFrame;
    if (row < 0 || row >= frames) continue;
    const spectrum = spectra.subarray(2 * FRAME * f, 2 * FRAME * (f + 1));
    for (let k = 0; k < FRAME; k++) {
      const g = gains[row * FRAME + k]!;
      spectrum[2 * k]! *= g;
      spectrum[2 * k + 1]! *= g;
    }
    fft.inverse(spectrum, part);
    const start = (f - 1) * HOP;
    for (let i = Math.max(0, -start); i < FRAME && start + i < samples; i++) {
      const at = start + i;
      out[2 * at]! += WINDOW[i]! * part[2 * i]!;
      out[2 * at + 1]! += WINDOW[i]! * part[2 * i + 1]!;
    }
  }
  return out;
}
/** Samples that one frame of an evening goes on by. */
export const EVENING_HOP = HOP;
