import { extent } from 'd3-array';
import { scaleLinear, scalePoint } from 'd3-scale';
import type { Series } from '#core/live/run/index.ts';

interface ControlMark {
  readonly px: number;
  readonly py: number;
  /** Half of what it was measured with, up and down. */
  readonly spreadPx: number;
  readonly moved: boolean;
  readonly inBaseline: boolean;
  readonly at: string;
  readonly value: number;
}
export interface ControlLayout {
  readonly marks: readonly ControlMark[];
  readonly meanPx: number | null;
  /** Two standard deviations to both sides. */
  readonly bandPx: { readonly from: number; readonly to: number } | null;
  readonly ticks: readonly { readonly py: number; readonly value: number }[];
}

const ROOM = 0.12;
const TICKS = 4;
const BAND_SDS = 2;

/** One figure day by day, days at even distances. */
export function layoutControl({ points, chart }: Series, widthPx: number, heightPx: number): ControlLayout {
  const band = chart ? [chart.mean - BAND_SDS * chart.sd, chart.mean + BAND_SDS * chart.sd] : [];
  const [low = 0, high = 1] = extent([...points.flatMap((p) => [p.value - p.sd, p.value + p.sd]), ...band]);
  const room = Math.max((high - low) * ROOM, 1e-6 + Math.abs(high) * 1e-3);
  const y = scaleLinear([low - room, high + room], [heightPx, 0]);
  const x = scalePoint(
    points.map((_, i) => i),
    [0, widthPx],
  ).padding(0.5);
  return {
    marks: points.map((p, i) => ({
      px: x(i)!,
      py: y(p.value),
      spreadPx: Math.abs(y(0) - y(p.sd)),
      moved: Boolean(chart?.points[i]?.moved),
      inBaseline: chart?.points[i]?.inBaseline ?? false,
      at: p.at,
      value: p.value,
    })),
    meanPx: chart ? y(chart.mean) : null,
    bandPx: chart ? { from: y(band[1]!), to: y(band[0]!) } : null,
    ticks: y.ticks(TICKS).map((value) => ({ py: y(value), value })),
  };
}
