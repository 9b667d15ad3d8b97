import PFFFT from '@echogarden/pffft-wasm/simd';
import { fftOver, type PffftModule, recordingOf } from '../../core/audio/samples/index.ts';
import { readTap } from '../../core/desk-tests/tunes/index.ts';

self.onmessage = async ({ data }: MessageEvent<{ samples: Float32Array; rateHz: number; ids: number[] }>) => {
  const fftOf = fftOver((await PFFFT()) as PffftModule);
  const begun = performance.now();
  const reading = await readTap(fftOf, recordingOf([data.samples], data.rateHz), { ids: data.ids });
  self.postMessage({ seconds: (performance.now() - begun) / 1000, reading });
};
