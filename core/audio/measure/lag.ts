import type { FftOf, Recording } from '#core/audio/samples/index.ts';
import { type Band, bestLag } from './correlate.ts';
import { readWindow, rms } from './windows.ts';

/** Fine readings use the whole of what both can carry, up to where speakers and codecs agree. */
const FINE_BAND: Band = { lowHz: 120, highHz: 12_000 };
const FINEST_RATE_HZ = 48_000;
/** Range correlated around the expected lag, to estimate chance. */
const ROOM_S = 0.06;
/** Minimum prominence of a reading. */
export const MIN_Z = 5;

/** The rate that two recordings are held against each other at. */
export const fineRateHz = (ref: Recording, other: Recording): number =>
  Math.min(FINEST_RATE_HZ, ref.sampleRateHz, other.sampleRateHz);

/** What is held against what, at which rate, in windows of which length. */
export interface LagWindow {
  readonly ref: Recording;
  readonly other: Recording;
  readonly rate: number;
  readonly lengthS: number;
}

/** How much later the same sound is in `other`, read at one time of `ref`, and its prominence over chance. */
export interface LagReading {
  readonly atS: number;
  readonly lagS: number;
  readonly z: number;
  readonly polarity: 1 | -1;
  /** How loud each of the two is there, root mean square. */
  readonly levels: readonly [ref: number, other: number];
}

/** One reading: where the window of `ref` at `atS` is found in `other`, near a guess. The lag is that of its middle. */
export async function readLag(
  fftOf: FftOf,
  { ref, other, rate, lengthS }: LagWindow,
  atS: number,
  guessS: number,
  marginS: number,
  slope: number,
): Promise<LagReading | null> {
  // Windows start on a sample of the first recording, so that it is read as it is.
  const startS = Math.round(atS * ref.sampleRateHz) / ref.sampleRateHz;
  const count = Math.floor(lengthS * rate);
  const margin = Math.ceil(marginS * rate);
  const room = margin + Math.ceil(ROOM_S * rate);
  // A drift that moves less than a fifth of a sample within the window blurs nothing.
  const stretch = Math.abs(slope) * count < 0.2 ? 1 : 1 + slope;
  const otherStartS = startS + guessS - (room / rate) * stretch;
  const at = Math.round(otherStartS * other.sampleRateHz) / other.sampleRateHz;
  const a = await readWindow(ref, startS, count, rate);
  const b = await readWindow(other, at, count + 2 * room, rate, stretch);
  const expected = Math.round((startS + guessS - at) * rate);
  const peak = bestLag(fftOf, {
    ref: a,
    other: b,
    sampleRateHz: rate,
    band: FINE_BAND,
    lowestLag: expected - margin,
    highestLag: expected + margin,
  });
  if (!peak) return null;
  // Sample 0 of the window is at this time of the other recording; read at the window's start.
  const lagS = at + (peak.lag / rate) * stretch - startS;
  const levels = [rms(a), rms(b.subarray(Math.round(peak.lag), Math.round(peak.lag) + count))] as const;
  return { atS: startS, lagS, z: peak.z, polarity: peak.polarity, levels };
}
