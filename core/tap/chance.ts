/** What chance makes of a take: how high tunes that no one plays come in it (Gumbel, the spread of maxima). */
export interface Chance {
  readonly middle: number;
  readonly spread: number;
}

const EULER = 0.5772156649;

/** What it is in plain noise: a fit of few maxima may come out narrower, and would claim too much. */
const MIN_SPREAD = 0.85;

/**
 * Fitted by L-moments (Hosking 1990).
 * @param times  the whole is so many times as long as what the maxima are of: its own come higher by ln of that
 */
export function chanceOf(maxima: readonly number[], times: number): Chance {
  const sorted = [...maxima].sort((a, b) => a - b);
  const n = sorted.length;
  const mean = sorted.reduce((s, v) => s + v, 0) / n;
  const weighted = sorted.reduce((s, v, i) => s + (i / (n - 1)) * v, 0) / n;
  const spread = Math.max(MIN_SPREAD, (2 * weighted - mean) / Math.LN2);
  return { middle: mean - EULER * spread + Math.log(times) * spread, spread };
}

/** Where a tune is looked for in two ways, either may come out high by chance: so much less does the better of them say. */
export const TWO_LOOKS = Math.LN2;

/** How many spreads above chance's middle; 3 is chance often enough, 8 once in three thousand. */
export const standsOut = (z: number, { middle, spread }: Chance): number => (z - middle) / spread;

/** From here on a tune is there, from here on perhaps. */
export const FOUND_FROM = 8;
export const PERHAPS_FROM = 4;
const SUREST = 0.999;

/** How likely it is that it is not chance, of so many tunes that were looked for. */
export const confidenceOf = (g: number, tunes: number): number =>
  Math.min(SUREST, Math.max(0, 1 - tunes * -Math.expm1(-Math.exp(-g))));
