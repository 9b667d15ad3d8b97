import { useMemo } from 'react';
import { formatNumber } from '#web/shared/parts/index.ts';
import { charts as say } from '#words/index.ts';
import { ValueRules } from './Axes.tsx';
import { outline, TAKEN_HEIGHT, takenPath, takenTicks, yOfTaken } from './taken.ts';

interface TakenCurve {
  readonly name: string;
  readonly hue: string;
  readonly curve: Float32Array;
}

interface Props {
  /** The stretch as recorded, and as it is treated, brought to the same loudness by the gains beside them. */
  readonly before: { readonly x: Float32Array; readonly gain: number };
  readonly treated: { readonly x: Float32Array; readonly gain: number } | null;
  readonly curves: readonly TakenCurve[];
  readonly widthPx: number;
}

/** The wave as it was and as it is at the same loudness, and below it what each step takes off, dB down. */
export function TakenChart({ before, treated, curves, widthPx }: Props) {
  const was = useMemo(() => outline(before.x, widthPx, before.gain), [before, widthPx]);
  const is = useMemo(() => (treated ? outline(treated.x, widthPx, treated.gain) : ''), [treated, widthPx]);
  const paths = useMemo(() => curves.map((c) => ({ ...c, d: takenPath(c.curve, widthPx) })), [curves, widthPx]);
  return (
    <svg
      width={widthPx}
      height={TAKEN_HEIGHT.wave + TAKEN_HEIGHT.gain + 6}
      role="img"
      aria-label={say.stretchBeforeAndAfter()}
    >
      <path d={was} fill="var(--rule2)" fillOpacity={0.55} />
      <path d={is} fill="var(--ink)" fillOpacity={0.8} />
      <g transform={`translate(0 ${TAKEN_HEIGHT.wave + 4})`}>
        <line className="rule" x1={0} x2={widthPx} y1={0} y2={0} />
        {paths.map((c) => (
          <path key={c.name} d={c.d} fill={c.hue} fillOpacity={0.25} stroke={c.hue} strokeWidth={1.2} />
        ))}
        <ValueRules
          ticks={takenTicks.map((db) => ({ px: yOfTaken(db), text: say.dbOf({ db: formatNumber(-db) }) }))}
          from={0}
          to={widthPx}
          over="var(--desk)"
          dash="2 4"
        />
      </g>
    </svg>
  );
}
