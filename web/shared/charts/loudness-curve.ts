import { scaleLinear } from 'd3-scale';
import { line } from 'd3-shape';
import { type LaneView, pxOf } from './lane-layout.ts';

/** Loudness along time: values at even steps, the first one at `firstMs`. */
export interface Curve {
  readonly firstMs: number;
  readonly stepMs: number;
  readonly lufs: Float64Array;
}

export const CURVE_HEIGHT = 96;
const SPAN = { high: 0, low: -60 } as const;
const TICKS = [-10, -20, -30, -40, -50];

export const yOfLufs = scaleLinear()
  .domain([SPAN.low, SPAN.high])
  .range([CURVE_HEIGHT - 2, 2])
  .clamp(true);

export const loudnessTicks = TICKS.map((lufs) => ({ lufs, px: yOfLufs(lufs) }));

/** The curve in view, broken where it is silent; where a pixel holds many values, the loudest of them. */
export function curvePath({ firstMs, stepMs, lufs }: Curve, view: LaneView, widthPx: number, shiftMs: number): string {
  const from = Math.max(0, Math.floor((view.startMs - shiftMs - firstMs) / stepMs) - 1);
  const until = Math.min(
    lufs.length,
    Math.ceil((view.startMs + widthPx * view.msPerPx - shiftMs - firstMs) / stepMs) + 2,
  );
  const per = Math.max(1, Math.floor(view.msPerPx / stepMs));
  const points: { px: number; db: number }[] = [];
  for (let i = from; i < until; i += per) {
    let db = Number.NEGATIVE_INFINITY;
    for (let k = i; k < Math.min(until, i + per); k++) db = Math.max(db, lufs[k]!);
    points.push({ px: pxOf(view, firstMs + i * stepMs + shiftMs), db });
  }
  return (
    line<(typeof points)[number]>()
      .defined((p) => p.db > SPAN.low)
      .x((p) => p.px)
      .y((p) => yOfLufs(p.db))
      .digits(1)(points) ?? ''
  );
}
