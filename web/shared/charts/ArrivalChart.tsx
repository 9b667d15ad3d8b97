import { useMemo } from 'react';
import type { Rig } from '#core/model/rig/index.ts';
import type { Pair, Tolerance } from '#core/signal/index.ts';
import { formatNumber, formatOffset, formatSigned, hueOf, StateMark } from '#web/shared/parts/index.ts';
import { charts as say } from '#words/index.ts';
import { type ArrivalRow, layoutArrivals } from './arrivals.ts';
import { Dimension } from './Dimension.tsx';

interface Props {
  readonly rig: Rig;
  readonly pairs: readonly Pair[];
  /** As it stands without what is only being tried. */
  readonly before: readonly Pair[];
  readonly tolerance: Tolerance;
  readonly widthPx: number;
  readonly tappedId: string | null;
  readonly onTap: (sourceId: string) => void;
}

const TOP = 34;
const RIGHT = 26;
/** Where there is room names are beside the plot, else over each row of it. */
const WIDE = { row: 58, left: 178, marksY: 0, nameWidth: 138, stateX: 148 };
const NARROW = { row: 84, left: 8, marksY: 28, nameWidth: 200, stateX: 200 };
const WIDE_PX = 560;
type Shape = typeof WIDE;
/** Both captions of the axis on one line take about so much. */
const CAPTIONS_PX = 420;

/** The arrivals at one listener: the picture as a line, each source's sound as a mark with its spread, the tolerance as a band. */
export function ArrivalChart({ rig, pairs, before, tolerance, widthPx, tappedId, onTap }: Props) {
  const shape = widthPx < WIDE_PX ? NARROW : WIDE;
  const { left, row } = shape;
  const plot = Math.max(160, widthPx - left - RIGHT);
  const layout = useMemo(
    () => layoutArrivals(rig, pairs, before, tolerance, plot),
    [rig, pairs, before, tolerance, plot],
  );
  const bottom = TOP + row * layout.rows.length;
  const laterY = plot < CAPTIONS_PX ? 60 : 42;
  return (
    <svg width={widthPx} height={bottom + laterY + 16} aria-label={say.audioTimingRelativeTo()}>
      <defs>
        <pattern id="within" width="7" height="7" patternUnits="userSpaceOnUse" patternTransform="rotate(45)">
          <path d="M0 0V7" stroke="var(--good)" strokeOpacity="0.4" />
        </pattern>
      </defs>
      {layout.rows.map(
        ({ source }, i) =>
          source.id === tappedId && (
            <rect
              key="tap"
              className="tap-row"
              x={0}
              y={TOP + row * i}
              width={shape.nameWidth}
              height={shape.marksY > 0 ? 30 : row - 1}
            />
          ),
      )}
      <g transform={`translate(${left},0)`}>
        <rect
          x={layout.tolerancePx.from}
          y={TOP}
          width={layout.tolerancePx.to - layout.tolerancePx.from}
          height={bottom - TOP}
          fill="url(#within)"
        />
        {[layout.tolerancePx.from, layout.tolerancePx.to].map((px) => (
          <line key={px} className="limit" x1={px} x2={px} y1={TOP} y2={bottom} />
        ))}
        <text x={layout.zeroPx} y={20} textAnchor="middle">
          {say.video()}
        </text>
        {[-2, 2].map((d) => (
          <line key={d} className="axis" x1={layout.zeroPx + d} x2={layout.zeroPx + d} y1={26} y2={bottom} />
        ))}
        <line className="axis" x1={0} x2={plot} y1={bottom} y2={bottom} />
        {layout.ticks.map(({ px, ms }) => (
          <g key={ms}>
            <line className="axis" x1={px} x2={px} y1={bottom} y2={bottom + 5} />
            <text x={px} y={bottom + 21} textAnchor="middle" className="ink2">
              {formatSigned(ms)}
            </text>
          </g>
        ))}
        <text x={0} y={bottom + 42} className="ink2">
          {say.audioEarlier()}
        </text>
        <text x={plot} y={bottom + laterY} textAnchor="end" className="ink2">
          {say.audioLaterThanVideo()}
        </text>
      </g>
      {layout.rows.map((one, i) => (
        <Row
          key={one.source.id}
          row={one}
          shape={shape}
          y={TOP + row * i}
          plot={plot}
          zeroPx={layout.zeroPx}
          tapped={one.source.id === tappedId}
          onTap={onTap}
        />
      ))}
    </svg>
  );
}

