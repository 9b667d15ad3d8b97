import { sayersOf } from '#core/said/index.ts';

/** Codes that solve reports, with their parameters. Their sentences are in words/en/core/solve.ts. */
export const say = sayersOf('solve', {
  couldNotSolve: { status: 'text' },
});
