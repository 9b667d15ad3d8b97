import { bestLag, readWindow } from '#core/audio/measure/index.ts';
import type { FftOf, Recording } from '#core/audio/samples/index.ts';
import { CHIRP_HIGH_HZ, CHIRP_LOW_HZ, chirp } from './sound.ts';

/** A chirp that was sent out: when, by the clock that what is heard is counted on too, and which. */
export interface SentChirp {
  readonly atS: number;
  readonly kind: 0 | 1;
}

/** One repeat: how long it took there and back, ms; null where it was not heard. */
export interface Trip {
  readonly sentAtS: number;
  readonly ms: number | null;
}

export interface RoundTrip {
  readonly meanMs: number;
  /** One standard deviation of one repeat. */
  readonly sdMs: number;
  readonly leastMs: number;
  readonly mostMs: number;
  readonly count: number;
  /** Repeats that stand apart from the others and are left out. */
  readonly odd: number;
}

const BAND = { lowHz: CHIRP_LOW_HZ * 0.85, highHz: CHIRP_HIGH_HZ * 1.1 };
/** Chirps of one kind come no nearer to each other than this: nothing later is looked for. */
export const LONGEST_TRIP_S = 1.2;
/** Minimum prominence of a chirp. */
const MIN_Z = 12;
/** Repeats this far from the middle one are odd, at least. */
const ODD_MS = 1;

/** The chirps of a round trip are those of the slate. */
export const tripChirp = chirp;

/** When a sent chirp returns, in a recording that begins at `startS` of the same clock. */
export async function readTrip(fftOf: FftOf, heard: Recording, startS: number, sent: SentChirp): Promise<Trip> {
  const rate = heard.sampleRateHz;
  const ref = chirp(sent.kind, rate);
  const from = Math.round((sent.atS - startS) * rate) / rate;
  const lags = Math.floor(LONGEST_TRIP_S * rate);
  const other = await readWindow(heard, from, lags + ref.length, rate);
  const peak = bestLag(fftOf, { ref, other, sampleRateHz: rate, band: BAND, lowestLag: 0, highestLag: lags });
  if (!peak || peak.z < MIN_Z) return { sentAtS: sent.atS, ms: null };
  return { sentAtS: sent.atS, ms: 1000 * (startS + from + peak.lag / rate - sent.atS) };
}

/** All repeats together; null where none was heard. */
export function summariseTrips(trips: readonly Trip[]): RoundTrip | null {
  const heard = trips.flatMap((t) => (t.ms === null ? [] : [t.ms])).sort((a, b) => a - b);
  if (heard.length === 0) return null;
  const middle = heard[heard.length >> 1]!;
  const usual = heard.map((ms) => Math.abs(ms - middle)).sort((a, b) => a - b)[heard.length >> 1]!;
  const used = heard.filter((ms) => Math.abs(ms - middle) <= Math.max(ODD_MS, 6 * usual));
  const meanMs = used.reduce((a, b) => a + b, 0) / used.length;
  const squares = used.reduce((sum, ms) => sum + (ms - meanMs) ** 2, 0);
  return {
    meanMs,
    sdMs: used.length > 1 ? Math.sqrt(squares / (used.length - 1)) : 0,
    leastMs: used[0]!,
    mostMs: used.at(-1)!,
    count: used.length,
    odd: heard.length - used.length,
  };
}

/** They are sent so often, the two kinds in turn. */
export const TRIP_EVERY_S = 0.65;
