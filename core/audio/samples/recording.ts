import type { Text } from '#core/base/said/index.ts';
import { type Layout, layoutOfCount } from './layout.ts';

/** An open recording: samples at full scale 1, read where they are wanted. */
export interface Recording {
  readonly sampleRateHz: number;
  readonly channels: number;
  readonly frames: number;
  /** What its tracks are called, where the file says so; '' for one that has no name. */
  readonly trackNames?: readonly string[];
  /** Which speaker each channel is for; absent where they are tracks, and belong to none. */
  readonly layout?: Layout;
  /** What was odd about its file, in sentences; absent where nothing was. */
  readonly notes?: readonly Text[];
  /**
   * Frames `start` up to `start + count`, one array a channel, silence outside the recording.
   * Shorter recordings are not an error: what is outside reads as zeros.
   */
  read(start: number, count: number): Promise<Float32Array[]>;
  /** The same, channels averaged into one. */
  readMono(start: number, count: number): Promise<Float32Array>;
}

/** One or two channels are those of a speaker or two; more of them are tracks, until something says otherwise. */
export const usualLayout = (channels: number): Layout | null => (channels <= 2 ? layoutOfCount(channels) : null);

/** Samples in memory as a recording, for decoded sound and for tests. */
export function recordingOf(
  channels: readonly Float32Array[],
  sampleRateHz: number,
  layout: Layout | null = usualLayout(channels.length),
): Recording {
  const frames = channels[0]?.length ?? 0;
  const cut = (x: Float32Array, start: number, count: number) => {
    const out = new Float32Array(count);
    const first = Math.max(0, start);
    const last = Math.min(frames, start + count);
    if (last > first) out.set(x.subarray(first, last), first - start);
    return out;
  };
  return {
    sampleRateHz,
    channels: channels.length,
    frames,
    ...(layout && { layout }),
    read: async (start, count) => channels.map((x) => cut(x, start, count)),
    async readMono(start, count) {
      if (channels.length === 1) return cut(channels[0]!, start, count);
      const out = new Float32Array(count);
      for (const channel of channels) {
        const part = cut(channel, start, count);
        for (let i = 0; i < count; i++) out[i]! += part[i]! / channels.length;
      }
      return out;
    },
  };
}

/** One channel of a recording as a recording. */
export const channelOf = (recording: Recording, channel: number): Recording => {
  const readMono = async (start: number, count: number) => (await recording.read(start, count))[channel]!;
  const { sampleRateHz, frames } = recording;
  const read = async (start: number, count: number) => [await readMono(start, count)];
  return { sampleRateHz, frames, channels: 1, layout: usualLayout(1)!, readMono, read };
};
