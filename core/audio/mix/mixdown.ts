import { type Levels, loudnessMeter, peakMeter } from '#core/audio/measure/index.ts';
import { limiter } from '#core/audio/process/index.ts';
import { dbFromRatio, ratioFromDb } from '#core/model/units/index.ts';
import { type Aim, solveBalance } from './balance.ts';
import { type MixPlan, rideDbAt, ridesWithin } from './plan.ts';
import type { Stretch } from './talk.ts';
import { commonRate, type MixTrack, readSides, type TrackMeasured } from './tracks.ts';

/** What a mix measures. */
export interface MixLevels extends Levels {
  /** What the limiter took: the most, dB, and for how long. */
  readonly limited: { readonly mostDb: number; readonly seconds: number } | null;
}

export interface Balanced {
  readonly plan: MixPlan;
  readonly levels: MixLevels;
}

const PIECE_S = 2;
/** Rides are worked out so often, and joined by straight lines. */
const RIDE_STEP_S = 0.01;
/** The mix is within this of the loudness target, LU, after at most this many iterations. */
const NEAR_LU = 0.05;
const MAX_MIXES = 4;

/**
 * Mixes a stretch of tracks that begin together, piece by piece; nothing of it is kept.
 * @param onPiece  left and right of each piece, in order; what it holds is the callee's only until it returns
 */
async function mixPieces(
  tracks: readonly MixTrack[],
  { gainsDb, rides, limit }: MixPlan,
  start: number,
  frames: number,
  onPiece: (sides: [Float32Array, Float32Array], done: number) => void,
): Promise<MixLevels['limited']> {
  const rate = commonRate(tracks);
  const piece = PIECE_S * rate;
  const stage = limit && limiter(2, rate, limit);
  let late = stage?.latencyFrames ?? 0;
  const total = frames + late;
  for (let at = 0; at < total; at += piece) {
    const count = Math.min(piece, total - at);
    const sides: [Float32Array, Float32Array] = [new Float32Array(count), new Float32Array(count)];
    for (const [i, track] of tracks.entries()) {
      const gainDb = gainsDb[i] ?? null;
      if (gainDb === null) continue;
      // What follows the stretch only pushes the last of it out of the limiter.
      const own = await readSides(track, start + at, count);
      const gain = gainCurve(rides, i, gainDb, (start + at) / rate, count, rate);
      for (const s of [0, 1] as const) for (let f = 0; f < count; f++) sides[s][f]! += own[s][f]! * gain[f]!;
    }
    stage?.run(sides);
    const skip = Math.min(late, count);
    late -= skip;
    if (count > skip) onPiece([sides[0].subarray(skip), sides[1].subarray(skip)], (at + count) / total);
  }
  if (!stage) return null;
  const { mostDb, frames: held } = stage.taken();
  return { mostDb, seconds: held / rate };
}

function gainCurve(
  rides: MixPlan['rides'],
  track: number,
  gainDb: number,
  fromS: number,
  count: number,
  rate: number,
): Float32Array {
  const out = new Float32Array(count);
  const acting = ridesWithin(rides, track, { fromS, toS: fromS + count / rate });
  if (acting.length === 0) return out.fill(ratioFromDb(gainDb));
  const step = Math.max(1, Math.round(RIDE_STEP_S * rate));
  const at = (frame: number) => ratioFromDb(gainDb + rideDbAt(acting, track, fromS + frame / rate));
  for (let f = 0, now = at(0); f < count; f += step) {
    const next = at(f + step);
    for (let k = f; k < Math.min(count, f + step); k++) out[k] = now + ((next - now) * (k - f)) / step;
    now = next;
  }
  return out;
}

/** Mixes whole tracks and measures the result. */
export async function mixDown(
  tracks: readonly MixTrack[],
  plan: MixPlan,
  onProgress?: (part: number) => void,
): Promise<MixLevels> {
  const rate = commonRate(tracks);
  const loudness = loudnessMeter(2, rate);
  const peaks = peakMeter(2, rate);
  const frames = Math.max(0, ...tracks.map((t) => t.recording.frames));
  const limited = await mixPieces(tracks, plan, 0, frames, (sides, done) => {
    loudness.push(sides);
    peaks.push(sides);
    onProgress?.(done);
  });
  const { samplePeak, truePeak } = peaks.result();
  return {
    ...loudness.result(),
    truePeakDbtp: truePeak > 0 ? dbFromRatio(truePeak) : null,
    samplePeakDbfs: samplePeak > 0 ? dbFromRatio(samplePeak) : null,
    limited,
  };
}

/** A stretch of the mix, left and right, to be listened to. */
export async function mixStretch(
  tracks: readonly MixTrack[],
  plan: MixPlan,
  { fromS, toS }: Stretch,
): Promise<[Float32Array, Float32Array]> {
  const rate = commonRate(tracks);
  const [start, frames] = [Math.round(fromS * rate), Math.round((toS - fromS) * rate)];
  const out: [Float32Array, Float32Array] = [new Float32Array(frames), new Float32Array(frames)];
  let at = 0;
  await mixPieces(tracks, plan, start, frames, ([left, right]) => {
    out[0].set(left, at);
    out[1].set(right, at);
    at += left.length;
  });
  return out;
}

/**
 * Balances tracks and proves it: solves, mixes, measures, and moves all of it together until the whole is as loud as is
 * wanted, limiting and all.
 * @param ownDb  faders that someone set by hand stay where they are; then the whole is only measured
 */
export async function balanceTake(
  tracks: readonly MixTrack[],
  measured: readonly TrackMeasured[],
  aim: Aim,
  ownDb: readonly (number | null)[] = [],
  onProgress?: (part: number) => void,
): Promise<Balanced> {
  let plan = solveBalance(measured, aim);
  if (ownDb.some((db) => db !== null)) {
    plan = { ...plan, gainsDb: plan.gainsDb.map((db, i) => (db === null ? null : (ownDb[i] ?? db))) };
    return { plan, levels: await mixDown(tracks, plan, onProgress) };
  }
  for (let mixes = 1; ; mixes++) {
    const levels = await mixDown(tracks, plan, onProgress);
    const off = levels.integratedLufs === null ? 0 : aim.targetLufs - levels.integratedLufs;
    if (Math.abs(off) <= NEAR_LU || mixes === MAX_MIXES) return { plan, levels };
    plan = { ...plan, gainsDb: plan.gainsDb.map((db) => (db === null ? null : db + off)) };
  }
}
