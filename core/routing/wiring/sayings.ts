import { sayersOf } from '#core/base/said/index.ts';

/** Codes that wire reports, with their parameters. Their sentences are in words/en/core/wiring.ts. */
export const say = sayersOf('wire', {
  wiredHeadset: {},
  wirelessHeadset: {},
  speakerAndMic: {},
});
