import { loudnessWeights, type Recording } from '#core/audio/samples/index.ts';
import { dbFromRatio } from '#core/model/units/index.ts';
import { type Loudness, loudnessMeter, loudnessOf, STEPS_PER_S, type StepPowers } from './loudness.ts';
import { MeasureError } from './measure-error.ts';
import { say } from './sayings.ts';
import { type Peaks, peakMeter, TAPS } from './true-peak.ts';

/** Loudness and peaks of a recording; null for silence. */
export interface Levels extends Loudness {
  readonly truePeakDbtp: number | null;
  readonly samplePeakDbfs: number | null;
}

const PIECE_S = 4;
/** Memory of the K weighting, s: its low cut, at 38 Hz, decays by 2000 dB a second. */
const WARM_UP_S = 1;

/** Channel weights. @throws MeasureError where the channel layout is unknown */
export function weightsOf({ channels, layout }: Recording): number[] {
  if (!layout) throw new MeasureError('no-layout', say.channels({ channels }));
  return loudnessWeights(layout);
}

/** What was measured of a stretch: stretches that follow each other may be measured by different threads. */
export interface LevelsPart {
  readonly steps: StepPowers;
  readonly peaks: Readonly<Peaks>;
}

/** Frames from one up to another. */
export interface FrameRange {
  readonly from: number;
  readonly to: number;
}

/** A recording split into parts that can be measured independently; each begins on a whole second. */
export function levelsRanges({ frames, sampleRateHz }: Recording, parts: number): FrameRange[] {
  const border = (part: number) =>
    part === parts ? frames : Math.min(frames, Math.round((part * frames) / parts / sampleRateHz) * sampleRateHz);
  return Array.from({ length: parts }, (_, i) => ({ from: border(i), to: border(i + 1) })).filter((r) => r.to > r.from);
}

/**
 * Reads a stretch once from end to end, in pieces: memory does not grow with it.
 * @param range       as `levelsRanges` cut it
 * @param onProgress  called with the fraction done, 0 to 1
 * @throws MeasureError for tracks that belong to no speakers, and for samples that are no numbers
 */
export async function measurePart(
  recording: Recording,
  { from, to }: FrameRange,
  onProgress?: (part: number) => void,
): Promise<LevelsPart> {
  const { channels, frames, sampleRateHz } = recording;
  const warmUpS = Math.min(WARM_UP_S, from / sampleRateHz);
  const start = from - warmUpS * sampleRateHz;
  const loudness = loudnessMeter(channels, sampleRateHz, { weights: weightsOf(recording) });
  const peaks = peakMeter(channels, sampleRateHz, { before: await recording.read(start - TAPS, TAPS) });
  const piece = PIECE_S * sampleRateHz;
  for (let at = start; at < to; at += piece) {
    const part = await recording.read(at, Math.min(piece, to - at));
    loudness.push(part);
    if (!loudness.isWhole())
      throw new MeasureError('not-a-number', say.fromSOn({ at: (at / sampleRateHz).toFixed(0) }));
    peaks.push(part);
    onProgress?.((Math.min(to, at + piece) - start) / (to - start));
  }
  const steps = loudness.steps().subarray(Math.round(warmUpS * STEPS_PER_S));
  if (to === frames) return { steps, peaks: peaks.result() };
  peaks.push(await recording.read(to, TAPS));
  return { steps, peaks: peaks.latest() };
}

/** What all parts of a recording make together, in their order. */
export function levelsOf(parts: readonly LevelsPart[]): Levels {
  const steps = new Float64Array(parts.reduce((n, p) => n + p.steps.length, 0));
  let at = 0;
  for (const part of parts) {
    steps.set(part.steps, at);
    at += part.steps.length;
  }
  const highest = (key: keyof Peaks) => {
    const most = Math.max(0, ...parts.map((p) => p.peaks[key]));
    return most > 0 ? dbFromRatio(most) : null;
  };
  return { ...loudnessOf(steps), truePeakDbtp: highest('truePeak'), samplePeakDbfs: highest('samplePeak') };
}

/** The levels of a whole recording. @throws MeasureError as `measurePart` */
export const measureLevels = async (recording: Recording, onProgress?: (part: number) => void): Promise<Levels> =>
  levelsOf([await measurePart(recording, { from: 0, to: recording.frames }, onProgress)]);
