import PFFFT from '@echogarden/pffft-wasm/simd';
import { expose } from 'comlink';
import { type FftOf, fftOver, type PffftModule } from '#core/audio/samples/index.ts';
import { type Emission, type Heard, joinReads, type RoundRead, readRound } from '#core/desk-tests/scan/index.ts';

let fftOf: FftOf | null = null;

/** Reads rounds of a scan, while the next one is played. */
const api = {
  async readRound(emissions: readonly Emission[], heard: readonly Heard[]): Promise<RoundRead> {
    fftOf ??= fftOver((await PFFFT()) as PffftModule);
    const over = fftOf;
    return joinReads(heard.map((h) => readRound(over, emissions, h)));
  },
};
export type ScanApi = typeof api;
expose(api);
