import { bisectLeft, range } from 'd3-array';
import { scaleLinear } from 'd3-scale';
import { area, line } from 'd3-shape';

/** What part of time is shown: where the left edge stands, and how much a pixel holds. */
export interface LaneView {
  readonly startMs: number;
  readonly msPerPx: number;
}

interface LaneMark {
  readonly key: string;
  readonly atMs: number;
  readonly used: boolean;
}

/** Extremes of a sound in even bins. */
export interface LanePeaks {
  readonly binMs: number;
  readonly low: Float32Array;
  readonly high: Float32Array;
}

/** One lane: sound as extremes of even bins, or brightness as frames with their times. Times are the take's own. */
export interface LaneData {
  readonly key: string;
  readonly label: string;
  readonly note: string;
  readonly kind: 'sound' | 'picture';
  readonly marks: readonly LaneMark[];
  /** Position of the take's own zero on the common axis. */
  readonly shiftMs: number;
  /** The finest first; coarser ones of the same sound after it. */
  readonly peaks?: readonly LanePeaks[];
  /** The highest magnitude of all of it. */
  readonly reach?: number;
  readonly pieces?: readonly { readonly timesMs: Float64Array; readonly mean: Float32Array }[];
}

export const LANE_HEIGHT = 84;

export const pxOf = (view: LaneView, ms: number): number => (ms - view.startMs) / view.msPerPx;
export const msOf = (view: LaneView, px: number): number => view.startMs + px * view.msPerPx;

/** Zooms by a factor about a place that stays where it is; held between a tenth of a millisecond and the whole. */
export function zoomAbout(view: LaneView, aboutPx: number, factor: number, widthPx: number, wholeMs: number): LaneView {
  const msPerPx = Math.min(Math.max(view.msPerPx * factor, 0.1), Math.max(0.1, (wholeMs * 1.02) / widthPx));
  return heldWithin({ startMs: msOf(view, aboutPx) - aboutPx * msPerPx, msPerPx }, widthPx, wholeMs);
}

/** A view never leaves the take altogether. */
export function heldWithin(view: LaneView, widthPx: number, wholeMs: number): LaneView {
  const shown = widthPx * view.msPerPx;
  const least = Math.min(0, wholeMs - shown) - 0.01 * shown;
  const most = Math.max(0, wholeMs - shown) + 0.01 * shown;
  return { ...view, startMs: Math.min(most, Math.max(least, view.startMs)) };
}

export const wholeView = (widthPx: number, wholeMs: number): LaneView => ({
  startMs: 0,
  msPerPx: Math.max(0.1, wholeMs / widthPx),
});

/** The waveform as one closed path: the highest of each column from left to right, the lowest back. */
export function wavePath(lane: LaneData, view: LaneView, widthPx: number): string {
  if (!lane.peaks) return '';
  // The coarsest that still has more than one bin a pixel: a long take costs no more to draw than a short one.
  const { binMs, low, high } = lane.peaks.findLast((p) => p.binMs < view.msPerPx / 2) ?? lane.peaks[0]!;
  const reach = Math.max(MIN_REACH, lane.reach ?? 0);
  const y = scaleLinear()
    .domain([-reach, reach])
    .range([LANE_HEIGHT - 4, 4]);
  // A line of nothing keeps silence in sight.
  const least = 0.004 * reach;
  const columns = range(0, widthPx).map((px) => {
    const from = Math.floor((msOf(view, px) - lane.shiftMs) / binMs);
    const to = Math.max(from + 1, Math.ceil((msOf(view, px + 1) - lane.shiftMs) / binMs));
    let [bottom, top] = [0, 0];
    for (let b = Math.max(0, from); b < Math.min(low.length, to); b++) {
      if (low[b]! < bottom) bottom = low[b]!;
      if (high[b]! > top) top = high[b]!;
    }
    return { px, top: y(top + least), bottom: y(bottom - least) };
  });
  const shape = area<(typeof columns)[number]>()
    .x((c) => c.px)
    .y0((c) => c.bottom)
    .y1((c) => c.top)
    .digits(1);
  return shape(columns) ?? '';
}

