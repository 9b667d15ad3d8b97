interface Props {
  readonly fromPx: number;
  readonly toPx: number;
  readonly y: number;
  readonly label: string;
  readonly maxPx: number;
  /** On which side the label stands when the line is too short to hold it. */
  readonly side: 'left' | 'right';
}

/** About as wide as a letter is at the chart's size: enough to leave room for a label. */
const LETTER_PX = 6.6;
const GAP = 6;

/** A dimension line with arrows and its figure, as on a drawing. */
export function Dimension({ fromPx, toPx, y, label, maxPx, side }: Props) {
  const width = label.length * LETTER_PX;
  const length = toPx - fromPx;
  const inside = length > width + 34;
  const middle = (fromPx + toPx) / 2;
  const beside = side === 'left' ? Math.max(width, fromPx - GAP) : Math.min(maxPx - width, toPx + GAP);
  return (
    <g className="dimension">
      {length > 3 && (
        <>
          {inside ? (
            <>
              <line x1={fromPx} x2={middle - width / 2 - GAP} y1={y} y2={y} />
              <line x1={middle + width / 2 + GAP} x2={toPx} y1={y} y2={y} />
            </>
          ) : (
            <line x1={fromPx} x2={toPx} y1={y} y2={y} />
          )}
          <path d={`M${fromPx} ${y}l6 -3v6z`} fill="var(--ink2)" stroke="none" />
          <path d={`M${toPx} ${y}l-6 -3v6z`} fill="var(--ink2)" stroke="none" />
        </>
      )}
      <text
        x={inside ? middle : beside}
        y={y + 4.5}
        textAnchor={inside ? 'middle' : side === 'left' ? 'end' : 'start'}
        stroke="none"
      >
        {label}
      </text>
    </g>
  );
}
