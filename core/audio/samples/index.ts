export { type ByteSource, bytesInMemory } from './bytes.ts';
export { corrected, type Piece } from './correct.ts';
export { type Correlator, type FftOf, fftOver, fftSize, type PffftModule } from './fft.ts';
export {
  type Layout,
  layoutName,
  layoutOfCount,
  loudnessWeights,
  maskOf,
  speakerName,
} from './layout.ts';
export { coarser, glancePeaks, type Peaks, readPeaks } from './peaks.ts';
export { seededNormal, seededRandom } from './random.ts';
export { channelOf, type Recording, recordingOf } from './recording.ts';
export { decimate, decimateReach, resample, resampleReach } from './resample.ts';
export { interpolators, kaiser, sinc } from './sinc.ts';
export { openWav } from './wav.ts';
export { WavError, type WavErrorCode } from './wav-error.ts';
export { wavPieces } from './wav-stream.ts';
export { encodeWav, wavHeader } from './wav-write.ts';
