import type { ReactNode } from 'react';
import { formatNumber } from '#web/shared/parts/index.ts';
import { type CurveLayout, SMALL } from './response.ts';

/** A small chart of one curve, decibels up. */
export function SmallCurve({ layout, label, children }: { layout: CurveLayout; label: string; children?: ReactNode }) {
  const bottom = SMALL.height - SMALL.bottom;
  return (
    <svg width={SMALL.width} height={SMALL.height} role="img" aria-label={label}>
      {layout.yTicks.map(({ db, px }) => (
        <g key={db}>
          <line className="rule" x1={SMALL.left} x2={SMALL.width} y1={px} y2={px} />
          <text x={SMALL.left - 4} y={px + 4} className="ink2 small" textAnchor="end">
            {formatNumber(db)}
          </text>
        </g>
      ))}
      {layout.xTicks.map(({ label: text, px }) => (
        <g key={text}>
          <line className="rule" x1={px} x2={px} y1={4} y2={bottom} />
          <text x={px} y={SMALL.height - 4} className="ink2 small" textAnchor="middle">
            {text}
          </text>
        </g>
      ))}
      <path d={layout.path} fill="none" stroke="var(--ink)" strokeWidth={2.2} />
      {children}
    </svg>
  );
}
