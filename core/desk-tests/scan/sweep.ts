import { ratioFromDb } from '#core/model/units/index.ts';

/**
 * Exponential sine sweep (A. Farina, 2000): what distortion makes of it arrives before the sweep itself. Each round has one
 * of another length: paths stay where they are then, and products of distortion do not.
 */
const LENGTHS_S = [0.9, 0.8, 0.7, 0.6] as const;
export const LOW_HZ = 60;
export const HIGH_HZ = 16_000;
const FADE_IN_S = 0.03;
const FADE_OUT_S = 0.004;

/** How long the sweeps of a round are, s. */
export const lengthOfRound = (round: number): number => LENGTHS_S[round % LENGTHS_S.length]!;

const riseOf = (lengthS: number): number => lengthS / Math.log(HIGH_HZ / LOW_HZ);

/** One sweep begins so long after the one before: later arrivals would be taken for the next one's. */
export const SLOT_S = 1;
/** Arrivals that are read, from before the sweep was due (stamps err) up to the end of its slot, s. */
export const EARLIEST_S = -0.06;
export const LATEST_S = SLOT_S + EARLIEST_S;

/** How much earlier than a sweep its harmonic of this order arrives, s. */
export const harmonicLeadS = (order: number, lengthS: number): number => riseOf(lengthS) * Math.log(order);

/** The order that leads by so much, as a number that need not be whole. */
export const harmonicOrder = (leadS: number, lengthS: number): number => Math.exp(leadS / riseOf(lengthS));

/** The first round can't be heard; each round comes up until all inputs could be read, dBFS peak. */
export const FIRST_DBFS = -66;
const STEP_DB = 12;
export const LIMITS_DBFS = [-48, -42, -36, -30, -24] as const;
export const USUAL_LIMIT_DBFS = -36;

/** @returns the level of a round, dBFS peak; never over the limit */
export const roundLevelDbfs = (round: number, limitDbfs: number): number =>
  Math.min(FIRST_DBFS + STEP_DB * round, limitDbfs);

/**
 * @param levelDbfs  of its peaks
 * @returns one sweep, `lengthS` long
 */
export function sweep(sampleRateHz: number, levelDbfs: number, lengthS: number): Float32Array<ArrayBuffer> {
  const gain = ratioFromDb(levelDbfs);
  const rise = riseOf(lengthS);
  const out = new Float32Array(Math.round(lengthS * sampleRateHz));
  for (let i = 0; i < out.length; i++) {
    const t = i / sampleRateHz;
    const fade = Math.min(1, t / FADE_IN_S, (lengthS - t) / FADE_OUT_S);
    const phase = 2 * Math.PI * LOW_HZ * rise * (Math.exp(t / rise) - 1);
    out[i] = gain * Math.sin(phase) * Math.sin((Math.PI / 2) * fade) ** 2;
  }
  return out;
}
