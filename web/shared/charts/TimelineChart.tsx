import { useMemo } from 'react';
import { formatClock } from '#web/shared/parts/index.ts';
import { LabelsBelow } from './Axes.tsx';
import { timeTicks, wholeView } from './lane-layout.ts';
import { layoutTimeline, TIMELINE_ROW_PX, type TimelineTake } from './timeline.ts';

interface Props {
  readonly takes: readonly TimelineTake[];
  readonly widthPx: number;
  readonly label: string;
}

/** Takes of several recorders on the timeline that they share: a row each, its wave where it belongs. */
export function TimelineChart({ takes, widthPx, label }: Props) {
  const wholeMs = Math.max(1000, ...takes.map((t) => t.startMs + t.durationMs));
  const bars = useMemo(() => layoutTimeline(takes, widthPx, wholeMs), [takes, widthPx, wholeMs]);
  const ticks = useMemo(() => timeTicks(wholeView(widthPx, wholeMs), widthPx), [widthPx, wholeMs]);
  const bottom = takes.length * TIMELINE_ROW_PX;
  return (
    <svg width={widthPx} height={bottom + 30} role="img" aria-label={label}>
      <LabelsBelow
        ticks={ticks.map(({ px, ms, decimals }) => ({ px, text: formatClock(ms, decimals) }))}
        y={bottom + 20}
        rules={{ from: 0, to: bottom }}
        within={widthPx}
      />
      {bars.map((bar) => (
        <g key={bar.key}>
          <rect
            x={bar.leftPx}
            y={bar.row * TIMELINE_ROW_PX + 2}
            width={bar.widthPx}
            height={TIMELINE_ROW_PX - 4}
            fill="var(--raised)"
            stroke="var(--rule2)"
          />
          <path className="wave" d={bar.path} />
          <text
            x={Math.max(4, bar.leftPx + 5)}
            y={bar.row * TIMELINE_ROW_PX + 14}
            className="small"
            stroke="var(--raised)"
            strokeWidth={3}
            paintOrder="stroke"
          >
            {bar.name}
          </text>
        </g>
      ))}
    </svg>
  );
}
