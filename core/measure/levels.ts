import { loudnessWeights, type Recording } from '#core/samples/index.ts';
import { dbFromRatio } from '#core/units/index.ts';
import { type Loudness, loudnessMeter } from './loudness.ts';
import { MeasureError } from './measure-error.ts';
import { type PeakMeter, peakMeter } from './true-peak.ts';

/** Loudness and peaks of a recording; null for silence. */
export interface Levels extends Loudness {
  readonly truePeakDbtp: number | null;
  readonly samplePeakDbfs: number | null;
}

const PIECE_S = 4;

/** How much each channel counts. @throws MeasureError where nothing tells which channel is which */
export function weightsOf({ channels, layout }: Recording): number[] {
  if (!layout) throw new MeasureError('no-layout', `${channels} channels`);
  return loudnessWeights(layout);
}

/** Peaks that may be looked for elsewhere, on another core. What is pushed is given away: nobody reads it afterwards. */
export interface PeakFinder {
  push(channels: readonly Float32Array[]): void | Promise<void>;
  result(): ReturnType<PeakMeter['result']> | Promise<ReturnType<PeakMeter['result']>>;
}

/**
 * Reads a recording once from end to end, in pieces: memory does not grow with it.
 * @param onProgress  told the part that is done, 0 to 1
 * @param peaks       a meter of peaks for it that stands elsewhere; here where absent
 * @throws MeasureError for tracks that belong to no loudspeakers, and for samples that are no numbers
 */
export async function measureLevels(
  recording: Recording,
  onProgress?: (part: number) => void,
  peaks: PeakFinder = peakMeter(recording.channels, recording.sampleRateHz),
): Promise<Levels> {
  const { channels, frames, sampleRateHz } = recording;
  const loudness = loudnessMeter(channels, sampleRateHz, weightsOf(recording));
  const piece = PIECE_S * sampleRateHz;
  for (let at = 0; at < frames; at += piece) {
    const part = await recording.read(at, Math.min(piece, frames - at));
    loudness.push(part);
    if (!loudness.isWhole()) throw new MeasureError('not-a-number', `from ${(at / sampleRateHz).toFixed(0)} s on`);
    await peaks.push(part);
    onProgress?.(Math.min(1, (at + piece) / frames));
  }
  const { samplePeak, truePeak } = await peaks.result();
  return {
    ...loudness.result(),
    truePeakDbtp: truePeak > 0 ? dbFromRatio(truePeak) : null,
    samplePeakDbfs: samplePeak > 0 ? dbFromRatio(samplePeak) : null,
  };
}
