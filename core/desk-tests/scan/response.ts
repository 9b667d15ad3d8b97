import { type FftOf, fftSize } from '#core/audio/samples/index.ts';
import { memoized } from '#core/base/memo/index.ts';
import { HIGH_HZ, LOW_HZ, sweep } from './sweep.ts';

/** What a recording says of all paths into it: one impulse response, each sweep's from the moment that it began. */
export interface Responses {
  /** Impulse response, 1 at the peak of a path that passes all as it is. */
  readonly response: Float32Array;
  /** Its envelope (magnitude of the analytic signal). */
  readonly envelope: Float32Array;
  /** Standard deviation of its noise, by the median of the envelope. */
  readonly noise: number;
  readonly sampleRateHz: number;
  /** Of the sweeps, s. */
  readonly lengthS: number;
}

/** Beside the sweep's own band its spectrum falls within a third of an octave. */
const LOW_EDGE_HZ = LOW_HZ * 2 ** (1 / 2);
const HIGH_EDGE_HZ = HIGH_HZ * 2 ** (-1 / 6);
const EDGE_OCTAVES = 1 / 3;
/** A sweep this far under its own loudest frequency is no longer divided by, in power. */
const FLOOR = 1e-4;
/** Median of a Rayleigh distribution, as a multiple of the deviation of one of its parts. */
const RAYLEIGH_MEDIAN = Math.sqrt(2 * Math.LN2);

/** How much of a frequency is used, 0 to 1. */
export function bandGain(hz: number, sampleRateHz: number): number {
  const high = Math.min(HIGH_EDGE_HZ, 0.45 * sampleRateHz);
  const below = Math.log2(hz / LOW_EDGE_HZ) / EDGE_OCTAVES + 1;
  const above = Math.log2(high / hz) / EDGE_OCTAVES + 1;
  const inside = Math.max(0, Math.min(1, below, above));
  return Math.sin((Math.PI / 2) * inside) ** 2;
}

interface Inverse {
  /** By what a spectrum is multiplied, packed as it is. */
  readonly filter: Float32Array;
  /** Height of the response of a path that passes all. */
  readonly peak: number;
}

/** The inverse of a sweep in its band: made once for each size, rate and length. */
const inversesOf = memoized((fftOf: FftOf) => {
  const known = new Map<string, Inverse>();
  return (size: number, sampleRateHz: number, lengthS: number): Inverse => {
    const key = `${size} ${sampleRateHz} ${lengthS}`;
    const made = known.get(key) ?? inverse(fftOf, size, sampleRateHz, lengthS);
    known.set(key, made);
    return made;
  };
});

function inverse(fftOf: FftOf, size: number, sampleRateHz: number, lengthS: number): Inverse {
  const filter = new Float32Array(size);
  filter.set(sweep(sampleRateHz, 0, lengthS));
  fftOf(size).forward(filter, filter);
  let most = 0;
  for (let k = 2; k < size; k += 2) most = Math.max(most, filter[k]! ** 2 + filter[k + 1]! ** 2);
  let sum = 0;
  // Packed: 0 is DC, 1 is Nyquist; both are outside the band.
  filter[0] = filter[1] = 0;
  for (let k = 2; k < size; k += 2) {
    const gain = bandGain((k * sampleRateHz) / (2 * size), sampleRateHz);
    const by = gain / (filter[k]! ** 2 + filter[k + 1]! ** 2 + FLOOR * most);
    filter[k]! *= by;
    filter[k + 1]! *= -by;
    sum += 2 * gain;
  }
  return { filter, peak: sum / size };
}

/**
 * Deconvolves a recording of sweeps by one sweep.
 * @param samples  one channel
 * @param lengthS  of the sweeps
 * @returns null where it is silent throughout
 */
export function responsesIn(
  fftOf: FftOf,
  samples: Float32Array,
  sampleRateHz: number,
  lengthS: number,
): Responses | null {
  if (samples.every((x) => x === 0)) return null;
  const size = fftSize(samples.length + Math.ceil(lengthS * sampleRateHz));
  const { filter, peak } = inversesOf(fftOf)(size, sampleRateHz, lengthS);
  const fft = fftOf(size);
  const heard = new Float32Array(size);
  heard.set(samples);
  fft.forward(heard, heard);
  heard[0] = heard[1] = 0;
  for (let k = 2; k < size; k += 2) {
    const [a, b, c, d] = [heard[k]!, heard[k + 1]!, filter[k]!, filter[k + 1]!];
    heard[k] = (a * c - b * d) / peak;
    heard[k + 1] = (a * d + b * c) / peak;
  }
  const response = new Float32Array(size);
  fft.inverse(heard, response);
  // A quarter turn back: the Hilbert transform.
  for (let k = 2; k < size; k += 2) [heard[k], heard[k + 1]] = [heard[k + 1]!, -heard[k]!];
  fft.inverse(heard, heard);
  const envelope = new Float32Array(samples.length);
  for (let i = 0; i < envelope.length; i++) envelope[i] = Math.hypot(response[i]!, heard[i]!);
  return {
    response: response.subarray(0, samples.length),
    envelope,
    noise: medianOf(envelope) / RAYLEIGH_MEDIAN,
    sampleRateHz,
    lengthS,
  };
}

/** Of every so many values: the noise is the same everywhere. */
const EVERY = 7;

function medianOf(values: Float32Array): number {
  const some = new Float32Array(Math.ceil(values.length / EVERY));
  for (let i = 0; i < some.length; i++) some[i] = values[i * EVERY]!;
  some.sort();
  return some[some.length >> 1] ?? 0;
}
