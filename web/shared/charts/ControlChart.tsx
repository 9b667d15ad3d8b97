import { useMemo } from 'react';
import type { Series } from '#core/live/run/index.ts';
import { decimalsFor, formatDate, formatNumber } from '#web/shared/parts/index.ts';
import { charts as say } from '#words/index.ts';
import { ValueRules } from './Axes.tsx';
import { layoutControl } from './control.ts';

const HEIGHT = 130;
const LEFT = 54;
const BOTTOM = 22;
const TOP = 8;
const MARK = 5;

/** One figure day by day: each with its spread, the band of the baseline, and rings round what has moved by more than chance. */
export function ControlChart({ series, widthPx }: { series: Series; widthPx: number }) {
  const plot = Math.max(160, widthPx - LEFT - 12);
  const layout = useMemo(() => layoutControl(series, plot, HEIGHT), [series, plot]);
  const { marks, bandPx, meanPx, ticks } = layout;
  const decimals = decimalsFor(series.chart?.sd ?? 1);
  const [first, last] = [marks[0], marks.at(-1)];
  return (
    <svg width={widthPx} height={TOP + HEIGHT + BOTTOM} role="img" aria-label={sayChart(series)}>
      <g transform={`translate(${LEFT},${TOP})`}>
        {bandPx && (
          <rect className="control-band" x={0} y={bandPx.from} width={plot} height={bandPx.to - bandPx.from} />
        )}
        {meanPx !== null && <line className="limit" x1={0} x2={plot} y1={meanPx} y2={meanPx} />}
        <ValueRules
          ticks={ticks.map(({ py, value }) => ({ px: py, text: formatNumber(value, decimals) }))}
          from={0}
          to={plot}
        />
        <polyline className="trace control-trace" points={marks.map((m) => `${m.px},${m.py}`).join(' ')} />
        {marks.map((m) => (
          <g key={`${m.at} ${m.px}`}>
            <title>
              {formatDate(m.at)}: {formatNumber(m.value, decimals)} {series.unit}
            </title>
            <line className="axis" x1={m.px} x2={m.px} y1={m.py - m.spreadPx} y2={m.py + m.spreadPx} />
            {m.moved && <circle className="control-ring" cx={m.px} cy={m.py} r={MARK + 4} />}
            <circle
              className={m.inBaseline ? 'control-old' : 'control-new'}
              cx={m.px}
              cy={m.py}
              r={m.inBaseline ? MARK - 1.5 : MARK}
            />
          </g>
        ))}
        <line className="axis" x1={0} x2={plot} y1={HEIGHT} y2={HEIGHT} />
        {first && (
          <text className="ink2" x={0} y={HEIGHT + 17}>
            {formatDate(first.at)}
          </text>
        )}
        {last && last !== first && (
          <text className="ink2" x={plot} y={HEIGHT + 17} textAnchor="end">
            {formatDate(last.at)}
          </text>
        )}
      </g>
    </svg>
  );
}

/** What the chart shows, in a sentence. */
export function sayChart({ label, unit, points, chart, moved }: Series): string {
  const last = points.at(-1)!;
  const decimals = decimalsFor(chart?.sd ?? 1);
  const now = say.inLastSession({ label, value: formatNumber(last.value, decimals), unit });
  if (!chart) return say.neededBeforeChangesCan({ now, points: points.length });
  const usual = say.normal({
    mean: formatNumber(chart.mean, decimals),
    sd: formatNumber(chart.sd, decimals),
    provisional: chart.provisional ? say.provisional() : '',
  });
  return `${now}; ${usual}; ${moved ? say.hasChangedByMore({ moved }) : say.noMoreThanChance()}.`;
}
