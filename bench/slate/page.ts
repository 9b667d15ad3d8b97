import PFFFT from '@echogarden/pffft-wasm/simd';
import { fftOver, type PffftModule } from '../../core/audio/samples/index.ts';
import { lookAt } from '../../web/shared/workers/look.ts';
import { openMedia } from '../../web/shared/workers/media.ts';

/** What the slates of the chosen file read, and how long the look took. */
async function read() {
  const file = (document.getElementById('file') as HTMLInputElement).files![0]!;
  const fftOf = fftOver((await PFFFT()) as PffftModule);
  const begun = performance.now();
  const look = await lookAt(fftOf, await openMedia({ file }, () => undefined), false, () => undefined);
  return {
    ms: performance.now() - begun,
    slates: look.picture?.slates ?? [],
  };
}
export type SlatesRead = Awaited<ReturnType<typeof read>>;

declare global {
  interface Window {
    readSlates: typeof read;
  }
}
window.readSlates = read;
