import { sayersOf } from '#core/said/index.ts';

/** What mix says, and what each needs. Its words stand in words/en/core/mix.ts. */
export const say = sayersOf('mix', {
  rate: { hz: 'text' },
  track: { number: 'text' },
  notSameLoudness: {},
});
