import { sayersOf } from '#core/base/said/index.ts';

/** Codes that solve reports, with their parameters. Their sentences are in words/en/core/suggest.ts. */
export const say = sayersOf('solve', {
  couldNotSolve: { status: 'text' },
});
