import { scaleLinear } from 'd3-scale';
import type { Jump } from '#core/audio/measure/index.ts';

/** A reading of an offset; one that is not said to disagree agrees. */
export interface DriftPoint {
  readonly atMs: number;
  readonly offsetMs: number;
  readonly agrees?: boolean;
}

export const DRIFT_HEIGHT = 130;
const LEFT_PX = 52;
const BOTTOM_PX = 20;
/** Minimum span of the axis, ms, so that scatter of hundredths isn't magnified. */
const MIN_SPAN_MS = 0.4;
const MARGIN = 1.25;

export interface DriftLayout {
  readonly points: readonly {
    readonly px: number;
    readonly py: number;
    readonly agrees: boolean;
    readonly atMs: number;
  }[];
  /** The line from jump to jump. */
  readonly lines: readonly { readonly x1: number; readonly y1: number; readonly x2: number; readonly y2: number }[];
  readonly yTicks: readonly { readonly ms: number; readonly px: number }[];
  readonly xTicks: readonly { readonly ms: number; readonly px: number }[];
  /** Readings outside the axis, drawn at its edge. */
  readonly outside: number;
}

/** Readings of an offset along time, against the offset at the start: a clock that drifts is a line that leans. */
export function layoutDrift(
  points: readonly DriftPoint[],
  { startMs, ppm, jumps = [] }: { startMs: number; ppm: number; jumps?: readonly Jump[] },
  widthPx: number,
): DriftLayout {
  const first = points[0]?.atMs ?? 0;
  const last = points.at(-1)?.atMs ?? 1;
  const agrees = (p: DriftPoint) => p.agrees !== false;
  const lineAt = (ms: number, steps: number) =>
    ppm * 1e-6 * ms + jumps.slice(0, steps).reduce((sum, j) => sum + j.stepMs, 0);
  const shown = [
    ...points.filter(agrees).map((p) => p.offsetMs - startMs),
    lineAt(first, 0),
    lineAt(last, jumps.length),
  ];
  const [low, high] = [Math.min(...shown), Math.max(...shown)];
  const middle = (low + high) / 2;
  const half = Math.max(MIN_SPAN_MS / 2, ((high - low) / 2) * MARGIN);
  const y = scaleLinear()
    .domain([middle - half, middle + half])
    .range([DRIFT_HEIGHT - BOTTOM_PX - 4, 6])
    .clamp(true);
  const x = scaleLinear()
    .domain([first, Math.max(first + 1, last)])
    .range([LEFT_PX + 6, widthPx - 10]);
  return {
    points: points.map((p) => ({ px: x(p.atMs), py: y(p.offsetMs - startMs), agrees: agrees(p), atMs: p.atMs })),
    lines: [first, ...jumps.map((j) => j.atMs)].map((from, k) => {
      const to = jumps[k]?.atMs ?? last;
      return { x1: x(from), y1: y(lineAt(from, k)), x2: x(to), y2: y(lineAt(to, k)) };
    }),
    yTicks: y.ticks(4).map((ms) => ({ ms, px: y(ms) })),
    xTicks: x.ticks(6).map((ms) => ({ ms, px: x(ms) })),
    outside: points.filter((p) => Math.abs(p.offsetMs - startMs - middle) > half).length,
  };
}
