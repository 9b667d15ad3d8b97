/** The distribution of maxima by chance in a take: how high tunes that no one plays score (Gumbel). */
export interface Chance {
  readonly middle: number;
  readonly spread: number;
}

const EULER = 0.5772156649;

/** Its scale in plain noise: a fit to few maxima may be narrower, and would claim too much. */
const MIN_SPREAD = 0.85;

/**
 * Fitted by L-moments (Hosking 1990).
 * @param times  ratio of the whole to what the maxima are from: its own are higher by ln of that
 */
export function chanceOf(maxima: readonly number[], times: number): Chance {
  const sorted = [...maxima].sort((a, b) => a - b);
  const n = sorted.length;
  const mean = sorted.reduce((s, v) => s + v, 0) / n;
  const weighted = sorted.reduce((s, v, i) => s + (i / (n - 1)) * v, 0) / n;
  const spread = Math.max(MIN_SPREAD, (2 * weighted - mean) / Math.LN2);
  return { middle: mean - EULER * spread + Math.log(times) * spread, spread };
}

/** Where a tune is searched for in two ways, either may score high by chance: correction to the better of them. */
export const TWO_LOOKS = Math.LN2;

/** How many spreads above chance's middle; 3 is chance often enough, 8 once in three thousand. */
export const standsOut = (z: number, { middle, spread }: Chance): number => (z - middle) / spread;

/** From here on a tune is there, from here on perhaps. */
export const FOUND_FROM = 8;
export const PERHAPS_FROM = 4;
const SUREST = 0.999;

/** Probability that it isn't chance, for this many tunes searched for. */
export const confidenceOf = (g: number, tunes: number): number =>
  Math.min(SUREST, Math.max(0, 1 - tunes * -Math.expm1(-Math.exp(-g))));
