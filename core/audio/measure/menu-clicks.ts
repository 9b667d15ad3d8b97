import type { FftOf, Recording } from '#core/audio/samples/index.ts';
import { bestLag } from './correlate.ts';
import { HOP_S, type Rises, risesOf } from './rises.ts';
import { readWindow } from './windows.ts';

/** Brightness of a region of the picture along time: `cells` values a frame. */
export interface RegionTrace {
  readonly timesMs: Float64Array;
  readonly cells: number;
  readonly values: Float32Array;
}

/** A change of the region, and the click that goes with it; null where none was heard. */
export interface MenuClick {
  readonly changeMs: number;
  readonly clickMs: number | null;
}

/** A change exceeds the region's usual fluctuation by this factor, and this much at least (of 255, mean). */
const CHANGE_OVER = 6;
const MIN_CHANGE = 1.5;
/** A menu moves on no faster. */
const APART_MS = 250;

/** Instants at which the region changes: the first frame that shows something else. */
export function changesOf({ timesMs, cells, values }: RegionTrace): number[] {
  const change = new Float32Array(timesMs.length);
  for (let f = 1; f < timesMs.length; f++) {
    let sum = 0;
    for (let c = 0; c < cells; c++) sum += Math.abs(values[f * cells + c]! - values[(f - 1) * cells + c]!);
    change[f] = sum / cells;
  }
  const sorted = change.slice().sort();
  const usual = sorted[Math.floor(sorted.length * 0.7)] ?? 0;
  const least = Math.max(MIN_CHANGE, CHANGE_OVER * usual);
  const found: number[] = [];
  for (let f = 1; f < timesMs.length; f++)
    if (change[f]! >= least && timesMs[f]! - (found.at(-1) ?? Number.NEGATIVE_INFINITY) > APART_MS)
      found.push(timesMs[f]!);
  return found;
}

/** How early and how late a sound may be relative to its picture. */
const EARLIEST_S = -0.5;
const LATEST_S = 1.5;
/** Minimum number of changes to tell their clicks from other sounds. */
const FEWEST = 4;
/** Minimum fraction of changes whose click is like the others. */
const MIN_SHARE = 0.65;
/** Prominence of the common lag. */
const MIN_Z = 4;
const CLICK_S = 0.12;
const MIN_LIKE = 6;
const BAND = { lowHz: 200, highHz: 12_000 };

/**
 * The click that goes with each change of a menu: the lag at which most changes are followed by a rise in the sound,
 * then each click where it is most like the others. What else sounds does not keep time with the menu.
 * @returns clicks of null where the sound does not keep time with the changes at all
 */
export async function clicksFor(
  fftOf: FftOf,
  recording: Recording,
  changesMs: readonly number[],
  frameMs: number,
): Promise<MenuClick[]> {
  const none = changesMs.map((changeMs) => ({ changeMs, clickMs: null }));
  if (changesMs.length < FEWEST) return none;
  const lagS = commonLag(await risesOf(fftOf, recording), changesMs, frameMs / 1000);
  if (lagS === null) return none;
  const rate = Math.min(48_000, recording.sampleRateHz);
  const reachS = frameMs / 1000 + 3 * HOP_S;
  const count = Math.ceil((CLICK_S + 2 * reachS) * rate);
  const firstS = changesMs.map((ms) => Math.round((ms / 1000 + lagS - reachS - CLICK_S / 4) * rate) / rate);
  const parts = await Promise.all(firstS.map((at) => readWindow(recording, at, count, rate)));
  // The one that most others resemble represents the click.
  let best: { lags: (number | null)[]; like: number; of: number } = { lags: [], like: -1, of: 0 };
  for (const [of, own] of parts.entries()) {
    const ref = own.subarray(Math.floor(reachS * rate), Math.floor((reachS + CLICK_S) * rate));
    const peaks = parts.map((other) =>
      bestLag(fftOf, { ref, other, sampleRateHz: rate, band: BAND, lowestLag: 0, highestLag: count - ref.length }),
    );
    const lags = peaks.map((p) => (p && p.z >= MIN_LIKE ? p.lag : null));
    const like = lags.filter((l) => l !== null).length;
    if (like > best.like) best = { lags, like, of };
  }
  if (best.like < Math.max(FEWEST, MIN_SHARE * changesMs.length)) return none;
  const onset = onsetOf(averaged(parts, best.lags, Math.floor(CLICK_S * rate)), rate);
  return changesMs.map((changeMs, i) => {
    const lag = best.lags[i];
    return { changeMs, clickMs: lag === null || lag === undefined ? null : 1000 * (firstS[i]! + (lag + onset) / rate) };
  });
}

/** The lag at which onsets of the sound keep time with the changes; null where none is prominent. */
function commonLag({ hops, bands }: Rises, changesMs: readonly number[], frameS: number): number | null {
  const rise = new Float64Array(hops + 1);
  for (let h = 0; h < hops; h++) {
    let sum = 0;
    for (const band of bands) sum += Math.max(0, band[h]!);
    rise[h + 1] = rise[h]! + sum;
  }
  // A change is seen up to a frame after it happened: any rise within one counts.
  const span = Math.max(1, Math.round(frameS / HOP_S));
  const scores: number[] = [];
  const first = Math.round(EARLIEST_S / HOP_S);
  for (let lag = first; lag <= LATEST_S / HOP_S; lag++) {
    let score = 0;
    for (const ms of changesMs) {
      const to = Math.round(ms / 1000 / HOP_S) + lag;
      const from = Math.max(0, Math.min(hops, to - span));
      score += Math.sqrt(Math.max(0, rise[Math.max(0, Math.min(hops, to + 1))]! - rise[from]!));
    }
    scores.push(score);
  }
  const sorted = [...scores].sort((a, b) => a - b);
  const usual = sorted[sorted.length >> 1]!;
  const spread = 1.4826 * ([...scores].map((s) => Math.abs(s - usual)).sort((a, b) => a - b)[scores.length >> 1] ?? 0);
  let at = 0;
  for (let i = 1; i < scores.length; i++) if (scores[i]! > scores[at]!) at = i;
  if (spread === 0 || (scores[at]! - usual) / spread < MIN_Z) return null;
  return (first + at - span / 2) * HOP_S;
}

function averaged(parts: readonly Float32Array[], lags: readonly (number | null)[], count: number): Float32Array {
  const out = new Float32Array(count);
  lags.forEach((lag, k) => {
    if (lag === null) return;
    const from = Math.round(lag);
    for (let i = 0; i < count; i++) out[i]! += parts[k]![from + i] ?? 0;
  });
  return out;
}

const SMOOTH_S = 0.00025;
/** The onset is where the burst's energy first reaches this share of its height. */
const ONSET_SHARE = 0.12;

/** Where the click of the average begins, samples. */
function onsetOf(x: Float32Array, rate: number): number {
  const span = Math.max(1, Math.round(SMOOTH_S * rate));
  const power = new Float32Array(x.length);
  let sum = 0;
  for (let i = 1; i < x.length; i++) {
    const edge = (j: number) => (j > 0 ? (x[j]! - x[j - 1]!) ** 2 : 0);
    sum += edge(i) - edge(i - span);
    power[i] = Math.max(0, sum);
  }
  const most = power.reduce((a, b) => Math.max(a, b), 0);
  const at = power.findIndex((p) => p >= ONSET_SHARE * most);
  return Math.max(0, at - span / 2);
}
