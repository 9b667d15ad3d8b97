import { useMemo } from 'react';
import { formatClock, formatNumber } from '#web/shared/parts/index.ts';
import { charts as say } from '#words/index.ts';
import { LabelsBelow, ValueRules } from './Axes.tsx';
import { DISTANCE_HEIGHT, type DistanceTrack, LEFT_PX, layoutDistances, phraseFrom } from './distances.ts';

interface Props {
  readonly tracks: readonly DistanceTrack[];
  readonly seconds: number;
  readonly widthPx: number;
  /** The stretch that is listened to. */
  readonly heard: { readonly fromS: number; readonly toS: number } | null;
  readonly onChoose: (atS: number) => void;
}

/**
 * Distance of every track from the main voice, phrase by phrase: thick as it is now, thin as it was recorded, dotted
 * what is wanted. What comes too near is boxed.
 */
export function DistanceChart({ tracks, seconds, widthPx, heard, onChoose }: Props) {
  const {
    voicePx,
    ticks,
    clock,
    tracks: laid,
    pxAt,
    secondsAt,
  } = useMemo(() => layoutDistances(tracks, seconds, widthPx), [tracks, seconds, widthPx]);
  const middleS = heard ? (heard.fromS + heard.toS) / 2 : 0;
  const end = DISTANCE_HEIGHT - 20;
  return (
    <svg width={widthPx} height={DISTANCE_HEIGHT} aria-label={say.distanceEachTrackBelow()}>
      {heard && (
        <rect
          x={pxAt(heard.fromS)}
          width={Math.max(0, pxAt(heard.toS) - pxAt(heard.fromS))}
          y={0}
          height={end}
          fill="var(--mark)"
        />
      )}
      <ValueRules
        ticks={ticks.map(({ lu, px }) => ({ px, text: lu === 0 ? say.voice() : formatNumber(-lu) }))}
        from={LEFT_PX - 4}
        to={widthPx}
      />
      <LabelsBelow ticks={clock.map(({ s, px }) => ({ px, text: formatClock(1000 * s) }))} y={DISTANCE_HEIGHT - 5} />
      <line x1={LEFT_PX - 4} x2={widthPx} y1={voicePx} y2={voicePx} stroke="var(--ink)" strokeWidth={1.4} />
      {laid.map(({ track, wantedPx, steps }) => (
        <g key={track.key} stroke={track.hue}>
          <line
            x1={LEFT_PX - 4}
            x2={widthPx}
            y1={wantedPx}
            y2={wantedPx}
            strokeDasharray="1 5"
            strokeLinecap="round"
            strokeWidth={2}
          />
          {steps.map((s) => (
            <g key={s.fromS}>
              {s.wasPx !== null && (
                <line x1={s.fromPx} x2={s.toPx - 1} y1={s.wasPx} y2={s.wasPx} strokeWidth={1} strokeOpacity={0.7} />
              )}
              <line x1={s.fromPx} x2={s.toPx - 1} y1={s.px} y2={s.px} strokeWidth={5} />
              {s.near && (
                <rect
                  x={s.fromPx - 2}
                  y={s.px - 7}
                  width={s.toPx - s.fromPx + 3}
                  height={14}
                  fill="none"
                  stroke="var(--fix)"
                  strokeWidth={1.6}
                />
              )}
            </g>
          ))}
        </g>
      ))}
      <rect
        role="slider"
        tabIndex={0}
        aria-label={say.phraseBeingPlayedAt()}
        aria-valuenow={Math.round(middleS)}
        aria-valuemin={0}
        aria-valuemax={Math.round(seconds)}
        aria-valuetext={formatClock(1000 * middleS)}
        x={LEFT_PX - 4}
        width={Math.max(0, widthPx - LEFT_PX)}
        y={0}
        height={end}
        fill="transparent"
        style={{ cursor: 'pointer' }}
        onClick={(e) => onChoose(secondsAt(e.clientX - e.currentTarget.ownerSVGElement!.getBoundingClientRect().left))}
        onKeyDown={(e) => {
          const next = phraseFrom(tracks, middleS, e.key);
          if (next === null) return;
          e.preventDefault();
          onChoose(next);
        }}
      />
    </svg>
  );
}
