import { sayersOf } from '#core/base/said/index.ts';

/** Codes that mix reports, with their parameters. Their sentences are in words/en/core/mix.ts. */
export const say = sayersOf('mix', {
  rate: { hz: 'text' },
  track: { number: 'text' },
  notSameLoudness: {},
});
