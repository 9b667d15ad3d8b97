import { range } from 'd3-array';
import { scaleLinear } from 'd3-scale';
import { line } from 'd3-shape';
import { type CurveLayout, SMALL } from './response.ts';

const LOWEST_DB = -60;
const DB_TICKS = [-50, -40, -30, -20, -10, 0];
/** Around a peak, ms: what is later is shown up to where it ends, or so far at least. */
const BEFORE_MS = 20;
const LEAST_AFTER_MS = 60;
const SHOWN_DB = -40;
const TICKS = 5;

/**
 * How something arrived, in dB under its peak.
 * @param levelsDb  one value a ms
 * @param firstMs  time of the first one
 */
export function layoutShape(levelsDb: readonly number[], firstMs: number, widthPx: number): CurveLayout {
  const peak = levelsDb.indexOf(Math.max(...levelsDb));
  const shown = levelsDb.flatMap((db, i) => (db > SHOWN_DB ? [i] : []));
  const from = Math.max(0, Math.min(peak, shown[0] ?? peak) - BEFORE_MS);
  const until = Math.min(levelsDb.length - 1, Math.max(peak + LEAST_AFTER_MS, (shown.at(-1) ?? peak) + BEFORE_MS));
  const x = scaleLinear()
    .domain([from + firstMs, until + firstMs])
    .range([SMALL.left, widthPx - 4]);
  const y = scaleLinear()
    .domain([LOWEST_DB, 3])
    .range([SMALL.height - SMALL.bottom, 4])
    .clamp(true);
  return {
    path:
      line<number>()
        .x((i) => x(i + firstMs))
        .y((i) => y(levelsDb[i]!))
        .digits(1)(range(from, until + 1)) ?? '',
    xTicks: x.ticks(TICKS).map((ms) => ({ label: `${ms}`, px: x(ms) })),
    yTicks: DB_TICKS.map((db) => ({ db, px: y(db) })),
    zeroPx: y(0),
  };
}
