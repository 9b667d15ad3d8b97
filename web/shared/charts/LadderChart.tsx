import { type KeyboardEvent, type PointerEvent, useMemo, useRef } from 'react';
import { heldTo, sayKnob, settingKey } from '#core/model/rig/index.ts';
import { type Ladder, SCALE_UNITS } from '#core/signal/index.ts';
import { formatNumber, formatSigned } from '#web/shared/parts/index.ts';
import { charts as say, textOf } from '#words/index.ts';
import { type LadderLayout, layoutLadder, type RungPlace } from './rungs.ts';

interface Props {
  readonly ladder: Ladder;
  /** The source's own color. */
  readonly hue: string;
  readonly widthPx: number;
  readonly chosen: number;
  readonly onChoose: (index: number) => void;
  /** A control on the way is moved: `device.setting` to decibels that it can be set to. */
  readonly onSet: (key: string, valueDb: number) => void;
}

const TOP = 26;
const PLOT = 264;
/** Names stand upright where columns are too narrow for them. */
const NAMES = { lying: 22, upright: 112 } as const;
const WIDE_PX = 110;
/** Two rows of figures, each below what they are. */
const FIGURES = 72;
const LEFT = 40;
const RIGHT = 8;
const HANDLE = 7;
const LETTERS = 17;

/** Level, noise and ceiling along one way, step by step; what can be set is moved on the drawing itself. */
export function LadderChart({ ladder, hue, widthPx, chosen, onChoose, onSet }: Props) {
  const width = Math.max(200, widthPx - LEFT - RIGHT);
  const layout = useMemo(() => layoutLadder(ladder, width, PLOT), [ladder, width]);
  const bottom = TOP + PLOT;
  const upright = width / ladder.rungs.length < WIDE_PX;
  const names = upright ? NAMES.upright : NAMES.lying;
  return (
    <svg width={widthPx} height={bottom + names + FIGURES + 24} aria-label={say.gainStaging()}>
      <defs>
        <pattern id="over" width="6" height="6" patternUnits="userSpaceOnUse" patternTransform="rotate(45)">
          <path d="M0 0V6" stroke="var(--fix)" strokeOpacity="0.45" />
        </pattern>
        <pattern id="noise" width="4" height="4" patternUnits="userSpaceOnUse">
          <path d="M1 1h1M3 3h1" stroke="var(--ink2)" strokeOpacity="0.6" />
        </pattern>
      </defs>
      <g transform={`translate(${LEFT},${TOP})`}>
        <Axes layout={layout} />
        {layout.places.map((place, i) => (
          <Column key={`${place.rung.deviceId} ${place.fromPx}`} place={place} hue={hue} worst={i === ladder.worst} />
        ))}
        <path d={stepPath(layout, (p) => p.peakPx)} fill="none" stroke={hue} strokeDasharray="2 3" />
        <path d={stepPath(layout, (p) => p.levelPx)} fill="none" stroke={hue} strokeWidth={3} />
      </g>
      <g transform={`translate(${LEFT},${bottom})`}>
        <Names layout={layout} upright={upright} chosen={chosen} onChoose={onChoose} />
      </g>
      <g transform={`translate(${LEFT},${TOP})`}>
        {layout.places.map((place, i) =>
          place.rung.setting ? (
            <Handle
              key={settingKey(place.rung.setting.deviceId, place.rung.setting.spec.id)}
              place={place}
              hue={hue}
              pxPerDb={layout.pxPerDb}
              onChoose={() => onChoose(i)}
              onSet={onSet}
            />
          ) : null,
        )}
      </g>
    </svg>
  );
}

/** A line that stays level over each column and steps between them. */
function stepPath({ places }: LadderLayout, of: (place: RungPlace) => number): string {
  return places.map((p, i) => `${i === 0 ? 'M' : 'L'}${p.fromPx} ${of(p)}H${p.toPx}`).join('');
}

