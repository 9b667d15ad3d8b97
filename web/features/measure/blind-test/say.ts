import { type BlindResult, powerOf } from '#core/audio/blind-test/index.ts';
import { formatNumber } from '#web/shared/parts/index.ts';
import { blindTest as say } from '#words/index.ts';

/** What a number of rounds can show, in words. */
export function sayRounds(rounds: number, needed: number | null): string {
  if (needed === null) return say.roundsProveNothingGuessing({ rounds });
  const percent = (p: number) => formatNumber(100 * powerOf(rounds, p));
  return say.youNeedRightGuessing({ needed, rounds, often: percent(0.7), seldom: percent(0.4) });
}

/** Result of a blind comparison, in words. */
export function sayResult({ rounds, correct, chance, needed }: BlindResult): string {
  if (chance === null) return '';
  const percent = 100 * chance;
  const guess = percent < 0.1 ? say.fewerThanIn() : `${formatNumber(percent, percent < 10 ? 1 : 0)}%`;
  const heard = needed !== null && correct >= needed;
  return say.rightGuessingDoesAs({
    correct,
    rounds,
    guess,
    none: heard ? say.youHeardDifference() : say.thatDoesntShowThat(),
  });
}
