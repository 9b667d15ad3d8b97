import { useMemo } from 'react';
import { formatNumber } from '#web/shared/parts/index.ts';
import { charts as say } from '#words/index.ts';
import { ValueRules } from './Axes.tsx';
import type { LaneView } from './lane-layout.ts';
import { pxOf } from './lane-layout.ts';
import { CURVE_HEIGHT, type Curve, curvePath, loudnessTicks, yOfLufs } from './loudness-curve.ts';

interface Props {
  readonly momentary: Curve;
  readonly shortTerm: Curve;
  readonly integratedLufs: number | null;
  /** The range that is aimed at, quiet to loud. */
  readonly target: readonly [number, number];
  readonly view: LaneView;
  readonly widthPx: number;
  readonly shiftMs: number;
  /** Instants at which something was found, ms of the take. */
  readonly marksMs: readonly number[];
}

/** Loudness over the time of the lanes above: momentary thin, short-term thick, the target as a band. */
export function LoudnessChart(props: Props) {
  const { momentary, shortTerm, integratedLufs, target, view, widthPx, shiftMs, marksMs } = props;
  const thin = useMemo(() => curvePath(momentary, view, widthPx, shiftMs), [momentary, view, widthPx, shiftMs]);
  const thick = useMemo(() => curvePath(shortTerm, view, widthPx, shiftMs), [shortTerm, view, widthPx, shiftMs]);
  const [low, high] = [yOfLufs(target[0]), yOfLufs(target[1])];
  return (
    <svg width={widthPx} height={CURVE_HEIGHT + 6} role="img" aria-label={say.loudnessOverTime()}>
      <defs>
        <clipPath id="loudness-clip">
          <rect width={widthPx} height={CURVE_HEIGHT} />
        </clipPath>
      </defs>
      <ValueRules
        ticks={loudnessTicks.map(({ lufs, px }) => ({ px, text: formatNumber(lufs) }))}
        from={0}
        to={widthPx}
        over="var(--paper)"
      />
      <rect x={0} y={high} width={widthPx} height={Math.max(2, low - high)} fill="var(--good)" fillOpacity={0.18} />
      <g clipPath="url(#loudness-clip)" fill="none" stroke="var(--ink)">
        <path d={thin} strokeOpacity={0.45} />
        <path d={thick} strokeWidth={2.2} />
        {integratedLufs !== null && (
          <line x1={0} x2={widthPx} y1={yOfLufs(integratedLufs)} y2={yOfLufs(integratedLufs)} strokeDasharray="6 4" />
        )}
        {marksMs.map((ms) => (
          <line
            key={ms}
            x1={pxOf(view, ms + shiftMs)}
            x2={pxOf(view, ms + shiftMs)}
            y1={0}
            y2={CURVE_HEIGHT}
            stroke="var(--fix)"
            strokeWidth={1.5}
          />
        ))}
      </g>
    </svg>
  );
}
