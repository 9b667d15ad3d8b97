import { type Loudness, loudnessMeter, MeasureError } from '#core/audio/measure/index.ts';
import type { Recording } from '#core/audio/samples/index.ts';
import { listOf } from '#core/base/said/index.ts';
import { say } from './sayings.ts';

/** One source of a take: a channel of a recording, or two as left and right. */
export interface MixTrack {
  readonly recording: Recording;
  readonly channels: readonly [number] | readonly [number, number];
}

/** A track as recorded; its hops as in a stereo mix: mono goes to both sides, +3 LU. */
export interface TrackMeasured extends Loudness {
  /** K-weighted power of every 100 ms. */
  readonly hops: Float64Array;
}

const PIECE_S = 2;

/** The samples of a track from `start` on, left and right; a single channel is both. */
export async function readSides(
  { recording, channels: [left, right] }: MixTrack,
  start: number,
  count: number,
): Promise<[Float32Array, Float32Array]> {
  const all = await recording.read(start, count);
  const l = all[left]!;
  return [l, right === undefined ? l : all[right]!];
}

/** @throws MeasureError when the tracks do not share a rate */
export function commonRate(tracks: readonly MixTrack[]): number {
  const [rate = 0, ...others] = new Set(tracks.map((t) => t.recording.sampleRateHz));
  if (others.length > 0)
    throw new MeasureError(
      'rates-differ',
      listOf(
        'and',
        [rate, ...others].map((hz) => say.rate({ hz })),
      ),
    );
  return rate;
}

/**
 * Loudness along time of all tracks, which begin together, each read once.
 * @param onProgress  fraction done, 0 to 1
 * @throws MeasureError
 */
export async function measureTracks(
  tracks: readonly MixTrack[],
  onProgress?: (part: number) => void,
): Promise<TrackMeasured[]> {
  const sampleRateHz = commonRate(tracks);
  const frames = Math.max(0, ...tracks.map((t) => t.recording.frames));
  const meters = tracks.map(() => loudnessMeter(2, sampleRateHz));
  const piece = PIECE_S * sampleRateHz;
  for (let at = 0; at < frames; at += piece) {
    const count = Math.min(piece, frames - at);
    for (const [i, track] of tracks.entries()) {
      meters[i]!.push(await readSides(track, at, count));
      if (!meters[i]!.isWhole()) throw new MeasureError('not-a-number', say.track({ number: i + 1 }));
    }
    onProgress?.((at + count) / Math.max(1, frames));
  }
  return meters.map((m) => ({ ...m.result(), hops: m.hops() }));
}
