import { sayersOf } from '#core/said/index.ts';

/** What solve says, and what each needs. Its words stand in words/en/core/solve.ts. */
export const say = sayersOf('solve', {
  couldNotSolve: { status: 'text' },
});
