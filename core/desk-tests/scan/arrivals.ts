import { type FftOf, fftSize } from '#core/audio/samples/index.ts';
import { bandGain, type Responses } from './response.ts';
import { EARLIEST_S, harmonicLeadS, harmonicOrder, LATEST_S } from './sweep.ts';

/** A sweep as it arrived at one channel of an input. */
export interface Arrival {
  /** After the sweep began, s. */
  readonly atS: number;
  /** Level of the path, 315 Hz to 3.15 kHz, dB. */
  readonly levelDb: number;
  readonly polarity: 1 | -1 | null;
  /** Where it passes at least a tenth of that power. */
  readonly lowHz: number;
  readonly highHz: number;
  /** How far its peak is over the noise, dB. */
  readonly overNoiseDb: number;
  /** The same again, later or earlier, by another path. */
  readonly again: readonly Again[];
  /** The highest of each ms from `EARLIEST_S` on, dB under the peak. */
  readonly responseDb: readonly number[];
}

export interface Again {
  readonly afterMs: number;
  readonly underDb: number;
}

/** Peaks count from here, in deviations of the noise: one in some 10^14 values by chance. */
const MIN_PEAK = 8;
/** Under the loudest peak of a channel, dB: what is quieter may be of its edges. */
const MAX_UNDER_DB = 46;
/** A second path is told from a room's tail by standing out of what is round it. */
const AGAIN_APART_S = 0.008;
const AGAIN_UNDER_DB = 24;
const AGAIN_OUT_DB = 9;
const AROUND_S = 0.02;
const MAX_AGAIN = 4;
/** A distortion product lies where its order says, this nearly, and so far under what it is of, dB. */
const MAX_ORDER = 9;
const HARMONIC_WITHIN_S = 0.004;
const HARMONIC_UNDER_DB = 6;
/** Around its peak, the part of a response that its level and band are of, s. */
const BEFORE_S = 0.004;
const AFTER_S = 0.016;

const db = (ratio: number): number => 20 * Math.log10(Math.max(ratio, 1e-9));

/** Whether a distortion product of some order would arrive so much before what it is of. */
function isHarmonicLead(leadS: number, lengthS: number): boolean {
  const order = Math.round(harmonicOrder(leadS, lengthS));
  return order >= 2 && order <= MAX_ORDER && Math.abs(leadS - harmonicLeadS(order, lengthS)) < HARMONIC_WITHIN_S;
}

/** Peaks of a channel, with harmonics of louder ones left out; samples, loudest first. */
export function peaksOf({ envelope, noise, sampleRateHz, lengthS }: Responses): number[] {
  const apart = Math.round(AGAIN_APART_S * sampleRateHz);
  let loudest = 0;
  for (const value of envelope) if (value > loudest) loudest = value;
  const least = Math.max(MIN_PEAK * noise, loudest * 10 ** (-MAX_UNDER_DB / 20));
  const tops: number[] = [];
  for (let i = 1; i < envelope.length - 1; i++)
    if (envelope[i]! >= least && envelope[i]! >= envelope[i - 1]! && envelope[i]! > envelope[i + 1]!) tops.push(i);
  tops.sort((a, b) => envelope[b]! - envelope[a]!);
  const kept: number[] = [];
  for (const at of tops) {
    if (kept.some((other) => Math.abs(other - at) < apart)) continue;
    const isOf = (other: number) =>
      db(envelope[other]! / envelope[at]!) > HARMONIC_UNDER_DB && isHarmonicLead((other - at) / sampleRateHz, lengthS);
    if (!kept.some(isOf)) kept.push(at);
  }
  return kept;
}

/**
 * What arrived of one sweep.
 * @param peaks  of the whole channel, see `peaksOf`
 * @param beganS  when the sweep began, from the first sample on
 * @returns null where nothing stands out in its slot
 */
export function arrivalIn(fftOf: FftOf, of: Responses, peaks: readonly number[], beganS: number): Arrival | null {
  const { envelope, noise, sampleRateHz } = of;
  const secondsOf = (at: number) => at / sampleRateHz - beganS;
  const mine = peaks.filter((at) => secondsOf(at) >= EARLIEST_S && secondsOf(at) < LATEST_S);
  const [main, ...others] = mine;
  if (main === undefined) return null;
  const peak = envelope[main]!;
  const around = Math.round(AROUND_S * sampleRateHz);
  const again = others
    .filter((at) => {
      const underDb = db(peak / envelope[at]!);
      return underDb < AGAIN_UNDER_DB && db(envelope[at]! / meanAround(envelope, at, around)) > AGAIN_OUT_DB;
    })
    .slice(0, MAX_AGAIN)
    .map((at): Again => ({ afterMs: (1000 * (at - main)) / sampleRateHz, underDb: db(peak / envelope[at]!) }));
  return {
    atS: secondsOf(main + topOffset(envelope, main)),
    overNoiseDb: db(peak / Math.max(noise, 1e-9)),
    polarity: polarityAt(of.response, main, sampleRateHz),
    ...bandsAt(fftOf, of, main),
    again,
    responseDb: shape(envelope, beganS + EARLIEST_S, sampleRateHz, peak),
  };
}

