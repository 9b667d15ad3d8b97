/** A value on an axis: where it is, and what it says. */
export interface Tick {
  readonly px: number;
  readonly text: string;
}

interface ValuesProps {
  readonly ticks: readonly Tick[];
  /** The plot, from left to right. */
  readonly from: number;
  readonly to: number;
  /** Labels stand in the plot, over what is drawn on this ground, where there is no room beside it. */
  readonly over?: string;
  readonly dash?: string;
}

/** Rules at the values of a vertical axis. */
export const ValueRules = ({ ticks, from, to, over, dash }: ValuesProps) =>
  ticks.map(({ px, text }) => (
    <g key={px}>
      <line className="rule" x1={from} x2={to} y1={px} y2={px} strokeDasharray={dash} />
      {over === undefined ? (
        <text className="ink2 small" x={from - 5} y={px + 4} textAnchor="end">
          {text}
        </text>
      ) : (
        <text className="ink2 small" x={from + 2} y={px - 3} stroke={over} strokeWidth={3} paintOrder="stroke">
          {text}
        </text>
      )}
    </g>
  ));

interface BelowProps {
  readonly ticks: readonly Tick[];
  /** The baseline of the labels. */
  readonly y: number;
  /** Rules go up through the plot, between these. */
  readonly rules?: { readonly from: number; readonly to: number };
  /** Labels at the ends stay within this width. */
  readonly within?: number;
}
const NEAR_END_PX = 30;

/** Labels of a horizontal axis, below the plot. */
export const LabelsBelow = ({ ticks, y, rules, within }: BelowProps) =>
  ticks.map(({ px, text }) => (
    <g key={px}>
      {rules && <line className="rule" x1={px} x2={px} y1={rules.from} y2={rules.to} />}
      <text className="ink2 small" x={px} y={y} textAnchor={anchorAt(px, within)}>
        {text}
      </text>
    </g>
  ));

const anchorAt = (px: number, within: number | undefined): 'start' | 'middle' | 'end' =>
  within === undefined ? 'middle' : px < NEAR_END_PX ? 'start' : px > within - NEAR_END_PX ? 'end' : 'middle';
