import { useMemo } from 'react';
import type { Jump } from '#core/audio/measure/index.ts';
import { formatClock, formatNumber, formatSigned } from '#web/shared/parts/index.ts';
import { charts as say } from '#words/index.ts';
import { LabelsBelow, ValueRules } from './Axes.tsx';
import { DRIFT_HEIGHT, type DriftPoint, layoutDrift } from './drift.ts';

interface Props {
  readonly points: readonly DriftPoint[];
  readonly startMs: number;
  readonly ppm: number;
  readonly jumps: readonly Jump[];
  readonly widthPx: number;
}

/** How two recordings move apart along their time: readings as dots, hollow where they do not agree, and the line through them. */
export function DriftChart({ points, startMs, ppm, jumps, widthPx }: Props) {
  const laid = useMemo(
    () => layoutDrift(points, { startMs, ppm, jumps }, widthPx),
    [points, startMs, ppm, jumps, widthPx],
  );
  const decimals = laid.yTicks.some((t) => Math.abs(t.ms % 1) > 1e-9) ? 1 : 0;
  return (
    <svg width={widthPx} height={DRIFT_HEIGHT} role="img" aria-label={say.offsetOverTimeMs()}>
      <ValueRules
        ticks={laid.yTicks.map(({ ms, px }) => ({ px, text: say.ms({ ms: formatSigned(ms, decimals) }) }))}
        from={52}
        to={widthPx}
      />
      <LabelsBelow ticks={laid.xTicks.map(({ ms, px }) => ({ px, text: formatClock(ms) }))} y={DRIFT_HEIGHT - 4} />
      {laid.lines.map((line) => (
        <line key={line.x1} {...line} stroke="var(--ink)" strokeWidth={1.6} />
      ))}
      {laid.points.map((p) => (
        <circle
          key={p.atMs}
          cx={p.px}
          cy={p.py}
          r={3.6}
          fill={p.agrees ? 'var(--ink)' : 'var(--paper)'}
          stroke="var(--ink)"
          strokeWidth={1.3}
        />
      ))}
      {laid.outside > 0 && (
        <text x={widthPx - 6} y={16} className="ink2 small" textAnchor="end">
          {say.furtherOff({ outside: formatNumber(laid.outside) })}
        </text>
      )}
    </svg>
  );
}
