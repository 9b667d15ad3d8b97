import { sayersOf } from '#core/said/index.ts';

/** Codes that wire reports, with their parameters. Their sentences are in words/en/core/wire.ts. */
export const say = sayersOf('wire', {
  wiredHeadset: {},
  wirelessHeadset: {},
  speakerAndMic: {},
});
