import type { Rig } from '#core/model/rig/index.ts';
import { sourceIn } from '#core/model/rig/index.ts';
import { formatOffset, hueOf } from '#web/shared/parts/index.ts';
import type { SmallArrivals } from './small-arrivals.ts';

const ROW = 20;
const LEFT = 26;
const RIGHT = 86;

/** Pixels that a small chart of this width has for its scale. */
export const smallPlotPx = (widthPx: number): number => Math.max(80, widthPx - LEFT - RIGHT);

/** One destination: each source's audio relative to its video; hollow where it was before. */
export function SmallArrivalsChart({
  laid,
  rig,
  widthPx,
  label,
}: {
  laid: SmallArrivals;
  rig: Rig;
  widthPx: number;
  label: string;
}) {
  const height = ROW * laid.rows.length + 6;
  const { from, to } = laid.tolerancePx;
  return (
    <svg width={widthPx} height={height} role="img" aria-label={label}>
      <g transform={`translate(${LEFT} 0)`}>
        <rect x={from} width={to - from} y={0} height={height} fill="var(--good)" fillOpacity={0.16} />
        <line x1={laid.zeroPx} x2={laid.zeroPx} y1={0} y2={height} stroke="var(--ink)" strokeWidth={1.4} />
        {laid.rows.map((row, i) => {
          const source = sourceIn(rig, row.sourceId);
          const y = ROW * i + ROW / 2 + 3;
          return (
            <g key={row.sourceId}>
              <text x={-LEFT + 4} y={y + 4} className="small strong" style={{ fill: hueOf(source) }}>
                {source.letter}
              </text>
              {row.beforePx !== null && (
                <>
                  <line x1={row.beforePx} x2={row.atPx} y1={y} y2={y} stroke="var(--rule2)" strokeDasharray="2 3" />
                  <circle cx={row.beforePx} cy={y} r={4} fill="var(--paper)" stroke={hueOf(source)} strokeWidth={1.4} />
                </>
              )}
              <line
                x1={row.lowPx}
                x2={row.highPx}
                y1={y}
                y2={y}
                stroke={hueOf(source)}
                strokeWidth={2}
                strokeOpacity={0.5}
              />
              {row.met ? (
                <circle cx={row.atPx} cy={y} r={4.5} fill={hueOf(source)} />
              ) : (
                <path d={`M${row.atPx - 6} ${y + 5}h12l-6 -11z`} fill="var(--fix)" />
              )}
              <text x={smallPlotPx(widthPx) + 6} y={y + 4} className={`small ${row.met ? 'ink2' : 'fix'}`}>
                {formatOffset(row.offsetMs)}
              </text>
            </g>
          );
        })}
      </g>
    </svg>
  );
}
