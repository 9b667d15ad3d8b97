import { VideoSampleSink } from 'mediabunny';
import { openInput } from './media.ts';
import type { TakeSource } from './take-source.ts';

/** One frame of a take, small, with the time that the file gives it. */
export interface SmallFrame {
  readonly timeMs: number;
  readonly image: ImageBitmap;
}

/** The frames that begin within a stretch, each `widthPx` wide; none where there is no picture. */
export async function readFrames(
  source: TakeSource,
  fromMs: number,
  toMs: number,
  widthPx: number,
): Promise<SmallFrame[]> {
  using input = await openInput(source);
  const track = await input.getPrimaryVideoTrack();
  if (!track) return [];
  const heightPx = Math.max(1, Math.round((widthPx * track.displayHeight) / track.displayWidth));
  const frames: SmallFrame[] = [];
  for await (const sample of new VideoSampleSink(track).samples(Math.max(0, fromMs / 1000), toMs / 1000)) {
    if (sample.timestamp * 1000 < fromMs) {
      // On the screen when the stretch begins, but begun before it.
      sample.close();
      continue;
    }
    const canvas = new OffscreenCanvas(widthPx, heightPx);
    sample.draw(canvas.getContext('2d')!, 0, 0, widthPx, heightPx);
    frames.push({ timeMs: sample.timestamp * 1000, image: canvas.transferToImageBitmap() });
    sample.close();
  }
  return frames;
}
