import { range } from 'd3-array';
import { scaleLinear, scaleLog } from 'd3-scale';
import { line } from 'd3-shape';

/** What a chart of frequency or level is drawn from: its scales, ticks, and the curve as a path. */
export interface CurveLayout {
  readonly path: string;
  readonly xTicks: readonly { readonly label: string; readonly px: number }[];
  readonly yTicks: readonly { readonly db: number; readonly px: number }[];
  readonly zeroPx: number;
}

export const SMALL = { width: 300, height: 150, left: 34, bottom: 18 } as const;
const HZ = { low: 30, high: 16_000 } as const;
const HZ_TICKS = [50, 100, 200, 500, 1000, 2000, 5000, 10_000];
const DB_TICKS = [-18, -12, -6, 0, 6];

const x = scaleLog()
  .domain([HZ.low, HZ.high])
  .range([SMALL.left, SMALL.width - 4]);

/** Decibels over frequency, a point a pixel. */
export function layoutResponse(dbAt: (hz: number) => number, sampleRateHz: number): CurveLayout {
  const y = scaleLinear()
    .domain([-20, 9])
    .range([SMALL.height - SMALL.bottom, 4])
    .clamp(true);
  const points = range(SMALL.left, SMALL.width - 3)
    .map((px) => ({ px, hz: x.invert(px) }))
    .filter(({ hz }) => hz < sampleRateHz / 2);
  return {
    path:
      line<(typeof points)[number]>()
        .x((p) => p.px)
        .y((p) => y(dbAt(p.hz)))
        .digits(1)(points) ?? '',
    xTicks: HZ_TICKS.map((hz) => ({ label: hz >= 1000 ? `${hz / 1000}k` : `${hz}`, px: x(hz) })),
    yTicks: DB_TICKS.map((db) => ({ db, px: y(db) })),
    zeroPx: y(0),
  };
}

const LEVEL = { low: -60, high: 0 } as const;
const LEVEL_TICKS = [-50, -40, -30, -20, -10];

/** Output level over input level, dB; with the typical and the loudest peaks of the voice. */
export function layoutStatic(
  outDb: (inDb: number) => number,
  marksDbfs: readonly number[],
): CurveLayout & { readonly marks: readonly { readonly px: number; readonly py: number }[] } {
  const across = scaleLinear()
    .domain([LEVEL.low, LEVEL.high])
    .range([SMALL.left, SMALL.width - 4])
    .clamp(true);
  const y = scaleLinear()
    .domain([LEVEL.low, LEVEL.high])
    .range([SMALL.height - SMALL.bottom, 4])
    .clamp(true);
  const points = range(LEVEL.low, LEVEL.high + 0.5, 0.5).map((db) => [across(db), y(outDb(db))] as [number, number]);
  return {
    path: line().digits(1)(points) ?? '',
    xTicks: LEVEL_TICKS.map((db) => ({ label: `−${-db}`, px: across(db) })),
    yTicks: LEVEL_TICKS.map((db) => ({ db, px: y(db) })),
    zeroPx: y(LEVEL.high),
    marks: marksDbfs.map((db) => ({ px: across(db), py: y(outDb(db)) })),
  };
}