function Axes({ layout }: { layout: LadderLayout }) {
  return layout.scales.map((span, s) => (
    <g key={span.fromPx}>
      {s > 0 && (
        <line className="axis" x1={span.fromPx} x2={span.fromPx} y1={-TOP + 4} y2={PLOT} strokeDasharray="5 3" />
      )}
      <text x={span.fromPx + (s === 0 ? -LEFT + 2 : 4)} y={-10} className="ink2">
        {span.unit}
      </text>
      {span.ticks
        .filter(({ px }) => s === 0 || px > 12)
        .map(({ px, db }) => (
          <g key={db}>
            <line className="rule" x1={span.fromPx} x2={span.toPx} y1={px} y2={px} />
            <text
              x={span.fromPx + (s === 0 ? -6 : 4)}
              y={px + (s === 0 ? 4 : -3)}
              textAnchor={s === 0 ? 'end' : 'start'}
              className="ink2 small"
            >
              {formatNumber(db)}
            </text>
          </g>
        ))}
    </g>
  ));
}

/** Floor and ceiling of one step, the spread of its level, and the distance that is left. */
function Column({ place, hue, worst }: { place: RungPlace; hue: string; worst: boolean }) {
  const { fromPx, toPx, noisePx, ceilingPx, lowPx, highPx } = place;
  const width = toPx - fromPx;
  return (
    <g>
      <rect x={fromPx} y={highPx} width={width} height={Math.max(0, lowPx - highPx)} fill={hue} fillOpacity={0.12} />
      {noisePx !== null && (
        <>
          <rect x={fromPx} y={noisePx} width={width} height={Math.max(0, PLOT - noisePx)} fill="url(#noise)" />
          <line
            x1={fromPx}
            x2={toPx}
            y1={noisePx}
            y2={noisePx}
            stroke={worst ? 'var(--fix)' : 'var(--ink2)'}
            strokeWidth={worst ? 3 : 1.5}
          />
        </>
      )}
      {ceilingPx !== null && (
        <>
          <rect x={fromPx} y={-4} width={width} height={Math.max(0, ceilingPx + 4)} fill="url(#over)" />
          <line x1={fromPx} x2={toPx} y1={ceilingPx} y2={ceilingPx} stroke="var(--fix)" strokeWidth={1.5} />
        </>
      )}
    </g>
  );
}

const short = (text: string, letters: number): string =>
  text.length > letters ? `${text.slice(0, letters - 1)}…` : text;
/** What belongs to the device need not be said in each of its steps. */
const bare = (stage: string): string => stage.charAt(0).toUpperCase() + stage.slice(1);

interface NamesProps {
  readonly layout: LadderLayout;
  readonly upright: boolean;
  readonly chosen: number;
  readonly onChoose: (index: number) => void;
}

function Names({ layout, upright, chosen, onChoose }: NamesProps) {
  const height = upright ? NAMES.upright : NAMES.lying;
  return (
    <>
      {layout.places.map(({ rung, fromPx, toPx }, i) => {
        const middle = (fromPx + toPx) / 2;
        const over = rung.snrDb === null ? '–' : formatNumber(rung.snrDb);
        const under = rung.headroomDb === null ? '–' : formatNumber(rung.headroomDb);
        const tight = rung.headroomDb !== null && rung.headroomDb < 0;
        return (
          // biome-ignore lint/a11y/useSemanticElements: a step of a drawing; SVG can't contain an HTML button
          <g
            key={`${rung.deviceId} ${fromPx}`}
            role="button"
            tabIndex={0}
            aria-pressed={i === chosen}
            aria-label={say.dbAboveNoiseDb({
              box: textOf(rung.box),
              stage: textOf(rung.stage),
              nominal: formatNumber(rung.levelDb.nominal),
              scale: SCALE_UNITS[rung.scale],
              over,
              under,
            })}
            style={{ cursor: 'pointer' }}
            onClick={() => onChoose(i)}
            onKeyDown={(e) => {
              if (e.key !== 'Enter' && e.key !== ' ') return;
              e.preventDefault();
              onChoose(i);
            }}
          >
            <rect
              x={fromPx}
              y={0}
              width={toPx - fromPx}
              height={height + FIGURES}
              className={i === chosen ? 'tap-row' : ''}
              fill="transparent"
            />
            <text x={middle} y={31} textAnchor="middle" className="small">
              {over}
            </text>
            <text x={middle} y={63} textAnchor="middle" className={`small ${tight ? 'fix' : ''}`}>
              {under}
            </text>
            <text
              {...(upright
                ? { transform: `translate(${middle - 4},${FIGURES + 6}) rotate(90)` }
                : { x: middle, y: FIGURES + 16, textAnchor: 'middle' as const })}
              className="small"
            >
              {short(bare(textOf(rung.stage)), LETTERS)}
              <title>{textOf(rung.stage)}</title>
            </text>
          </g>
        );
      })}
      <text x={-LEFT} y={15} className="ink2 small">
        {say.noiseFloor()}
      </text>
      <text x={-LEFT} y={47} className="ink2 small">
        {say.headroom()}
      </text>
      {layout.boxes.map(({ name, fromPx, toPx }) => (
        <g key={`${name} ${fromPx}`}>
          <line className="axis" x1={fromPx + 3} x2={toPx - 3} y1={height + FIGURES + 4} y2={height + FIGURES + 4} />
          <text x={(fromPx + toPx) / 2} y={height + FIGURES + 19} textAnchor="middle" className="small strong">
            {short(name, Math.max(3, Math.floor((toPx - fromPx) / 6.4)))}
            <title>{name}</title>
          </text>
        </g>
      ))}
    </>
  );
}