/** Shapes are drawn down to here, dB. */
const LOWEST_DB = -60;

function shape(envelope: Float32Array, fromS: number, sampleRateHz: number, peak: number): number[] {
  return Array.from({ length: Math.round(1000 * (LATEST_S - EARLIEST_S)) }, (_, ms) => {
    const from = Math.round((fromS + ms / 1000) * sampleRateHz);
    const until = Math.round((fromS + (ms + 1) / 1000) * sampleRateHz);
    let most = 0;
    for (let i = Math.max(0, from); i < Math.min(until, envelope.length); i++) most = Math.max(most, envelope[i]!);
    return Math.max(LOWEST_DB, db(most / peak));
  });
}

/** Vertex of the parabola through a top and its neighbors, samples from it. */
function topOffset(x: Float32Array, at: number): number {
  const [a, b, c] = [x[at - 1] ?? 0, x[at]!, x[at + 1] ?? 0];
  const bend = a - 2 * b + c;
  return bend === 0 ? 0 : (a - c) / (2 * bend);
}

/** Rms around a top, without the top itself. */
function meanAround(x: Float32Array, at: number, around: number): number {
  const gap = Math.round(around / 5);
  let sum = 0;
  let count = 0;
  for (let i = Math.max(0, at - around); i < Math.min(x.length, at + around); i++)
    if (Math.abs(i - at) > gap) {
      sum += x[i]! ** 2;
      count++;
    }
  return Math.sqrt(sum / Math.max(1, count));
}

/** A response is upright or upside down where one of its sides is clearly the higher. */
const CLEARLY = 1.35;
/** Polarity is told by what is below some 2 kHz, s: clocks that are apart smear what is above. */
const SMOOTH_S = 0.0003;
const POLARITY_WITHIN_S = 0.002;

function polarityAt(x: Float32Array, at: number, sampleRateHz: number): 1 | -1 | null {
  const width = Math.round(SMOOTH_S * sampleRateHz);
  const around = Math.round(POLARITY_WITHIN_S * sampleRateHz);
  let up = 0;
  let down = 0;
  let sum = 0;
  for (let i = Math.max(0, at - around); i <= Math.min(x.length - 1, at + around); i++) {
    sum += x[i]! - (x[i - width] ?? 0);
    up = Math.max(up, sum);
    down = Math.max(down, -sum);
  }
  if (up > CLEARLY * down) return 1;
  return down > CLEARLY * up ? -1 : null;
}

/** Third octaves of IEC 61260 from 80 Hz to 12.5 kHz, and those that a level is of. */
const CENTERS_HZ = Array.from({ length: 23 }, (_, n) => 1000 * 2 ** ((n - 11) / 3));
const LEVEL_LOW_HZ = 300;
const LEVEL_HIGH_HZ = 3300;
/** A band passes while it is not this far under the level, dB. */
const PASSES_DB = 10;

function bandsAt(
  fftOf: FftOf,
  { response, sampleRateHz }: Responses,
  at: number,
): Pick<Arrival, 'levelDb' | 'lowHz' | 'highHz'> {
  const from = Math.max(0, at - Math.round(BEFORE_S * sampleRateHz));
  const until = Math.min(response.length, at + Math.round(AFTER_S * sampleRateHz));
  const size = fftSize(2 * (until - from));
  const spectrum = new Float32Array(size);
  spectrum.set(response.subarray(from, until));
  fftOf(size).forward(spectrum, spectrum);
  // A path that passes all has its peak at 1, and so in each frequency the share of one sample of the whole band.
  let whole = 0;
  for (let k = 2; k < size; k += 2) whole += 2 * bandGain((k * sampleRateHz) / (2 * size), sampleRateHz);
  const unity = size / whole;
  const bands = CENTERS_HZ.flatMap((hz) => {
    let power = 0;
    let weight = 0;
    for (let k = 2; k < size; k += 2) {
      const f = (k * sampleRateHz) / (2 * size);
      if (f < hz * 2 ** (-1 / 6) || f >= hz * 2 ** (1 / 6)) continue;
      power += spectrum[k]! ** 2 + spectrum[k + 1]! ** 2;
      weight += (unity * bandGain(f, sampleRateHz)) ** 2;
    }
    return weight > 0 ? [{ hz, db: 10 * Math.log10(Math.max(power / weight, 1e-12)) }] : [];
  });
  const level = bands.filter((b) => b.hz > LEVEL_LOW_HZ && b.hz < LEVEL_HIGH_HZ);
  const levelDb = 10 * Math.log10(level.reduce((sum, b) => sum + 10 ** (b.db / 10), 0) / level.length);
  const passing = bands.filter((b) => b.db > levelDb - PASSES_DB);
  return { levelDb, lowHz: passing[0]?.hz ?? LEVEL_LOW_HZ, highHz: passing.at(-1)?.hz ?? LEVEL_HIGH_HZ };
}