interface RowProps {
  readonly row: ArrivalRow;
  readonly shape: Shape;
  readonly y: number;
  readonly plot: number;
  readonly zeroPx: number;
  readonly tapped: boolean;
  readonly onTap: (sourceId: string) => void;
}

function Row({ row, shape, y, plot, zeroPx, tapped, onTap }: RowProps) {
  const { source, marks, dimension, beforePx } = row;
  const { left, marksY, stateX } = shape;
  const hue = hueOf(source);
  const nameY = marksY > 0 ? y - 8 : y;
  const said = `${source.name}: ${formatOffset(marks[0]!.offsetMs)}`;
  return (
    // biome-ignore lint/a11y/useSemanticElements: a row of a drawing; SVG can't contain an HTML button
    <g
      role="button"
      tabIndex={0}
      aria-pressed={tapped}
      aria-label={said}
      style={{ cursor: 'pointer' }}
      onClick={() => onTap(source.id)}
      onKeyDown={(e) => {
        if (e.key === 'Enter' || e.key === ' ') {
          e.preventDefault();
          onTap(source.id);
        }
      }}
    >
      <rect x={0} y={y} width={left + plot} height={shape.row} fill="transparent" />
      <line className="rule" x1={0} x2={left + plot} y1={y + shape.row - 0.5} y2={y + shape.row - 0.5} />
      <rect x={6} y={nameY + 14} width={20} height={20} rx={2} fill={hue} />
      <text x={16} y={nameY + 28.5} textAnchor="middle" style={{ fill: 'var(--paper)', fontWeight: 640 }}>
        {source.letter}
      </text>
      <text x={34} y={nameY + 29}>
        {source.name}
      </text>
      <g transform={`translate(${stateX},${nameY + 17})`}>
        <StateMark state={row.state} size={14} />
      </g>
      <g transform={`translate(${left},${y + marksY})`}>
        {beforePx !== null && (
          <g stroke={hue} fill="none" strokeDasharray="2 2">
            <line x1={beforePx} x2={beforePx} y1={12} y2={34} />
            <line x1={beforePx} x2={marks[0]!.atPx} y1={23} y2={23} />
          </g>
        )}
        {[...marks].reverse().map((mark) => (
          <g key={mark.atPx} className="arrival" stroke={hue} strokeOpacity={mark.main ? 1 : 0.55}>
            <line x1={mark.lowPx} x2={mark.highPx} y1={23} y2={23} strokeWidth={1.4} />
            <line x1={mark.lowPx} x2={mark.lowPx} y1={17} y2={29} strokeWidth={1.4} />
            <line x1={mark.highPx} x2={mark.highPx} y1={17} y2={29} strokeWidth={1.4} />
            <line x1={mark.atPx} x2={mark.atPx} y1={11} y2={35} strokeWidth={mark.main ? 5 : 3} />
          </g>
        ))}
        {dimension && (
          <Dimension
            fromPx={dimension.fromPx}
            toPx={dimension.toPx}
            y={46}
            label={
              dimension.kind === 'apart'
                ? say.twiceMsApart({ ms: formatNumber(dimension.ms) })
                : formatOffset(dimension.ms)
            }
            maxPx={plot}
            side={marks[0]!.atPx < zeroPx ? 'left' : 'right'}
          />
        )}
      </g>
    </g>
  );
}
