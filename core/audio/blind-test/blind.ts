import { chanceOf, neededOf } from './chance.ts';

export type Answer = 'a' | 'b';

/** A blind trial: two sounds A and B, and an X in each round that is one of them. How many rounds is settled before. */
export interface Blind {
  readonly order: readonly Answer[];
  readonly answers: readonly Answer[];
}

export interface BlindResult {
  readonly rounds: number;
  readonly answered: number;
  readonly correct: number;
  /** How often guessing does as well; null until all rounds are answered, since who stops when it looks well deceives himself. */
  readonly chance: number | null;
  readonly needed: number | null;
}

/** @param coin  a fair coin, 0 or 1, for each round */
export const beginBlind = (rounds: number, coin: () => 0 | 1): Blind => ({
  order: Array.from({ length: rounds }, () => (coin() === 0 ? 'a' : 'b')),
  answers: [],
});

/** The answer to the round that is open; after the last one nothing changes any more. */
export const answer = (blind: Blind, is: Answer): Blind =>
  blind.answers.length < blind.order.length ? { ...blind, answers: [...blind.answers, is] } : blind;

export function blindResult({ order, answers }: Blind): BlindResult {
  const correct = answers.filter((a, i) => a === order[i]).length;
  const over = answers.length === order.length;
  return {
    rounds: order.length,
    answered: answers.length,
    correct,
    chance: over ? chanceOf(correct, order.length) : null,
    needed: neededOf(order.length),
  };
}
