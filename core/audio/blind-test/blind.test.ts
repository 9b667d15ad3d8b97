import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { answer, beginBlind, blindResult, chanceOf, neededOf, powerOf, roundsFor } from './index.ts';

/** The slow twin: binomials as whole numbers. */
function exactChance(correct: number, rounds: number): number {
  const choose = (n: number, k: number): bigint => {
    let c = 1n;
    for (let i = 1; i <= k; i++) c = (c * BigInt(n - k + i)) / BigInt(i);
    return c;
  };
  let sum = 0n;
  for (let k = correct; k <= rounds; k++) sum += choose(rounds, k);
  return Number((sum * 10n ** 15n) / 2n ** BigInt(rounds)) / 1e15;
}

describe('the chance of guessing', () => {
  it('is the exact binomial tail', () => {
    expect(chanceOf(9, 10)).toBeCloseTo(11 / 1024, 12);
    expect(chanceOf(12, 16)).toBeCloseTo(2517 / 65_536, 12);
    expect(chanceOf(0, 7)).toBe(1);
    fc.assert(
      fc.property(fc.integer({ min: 1, max: 100 }), fc.double({ min: 0, max: 1, noNaN: true }), (rounds, part) => {
        const correct = Math.round(part * rounds);
        expect(Math.abs(chanceOf(correct, rounds) - exactChance(correct, rounds))).toBeLessThan(1e-12);
      }),
    );
  });
  it('says how many have to be right, and when even all are too few', () => {
    expect([4, 5, 8, 10, 16].map((n) => neededOf(n))).toEqual([null, 5, 7, 9, 12]);
  });
  it('says how many rounds are needed to find somebody who hears it sometimes', () => {
    expect(roundsFor(1)).toBe(5);
    expect(powerOf(5, 1)).toBe(1);
    const often = roundsFor(0.7)!;
    const seldom = roundsFor(0.4)!;
    expect(powerOf(often, 0.7)).toBeGreaterThanOrEqual(0.8);
    expect(powerOf(often - 1, 0.7)).toBeLessThan(0.8);
    expect(seldom).toBeGreaterThan(often);
    expect(roundsFor(0.01)).toBeNull();
  });
});

describe('a blind trial', () => {
  const coins = [0, 1, 1, 0, 1, 1, 0, 0] as const;
  const begun = () => {
    let i = 0;
    return beginBlind(coins.length, () => coins[i++]!);
  };
  it('says nothing of chance before it is over, and takes no answer afterwards', () => {
    let trial = begun();
    expect(trial.order.join('')).toBe('abbabbaa');
    for (const [i, is] of trial.order.entries()) {
      expect(blindResult(trial)).toMatchObject({ answered: i, correct: i, chance: null });
      trial = answer(trial, is);
    }
    expect(blindResult(trial)).toEqual({ rounds: 8, answered: 8, correct: 8, chance: 1 / 256, needed: 7 });
    expect(answer(trial, 'a')).toBe(trial);
  });
  it('counts what was right only', () => {
    let trial = begun();
    for (let i = 0; i < 8; i++) trial = answer(trial, 'a');
    expect(blindResult(trial)).toMatchObject({ correct: 4, chance: chanceOf(4, 8) });
  });
});