interface HandleProps {
  readonly place: RungPlace;
  readonly hue: string;
  readonly pxPerDb: number;
  readonly onChoose: () => void;
  readonly onSet: Props['onSet'];
}

/** A control on the way, drawn where its level stands: pulled up and down, or moved by arrow keys in its own steps. */
function Handle({ place, hue, pxPerDb, onChoose, onSet }: HandleProps) {
  const { rung, fromPx, toPx, levelPx } = place;
  const pulled = useRef<{ y: number; value: number } | null>(null);
  const { deviceId, spec } = rung.setting!;
  const value = rung.gainDb;
  const key = settingKey(deviceId, spec.id);
  const set = (next: number) => {
    const held = heldTo(spec, next);
    if (held !== value) onSet(key, held);
  };
  const move = (e: PointerEvent) => {
    if (pulled.current) set(pulled.current.value + (pulled.current.y - e.clientY) / pxPerDb);
  };
  const press = (e: KeyboardEvent) => {
    const step = spec.step * (e.shiftKey ? 10 : 1);
    const to: Record<string, number> = {
      ArrowUp: value + step,
      ArrowRight: value + step,
      ArrowDown: value - step,
      ArrowLeft: value - step,
      PageUp: value + 10 * spec.step,
      PageDown: value - 10 * spec.step,
      Home: spec.min,
      End: spec.max,
      '0': 0,
    };
    const next = to[e.key];
    if (next === undefined) return;
    e.preventDefault();
    e.stopPropagation();
    set(next);
  };
  const x = (fromPx + toPx) / 2;
  return (
    <g
      role="slider"
      tabIndex={0}
      aria-label={`${textOf(rung.box)}, ${spec.name}`}
      aria-orientation="vertical"
      aria-valuemin={spec.min}
      aria-valuemax={spec.max}
      aria-valuenow={value}
      aria-valuetext={say.db({
        value: formatSigned(value, Number.isInteger(value) ? 0 : 1),
        value2: textOf(sayKnob(spec, value)),
      })}
      style={{ cursor: 'ns-resize', touchAction: 'none' }}
      onFocus={onChoose}
      onKeyDown={press}
      onPointerDown={(e) => {
        e.currentTarget.setPointerCapture(e.pointerId);
        e.currentTarget.focus();
        pulled.current = { y: e.clientY, value };
      }}
      onPointerMove={move}
      onPointerUp={() => {
        pulled.current = null;
      }}
    >
      <rect x={x - 14} y={levelPx - 16} width={28} height={32} fill="transparent" />
      <path
        d={`M${x} ${levelPx - HANDLE - 4}l${HANDLE} ${HANDLE}h-${2 * HANDLE}zM${x} ${levelPx + HANDLE + 4}l${HANDLE} -${HANDLE}h-${2 * HANDLE}z`}
        fill="var(--paper)"
        stroke={hue}
        strokeWidth={1.6}
      />
    </g>
  );
}
