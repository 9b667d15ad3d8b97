import PFFFT from '@echogarden/pffft-wasm/simd';
import { type FftOf, fftOver, type PffftModule } from './index.ts';

/** The transform that the program uses, for tests. */
export const testFft = async (): Promise<FftOf> => fftOver((await PFFFT()) as PffftModule);
