import { describe, expect, it } from 'vitest';
import { sayResult, sayRounds } from './say.ts';

describe('what a blind trial shows, in words', () => {
  it('says before it how many have to be right, and when it can show nothing', () => {
    expect(sayRounds(4, null)).toMatch(/^4 rounds prove nothing/);
    expect(sayRounds(10, 9)).toMatch(/^You need 9 of 10 right .* found in \d+% of trials, .* in \d+%\.$/);
  });
  it('says after it how often guessing does as well, and claims no more', () => {
    const result = { rounds: 10, answered: 10, needed: 9 };
    expect(sayResult({ ...result, correct: 9, chance: 11 / 1024 })).toBe(
      '9 of 10 right. Guessing does as well in 1.1% of trials. You heard the difference.',
    );
    expect(sayResult({ ...result, correct: 6, chance: 0.377 })).toContain('nor that there is none');
    expect(sayResult({ ...result, rounds: 20, correct: 20, needed: 15, chance: 1e-6 })).toContain(
      'fewer than 1 in 1,000',
    );
    expect(sayResult({ ...result, correct: 3, chance: null })).toBe('');
  });
});
