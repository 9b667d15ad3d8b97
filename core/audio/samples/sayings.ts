import { sayersOf } from '#core/base/said/index.ts';

/** Codes that samples reports, with their parameters. Their sentences are in words/en/core/samples.ts. */
export const say = sayersOf('samples', {
  thisIsNotWav: {},
  thisWavHasNo: {},
  wavHasNoAudio: {},
  wavHasChannelsExport: {},
  wavContradictsItselfAbout: {},
  wavHasImpossibleSample: {},
  audioInThisWav: {},
  thisWavIsShorter: {},
  recordingWasNeverFinalized: {},
  sExpectedSThere: { expected: 'text', there: 'text' },
  formatCode: { code: 'text' },
  bit: { bits: 'text' },
  hz: { rate: 'text' },
  bytesFrame: { bytes: 'text' },
  recordingIsTooLong: {},
  withDetail: { problem: 'text', detail: 'text' },
});
