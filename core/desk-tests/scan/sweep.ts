import { ratioFromDb } from '#core/model/units/index.ts';

/** Exponential sine sweep (A. Farina, 2000): what a harmonic makes of it arrives before the sweep itself, apart from all links. */
export const SWEEP_S = 0.9;
export const LOW_HZ = 60;
export const HIGH_HZ = 16_000;
const RATE_OF_RISE_S = SWEEP_S / Math.log(HIGH_HZ / LOW_HZ);
const FADE_IN_S = 0.03;
const FADE_OUT_S = 0.004;

/** One sweep begins so long after the one before: later arrivals would be taken for the next one's. */
export const SLOT_S = 1;
/** Arrivals that are read, from before the sweep was due (stamps err) up to the end of its slot, s. */
export const EARLIEST_S = -0.06;
export const LATEST_S = SLOT_S + EARLIEST_S;

/** How much earlier than a sweep its harmonic of this order arrives, s. */
export const harmonicLeadS = (order: number): number => RATE_OF_RISE_S * Math.log(order);

/** The order that leads by so much, as a number that need not be whole. */
export const harmonicOrder = (leadS: number): number => Math.exp(leadS / RATE_OF_RISE_S);

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
 * @returns one sweep, `SWEEP_S` long
 */
export function sweep(sampleRateHz: number, levelDbfs = 0): Float32Array<ArrayBuffer> {
  const gain = ratioFromDb(levelDbfs);
  const length = Math.round(SWEEP_S * sampleRateHz);
  const out = new Float32Array(length);
  for (let i = 0; i < length; i++) {
    const t = i / sampleRateHz;
    const fade = Math.min(1, t / FADE_IN_S, (SWEEP_S - t) / FADE_OUT_S);
    const phase = 2 * Math.PI * LOW_HZ * RATE_OF_RISE_S * (Math.exp(t / RATE_OF_RISE_S) - 1);
    out[i] = gain * Math.sin(phase) * Math.sin((Math.PI / 2) * fade) ** 2;
  }
  return out;
}
