import './spoken.ts';
import PFFFT from '@echogarden/pffft-wasm/simd';
import { expose } from 'comlink';
import { type FftOf, fftOver, type PffftModule, recordingOf } from '#core/audio/samples/index.ts';
import { readTrip, type SentChirp, type Trip } from '#core/desk-tests/slates/index.ts';

let fftOf: FftOf | null = null;

const api = {
  /** Time of a chirp's return, in samples from `startS` of the clock it was sent by. */
  async read(samples: Float32Array, sampleRateHz: number, startS: number, sent: SentChirp): Promise<Trip> {
    fftOf ??= fftOver((await PFFFT()) as PffftModule);
    return readTrip(fftOf, recordingOf([samples], sampleRateHz), startS, sent);
  },
};
export type TripApi = typeof api;
expose(api);