/** Silence is not turned up to fill the lane. */
const MIN_REACH = 1e-4;

/** Brightness as steps, one a frame, broken where the picture was not looked at. */
export function brightnessPath(lane: LaneData, view: LaneView, widthPx: number): string {
  if (!lane.pieces) return '';
  let [least, most] = [255, 0];
  for (const { mean } of lane.pieces) {
    for (const v of mean) {
      least = Math.min(least, v);
      most = Math.max(most, v);
    }
  }
  const y = scaleLinear()
    .domain([least, Math.max(most, least + 1)])
    .range([LANE_HEIGHT - 8, 8]);
  const shape = line().digits(1);
  return lane.pieces.map((piece) => shape(steps(piece, lane.shiftMs, view, widthPx, y)) ?? '').join('');
}

/** The corners of the steps in view; where a pixel holds many frames, what they span. */
function steps(
  { timesMs, mean }: NonNullable<LaneData['pieces']>[number],
  shiftMs: number,
  view: LaneView,
  widthPx: number,
  y: (v: number) => number,
): [number, number][] {
  const usualMs = timesMs.length > 1 ? (timesMs.at(-1)! - timesMs[0]!) / (timesMs.length - 1) : 0;
  const first = Math.max(0, bisectLeft(timesMs, view.startMs - shiftMs) - 1);
  const last = bisectLeft(timesMs, msOf(view, widthPx) - shiftMs);
  const corners: [number, number][] = [];
  for (let f = first; f < last; ) {
    const px = pxOf(view, timesMs[f]! + shiftMs);
    let [low, high, end] = [mean[f]!, mean[f]!, f + 1];
    for (; end < last && pxOf(view, timesMs[end]! + shiftMs) < px + 1; end++) {
      low = Math.min(low, mean[end]!);
      high = Math.max(high, mean[end]!);
    }
    const nextPx = pxOf(view, (timesMs[end] ?? timesMs[end - 1]! + usualMs) + shiftMs);
    if (low < high) corners.push([px, y(mean[f]!)], [px, y(low)], [px, y(high)], [nextPx, y(mean[end - 1]!)]);
    else corners.push([px, y(low)], [nextPx, y(low)]);
    f = end;
  }
  return corners;
}

/** Stretches of a picture lane that were not looked at, in pixels. */
export function unseen(
  lane: LaneData,
  view: LaneView,
  widthPx: number,
  durationMs: number,
): { fromPx: number; toPx: number }[] {
  if (!lane.pieces) return [];
  const edges = lane.pieces.filter((p) => p.timesMs.length > 0).map((p) => [p.timesMs[0]!, p.timesMs.at(-1)!] as const);
  const gaps: [number, number][] = [];
  let at = 0;
  for (const [from, to] of edges) {
    if (from - at > 200) gaps.push([at, from]);
    at = to;
  }
  if (durationMs - at > 200) gaps.push([at, durationMs]);
  return gaps
    .map(([from, to]) => ({
      fromPx: Math.max(0, pxOf(view, from + lane.shiftMs)),
      toPx: Math.min(widthPx, pxOf(view, to + lane.shiftMs)),
    }))
    .filter((g) => g.toPx > g.fromPx);
}

/** Room for the time at a tick. */
const TICK_PX = 90;

/** Ticks of the common time axis. */
export function timeTicks(view: LaneView, widthPx: number): { px: number; ms: number; decimals: number }[] {
  const endMs = msOf(view, widthPx);
  const ticks = scaleLinear()
    .domain([view.startMs, endMs])
    .ticks(Math.max(2, Math.min(8, widthPx / TICK_PX)));
  const step = ticks.length > 1 ? ticks[1]! - ticks[0]! : 1000;
  const decimals = step >= 1000 ? 0 : step >= 100 ? 1 : step >= 10 ? 2 : 3;
  return ticks.map((ms) => ({ px: pxOf(view, ms), ms, decimals }));
}
