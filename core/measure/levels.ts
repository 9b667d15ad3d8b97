import type { Recording } from '#core/samples/index.ts';
import { dbFromRatio } from '#core/units/index.ts';
import { type Loudness, loudnessMeter } from './loudness.ts';
import { MeasureError } from './measure-error.ts';
import { peakMeter } from './true-peak.ts';

/** Loudness and peaks of a recording; null for silence. */
export interface Levels extends Loudness {
  readonly truePeakDbtp: number | null;
  readonly samplePeakDbfs: number | null;
}

const PIECE_S = 4;
/** Weights are known for mono and stereo alone. */
const MOST_CHANNELS = 2;

/**
 * Reads a recording once from end to end, in pieces: memory does not grow with it.
 * @param onProgress  told the part that is done, 0 to 1
 * @throws MeasureError for more than two channels, and for samples that are no numbers
 */
export async function measureLevels(recording: Recording, onProgress?: (part: number) => void): Promise<Levels> {
  const { channels, frames, sampleRateHz } = recording;
  if (channels > MOST_CHANNELS) throw new MeasureError('too-many-channels', `${channels} channels`);
  const loudness = loudnessMeter(channels, sampleRateHz);
  const peaks = peakMeter(channels, sampleRateHz);
  const piece = PIECE_S * sampleRateHz;
  for (let at = 0; at < frames; at += piece) {
    const part = await recording.read(at, Math.min(piece, frames - at));
    if (part.some(hasNoNumber)) throw new MeasureError('not-a-number', `from ${(at / sampleRateHz).toFixed(0)} s on`);
    loudness.push(part);
    peaks.push(part);
    onProgress?.(Math.min(1, (at + piece) / frames));
  }
  const { samplePeak, truePeak } = peaks.result();
  return {
    ...loudness.result(),
    truePeakDbtp: truePeak > 0 ? dbFromRatio(truePeak) : null,
    samplePeakDbfs: samplePeak > 0 ? dbFromRatio(samplePeak) : null,
  };
}

/** One of them would make every figure after it none: the sum tells. */
export function hasNoNumber(x: Float32Array): boolean {
  let sum = 0;
  for (let i = 0; i < x.length; i++) sum += x[i]! * 0;
  return sum !== 0;
}
