import { BlobSource, Input, MP4, VideoSampleSink } from 'mediabunny';
import { openMedia } from '../../web/shared/workers/media.ts';

const TURNS = 5;

/** Frames a second, decoding alone and with brightness read, over the same stretch; turns taken, so that neither is favoured. */
async function compare(toS: number): Promise<{ alone: number; withBrightness: number; frames: number }> {
  const file = (document.getElementById('file') as HTMLInputElement).files![0]!;
  const input = new Input({ source: new BlobSource(file), formats: [MP4] });
  const sink = new VideoSampleSink((await input.getPrimaryVideoTrack())!);
  const { picture } = await openMedia({ file }, () => undefined);
  let frames = 0;
  const alone: number[] = [];
  const read: number[] = [];
  for (let turn = 0; turn < TURNS; turn++) {
    let begun = performance.now();
    frames = 0;
    for await (const sample of sink.samples(0, toS)) {
      frames++;
      sample.close();
    }
    alone.push((1000 * frames) / (performance.now() - begun));
    begun = performance.now();
    const { timesMs } = await picture!.brightness(0, toS, 'coarse');
    read.push((1000 * timesMs.length) / (performance.now() - begun));
  }
  const median = (x: number[]) => x.sort((a, b) => a - b)[TURNS >> 1]!;
  return { alone: median(alone), withBrightness: median(read), frames };
}

declare global {
  interface Window {
    compare: typeof compare;
  }
}
window.compare = compare;
