import { say } from '#core/audio/samples/sayings.ts';
import { wordingOf } from '../../said.ts';

export const samples = wordingOf(say, {
  thisIsNotWav: 'This is not a WAV file. Choose a .wav, or open it in Measure if it is a video.',
  thisWavHasNo: 'This WAV has no format information. Export it again from the app that made it.',
  wavHasNoAudio: 'The WAV has no audio. Record or export it again.',
  wavHasChannelsExport: 'The WAV has 0 channels. Export it again as mono or stereo.',
  wavContradictsItselfAbout: 'The WAV contradicts itself about its format. Export it again as PCM, 16 or 24 bit.',
  wavHasImpossibleSample: 'The WAV has an impossible sample rate: 4 to 768 kHz can be read. Export it again at 48 kHz.',
  audioInThisWav: 'The audio in this WAV is compressed. Export it as PCM (8 to 32 bit) or float.',
  thisWavIsShorter: 'This WAV is shorter than its header says. If the rest of it exists elsewhere, copy it again.',
  recordingWasNeverFinalized: 'The recording was never finalized: its length is missing. It was read to its end.',
  sExpectedSThere: '{expected} s expected, {there} s there',
  formatCode: 'format code {code}',
  bit: '{bits} bit',
  hz: '{rate} Hz',
  bytesFrame: '{bytes} bytes a frame',
  recordingIsTooLong: 'The recording is too long for a WAV file (4 GiB at most). Cut it in two.',
  withDetail: '{problem} ({detail})',
});
