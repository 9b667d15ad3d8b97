import type { ReactNode } from 'react';
import { formatNumber } from '#web/shared/parts/index.ts';
import { LabelsBelow, ValueRules } from './Axes.tsx';
import { type CurveLayout, SMALL } from './response.ts';

interface Props {
  readonly layout: CurveLayout;
  readonly label: string;
  readonly width?: number;
  readonly children?: ReactNode;
}

/** A small chart of one curve, decibels up. */
export function SmallCurve({ layout, label, width = SMALL.width, children }: Props) {
  const bottom = SMALL.height - SMALL.bottom;
  return (
    <svg width={width} height={SMALL.height} role="img" aria-label={label}>
      <ValueRules
        ticks={layout.yTicks.map(({ db, px }) => ({ px, text: formatNumber(db) }))}
        from={SMALL.left}
        to={width}
      />
      <LabelsBelow
        ticks={layout.xTicks.map(({ label: text, px }) => ({ px, text }))}
        y={SMALL.height - 4}
        rules={{ from: 4, to: bottom }}
      />
      <path d={layout.path} fill="none" stroke="var(--ink)" strokeWidth={2.2} />
      {children}
    </svg>
  );
}
