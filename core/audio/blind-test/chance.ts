/**
 * How likely it is that someone who guesses is right in `correct` rounds of `rounds` or more: the upper tail of the
 * binomial distribution, exact.
 * @param right  how likely a round is right: a half where one guesses
 */
export function chanceOf(correct: number, rounds: number, right = 0.5): number {
  let sum = 0;
  // Each term from the one before it, from the top down: nothing is lost to large factorials.
  let term = right ** rounds;
  for (let k = rounds; k >= correct; k--) {
    sum += term;
    term *= (k / (rounds - k + 1)) * ((1 - right) / right);
  }
  return Math.min(1, sum);
}

/** The least number right of `rounds` that guessing reaches in one of twenty trials at most; null where even all are too few. */
export function neededOf(rounds: number, guessing = 0.05): number | null {
  for (let k = 0; k <= rounds; k++) if (chanceOf(k, rounds) <= guessing) return k;
  return null;
}

/** How likely someone who hears the difference in a part of the rounds, and guesses in the others, gets there. */
export function powerOf(rounds: number, hears: number, guessing = 0.05): number {
  const needed = neededOf(rounds, guessing);
  return needed === null ? 0 : chanceOf(needed, rounds, hears + (1 - hears) / 2);
}

const MAX_ROUNDS = 400;

/** The fewest rounds in which such a listener is found four times of five. Null where they would be too many. */
export function roundsFor(hears: number, found = 0.8, guessing = 0.05): number | null {
  for (let rounds = 1; rounds <= MAX_ROUNDS; rounds++) if (powerOf(rounds, hears, guessing) >= found) return rounds;
  return null;
}
