import { type ReactNode, useMemo } from 'react';
import type { TuneHeard } from '#core/desk-tests/tunes/index.ts';
import { charts as say } from '#words/index.ts';
import { LabelsBelow, type Tick, ValueRules } from './Axes.tsx';
import { EVIDENCE, layoutTapArrivals, layoutTapBands, layoutTapLateness, layoutTapSeconds } from './tap-evidence.ts';

interface PlotProps {
  readonly label: string;
  readonly unit: string;
  readonly xTicks: readonly Tick[];
  readonly yTicks?: readonly Tick[];
  readonly children: ReactNode;
}

function Plot({ label, unit, xTicks, yTicks = [], children }: PlotProps) {
  const { width, height, left, bottom, top } = EVIDENCE;
  return (
    <svg width="100%" viewBox={`0 0 ${width} ${height}`} role="img" aria-label={label}>
      <ValueRules ticks={yTicks} from={left} to={width} />
      <LabelsBelow ticks={xTicks} y={height - 4} />
      <text className="ink2 small" x={width - 2} y={top + 8} textAnchor="end">
        {unit}
      </text>
      <line className="axis" x1={left} x2={width} y1={height - bottom} y2={height - bottom} />
      {children}
    </svg>
  );
}

interface FigureProps {
  readonly heard: TuneHeard;
  readonly hue: string;
  readonly name: string;
}

/** What a reading rests on: how it comes over time, how clearly in each second, through which band. */
export function TapEvidence(props: FigureProps) {
  return (
    <div className="tap-evidence">
      {props.heard.wander ? <Lateness {...props} /> : <Arrivals {...props} />}
      <Clearness {...props} />
      {!props.heard.wander && <Band {...props} />}
    </div>
  );
}

function Arrivals({ heard, hue, name }: FigureProps) {
  const response = useMemo(() => layoutTapArrivals(heard), [heard]);
  return (
    <figure>
      <figcaption className="small quiet">{say.arrivalsStrongestAt()}</figcaption>
      <Plot label={say.arrivalsOverTime({ name })} unit={say.dbMs()} xTicks={response.xTicks} yTicks={response.yTicks}>
        <path d={response.path} fill={hue} fillOpacity={0.55} stroke={hue} />
        {response.seconds.map((s) => (
          <g key={s.label}>
            <path d={`M${s.px} ${s.py - 3}l-5 -8h10z`} fill="var(--ink)" />
            <text
              className="small"
              x={s.px + (s.px > EVIDENCE.width / 2 ? -8 : 8)}
              y={Math.max(12, s.py - 4)}
              textAnchor={s.px > EVIDENCE.width / 2 ? 'end' : 'start'}
            >
              {s.label}
            </text>
          </g>
        ))}
      </Plot>
    </figure>
  );
}

function Lateness({ heard, hue, name }: FigureProps) {
  const { dots, xTicks, yTicks, zeroPx } = useMemo(() => layoutTapLateness(heard), [heard]);
  return (
    <figure>
      <figcaption className="small quiet">{say.howLateEachSecond()}</figcaption>
      <Plot label={say.howLateSecondBy({ name })} unit={say.msS()} xTicks={xTicks} yTicks={yTicks}>
        <line className="axis" strokeDasharray="4 3" x1={EVIDENCE.left} x2={EVIDENCE.width} y1={zeroPx} y2={zeroPx} />
        {dots.map((d) => (
          <circle key={d.px} cx={d.px} cy={d.py} r={4} fill={d.isClear ? hue : 'none'} stroke={hue} />
        ))}
      </Plot>
    </figure>
  );
}

function Clearness({ heard, hue, name }: FigureProps) {
  const blocks = useMemo(() => layoutTapSeconds(heard), [heard]);
  return (
    <figure>
      <figcaption className="small quiet">{say.secondBySecondChance()}</figcaption>
      <Plot label={say.claritySecondBySecond({ name })} unit="s" xTicks={blocks.xTicks}>
        {blocks.bars.map((b) => (
          <rect key={b.px} x={b.px} y={b.py} width={b.width} height={b.height} fill={hue} />
        ))}
        <line
          className="axis"
          strokeDasharray="4 3"
          x1={EVIDENCE.left}
          x2={EVIDENCE.width}
          y1={blocks.usualPx}
          y2={blocks.usualPx}
        />
      </Plot>
    </figure>
  );
}

function Band({ heard, hue, name }: FigureProps) {
  const bands = useMemo(() => layoutTapBands(heard), [heard]);
  return (
    <figure>
      <figcaption className="small quiet">{say.itsBandwidthArrowAt()}</figcaption>
      <Plot label={say.bandwidth({ name })} unit={say.dbFromHz()} xTicks={bands.xTicks} yTicks={bands.yTicks}>
        <path d={bands.path} fill="none" stroke={hue} strokeWidth={2.2} />
        {bands.dots.map((d) => (
          <circle key={d.px} cx={d.px} cy={d.py} r={4} fill={d.there ? hue : 'none'} stroke={hue} />
        ))}
        {bands.atMost.map((d) => (
          <path key={d.px} d={`M${d.px - 6} ${d.py}h12m-6 0v9m-3 -3l3 3l3 -3`} fill="none" stroke={hue} />
        ))}
      </Plot>
    </figure>
  );
}
