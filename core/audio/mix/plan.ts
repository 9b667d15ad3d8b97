import { HOP_S } from '#core/audio/measure/index.ts';
import type { LimiterSettings } from '#core/audio/process/index.ts';
import type { Stretch } from './talk.ts';

/** A track that is taken down for a while: by hand, or by a ducker. */
export interface Ride extends Stretch {
  readonly track: number;
  /** Below 0. */
  readonly db: number;
}

/** How tracks become a mix. */
export interface MixPlan {
  /** Of every track, dB to what was recorded; null leaves it out. */
  readonly gainsDb: readonly (number | null)[];
  readonly rides: readonly Ride[];
  readonly limit: LimiterSettings | null;
}

/** A ride fades down before its stretch and up after it, over this time, s. */
const DOWN_S = 0.2;
const UP_S = 0.5;

/** What the rides of a track add to its gain at an instant, dB; where two meet, the deeper one. */
export function rideDbAt(rides: readonly Ride[], track: number, atS: number): number {
  let db = 0;
  for (const ride of rides) {
    if (ride.track !== track || atS <= ride.fromS - DOWN_S || atS >= ride.toS + UP_S) continue;
    const part = Math.min(1, (atS - ride.fromS + DOWN_S) / DOWN_S, (ride.toS + UP_S - atS) / UP_S);
    db = Math.min(db, ride.db * part);
  }
  return db;
}

/** The same in the middle of every hop; each ride is only looked at where it acts. */
export function rideCurve(rides: readonly Ride[], track: number, hops: number): Float64Array {
  const out = new Float64Array(hops);
  for (const ride of rides) {
    if (ride.track !== track) continue;
    const first = Math.max(0, Math.floor((ride.fromS - DOWN_S) / HOP_S) - 1);
    const last = Math.min(hops, Math.ceil((ride.toS + UP_S) / HOP_S) + 1);
    for (let h = first; h < last; h++) out[h] = Math.min(out[h]!, rideDbAt([ride], track, (h + 0.5) * HOP_S));
  }
  return out;
}

/** The rides of a track that act within a stretch. */
export const ridesWithin = (rides: readonly Ride[], track: number, { fromS, toS }: Stretch): Ride[] =>
  rides.filter((r) => r.track === track && r.toS + UP_S > fromS && r.fromS - DOWN_S < toS);
