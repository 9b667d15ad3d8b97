import { type BlindResult, powerOf } from '#core/blind/index.ts';
import { formatNumber } from '#web/parts/index.ts';

/** What a number of rounds can show, in words. */
export function sayRounds(rounds: number, needed: number | null): string {
  if (needed === null)
    return `${rounds} rounds show nothing: guessing gets all of them right too often. Take 5 at least.`;
  const [often, seldom] = [powerOf(rounds, 0.7), powerOf(rounds, 0.4)].map((p) => formatNumber(100 * p));
  return `${needed} of ${rounds} have to be right: guessing gets there once in twenty at most. Who hears it seven times of ten is found in ${often} % of trials, four times of ten in ${seldom} %.`;
}

/** What came of a trial, in words. */
export function sayResult({ rounds, correct, chance, needed }: BlindResult): string {
  if (chance === null) return '';
  const percent = 100 * chance;
  const guess = percent < 0.1 ? 'less than once in a thousand' : `${formatNumber(percent, percent < 10 ? 1 : 0)} %`;
  const heard = needed !== null && correct >= needed;
  return `${correct} of ${rounds} right. Who guesses does as well in ${guess} of trials. ${
    heard ? 'The difference was heard.' : 'That does not show that a difference was heard; nor that there is none.'
  }`;
}
