import type { Recording } from './recording.ts';

/** Minimum and maximum of a recording per bin of this many frames: what a waveform is drawn from. */
export interface Peaks {
  readonly framesPerBin: number;
  readonly sampleRateHz: number;
  readonly low: Float32Array;
  readonly high: Float32Array;
}

const BLOCK_FRAMES = 1 << 18;

/**
 * Lowest and highest sample of every bin, channels averaged, in one streamed pass.
 * @param onProgress share done, 0 to 1
 */
export async function readPeaks(
  recording: Recording,
  framesPerBin: number,
  onProgress?: (done: number) => void,
): Promise<Peaks> {
  const bins = Math.ceil(recording.frames / framesPerBin);
  const low = new Float32Array(bins);
  const high = new Float32Array(bins);
  const block = Math.max(1, Math.floor(BLOCK_FRAMES / framesPerBin)) * framesPerBin;
  for (let start = 0; start < recording.frames; start += block) {
    const count = Math.min(block, recording.frames - start);
    const x = await recording.readMono(start, count);
    for (let i = 0, bin = start / framesPerBin; i < count; bin++) {
      let least = x[i]!;
      let most = least;
      for (const end = Math.min(count, i + framesPerBin); i < end; i++) {
        const v = x[i]!;
        if (v < least) least = v;
        else if (v > most) most = v;
      }
      low[bin] = least;
      high[bin] = most;
    }
    onProgress?.((start + count) / recording.frames);
  }
  return { framesPerBin, sampleRateHz: recording.sampleRateHz, low, high };
}

/**
 * A first picture of a long recording: of every bin only its beginning is read, so peaks may be missed but none is made
 * up. Costs a read a bin, however long the recording is.
 */
export async function glancePeaks(recording: Recording, bins: number): Promise<Peaks> {
  const framesPerBin = Math.max(1, Math.ceil(recording.frames / bins));
  const count = Math.ceil(recording.frames / framesPerBin);
  const low = new Float32Array(count);
  const high = new Float32Array(count);
  const look = async (bin: number): Promise<void> => {
    const start = bin * framesPerBin;
    const x = await recording.readMono(start, Math.min(GLANCE_FRAMES, framesPerBin, recording.frames - start));
    let [least, most] = [x[0] ?? 0, x[0] ?? 0];
    for (const v of x) {
      if (v < least) least = v;
      else if (v > most) most = v;
    }
    low[bin] = least;
    high[bin] = most;
  };
  // Each read waits for the disk or the net: many of them wait together.
  for (let bin = 0; bin < count; bin += TOGETHER)
    await Promise.all(Array.from({ length: Math.min(TOGETHER, count - bin) }, (_, i) => look(bin + i)));
  return { framesPerBin, sampleRateHz: recording.sampleRateHz, low, high };
}
const GLANCE_FRAMES = 2048;
const TOGETHER = 32;

/** The same peaks, `factor` bins in one: for a view that is further away. */
export function coarser(peaks: Peaks, factor: number): Peaks {
  const bins = Math.ceil(peaks.low.length / factor);
  const low = new Float32Array(bins);
  const high = new Float32Array(bins);
  for (let b = 0; b < bins; b++) {
    let least = Number.POSITIVE_INFINITY;
    let most = Number.NEGATIVE_INFINITY;
    for (let i = b * factor, end = Math.min(peaks.low.length, i + factor); i < end; i++) {
      least = Math.min(least, peaks.low[i]!);
      most = Math.max(most, peaks.high[i]!);
    }
    low[b] = least;
    high[b] = most;
  }
  return { ...peaks, framesPerBin: peaks.framesPerBin * factor, low, high };
}
