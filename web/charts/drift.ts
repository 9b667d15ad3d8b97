import { scaleLinear } from 'd3-scale';
import type { OffsetPoint } from '#core/measure/index.ts';

export const DRIFT_HEIGHT = 130;
const LEFT_PX = 52;
const BOTTOM_PX = 20;
/** So much is shown at least, ms: readings that scatter by hundredths are not blown up. */
const LEAST_SPAN_MS = 0.4;
const MARGIN = 1.25;

export interface DriftLayout {
  readonly points: readonly {
    readonly px: number;
    readonly py: number;
    readonly agrees: boolean;
    readonly atMs: number;
  }[];
  readonly line: { readonly x1: number; readonly y1: number; readonly x2: number; readonly y2: number };
  readonly yTicks: readonly { readonly ms: number; readonly px: number }[];
  readonly xTicks: readonly { readonly ms: number; readonly px: number }[];
  /** Readings that lie outside of what is shown, at its edge. */
  readonly outside: number;
}

/** Readings of an offset along time, against the offset at the start: a clock that drifts is a line that leans. */
export function layoutDrift(
  points: readonly OffsetPoint[],
  { startMs, ppm }: { startMs: number; ppm: number },
  widthPx: number,
): DriftLayout {
  const first = points[0]?.atMs ?? 0;
  const last = points.at(-1)?.atMs ?? 1;
  const lineAt = (ms: number) => ppm * 1e-6 * ms;
  const shown = [...points.filter((p) => p.agrees).map((p) => p.offsetMs - startMs), lineAt(first), lineAt(last)];
  const [low, high] = [Math.min(...shown), Math.max(...shown)];
  const middle = (low + high) / 2;
  const half = Math.max(LEAST_SPAN_MS / 2, ((high - low) / 2) * MARGIN);
  const y = scaleLinear()
    .domain([middle - half, middle + half])
    .range([DRIFT_HEIGHT - BOTTOM_PX - 4, 6])
    .clamp(true);
  const x = scaleLinear()
    .domain([first, Math.max(first + 1, last)])
    .range([LEFT_PX + 6, widthPx - 10]);
  return {
    points: points.map((p) => ({ px: x(p.atMs), py: y(p.offsetMs - startMs), agrees: p.agrees, atMs: p.atMs })),
    line: { x1: x(first), y1: y(lineAt(first)), x2: x(last), y2: y(lineAt(last)) },
    yTicks: y.ticks(4).map((ms) => ({ ms, px: y(ms) })),
    xTicks: x.ticks(6).map((ms) => ({ ms, px: x(ms) })),
    outside: points.filter((p) => Math.abs(p.offsetMs - startMs - middle) > half).length,
  };
}
