import PFFFT from '@echogarden/pffft-wasm/simd';
import { type Levels, measureLevels, measureOffset } from '../../core/audio/measure/index.ts';
import { fftOver, layoutName, type PffftModule } from '../../core/audio/samples/index.ts';
import { openMedia } from '../../web/shared/workers/media.ts';

/** What a file turns out to be, and how it lies to what it was made of. */
export interface FileRead {
  readonly sampleRateHz: number;
  readonly channels: number;
  readonly layout: string | null;
  readonly levels: Levels | null;
  readonly offsetMs: number;
  /** The second time it was opened. */
  readonly againS: number;
  readonly notices: readonly string[];
}

const nothing = () => undefined;
const blobOf = async (url: string): Promise<Blob> => (await fetch(url)).blob();

self.onmessage = ({ data: [made, from] }: MessageEvent<[string, string]>) => {
  readFile(made, from).then(
    (read) => self.postMessage(read),
    (error: unknown) => self.postMessage({ failed: String(error) }),
  );
};

async function readFile(made: string, from: string): Promise<FileRead> {
  const fftOf = fftOver((await PFFFT()) as PffftModule);
  const file = await blobOf(made);
  const source = (await openMedia({ file: await blobOf(from) }, nothing)).sound!;
  const { sound, notices } = await openMedia({ file }, nothing);
  if (!sound) throw new Error(`There is no sound. ${notices.join(' ')}`);
  const levels = sound.layout ? await measureLevels(sound) : null;
  const { offsetMs } = await measureOffset(fftOf, source, sound);
  const begun = performance.now();
  await openMedia({ file }, nothing);
  return {
    sampleRateHz: sound.sampleRateHz,
    channels: sound.channels,
    layout: sound.layout ? layoutName(sound.layout) : null,
    levels,
    offsetMs,
    notices,
    againS: (performance.now() - begun) / 1000,
  };
}
