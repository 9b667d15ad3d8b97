import { sayersOf } from '#core/said/index.ts';

/** What wire says, and what each needs. Its words stand in words/en/core/wire.ts. */
export const say = sayersOf('wire', {
  wiredHeadset: {},
  wirelessHeadset: {},
  speakerAndMic: {},
});
