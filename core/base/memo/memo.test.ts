import { describe, expect, it } from 'vitest';
import { memoized } from './index.ts';

describe('what is computed once for each object', () => {
  it('is the same for the same object, and another for an equal one', () => {
    let made = 0;
    const twice = memoized(({ n }: { n: number }) => ({ n: 2 * n, made: ++made }));
    const [a, b] = [{ n: 3 }, { n: 3 }];
    expect(twice(a)).toEqual({ n: 6, made: 1 });
    expect(twice(a)).toBe(twice(a));
    expect(twice(b)).toEqual({ n: 6, made: 2 });
    expect(made).toBe(2);
  });
  it('is asked for again after it has failed', () => {
    let tried = 0;
    const late = memoized((key: object) => {
      if (++tried < 2) throw new Error('not yet');
      return [key];
    });
    const key = {};
    expect(() => late(key)).toThrow('not yet');
    expect(late(key)).toEqual([key]);
    expect(tried).toBe(2);
  });
});
