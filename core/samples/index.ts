export { type ByteSource, bytesInMemory } from './bytes.ts';
export { type Fft, type FftOf, fftOver, fftSize, type PffftModule } from './fft.ts';
export { coarser, glancePeaks, type Peaks, readPeaks } from './peaks.ts';
export { seededNormal, seededRandom } from './random.ts';
export { decimate, decimateReach, resample, resampleReach } from './resample.ts';
export { interpolators, kaiser, sinc } from './sinc.ts';
export { encodeWav, openWav, type Recording, recordingOf, type WavOptions } from './wav.ts';
export { WavError, type WavErrorCode } from './wav-error.ts';
