import { type KeyboardEvent, type PointerEvent, useEffect, useMemo, useRef } from 'react';
import { formatClock, formatOffset } from '#web/shared/parts/index.ts';
import { charts as say } from '#words/index.ts';
import {
  brightnessPath,
  heldWithin,
  LANE_HEIGHT,
  type LaneData,
  type LaneView,
  msOf,
  pxOf,
  timeTicks,
  unseen,
  wavePath,
  zoomAbout,
} from './lane-layout.ts';

export interface LanesProps {
  readonly lanes: readonly LaneData[];
  readonly view: LaneView;
  readonly widthPx: number;
  /** Length of the common axis. */
  readonly wholeMs: number;
  readonly cursorMs: number | null;
  /** The lane that new marks go to. */
  readonly chosenLane: string | null;
  readonly selected: string | null;
  /** Flash and clap that belong together, on the common axis, by lane. */
  readonly pairs: readonly {
    readonly fromMs: number;
    readonly toMs: number;
    readonly offsetMs: number;
    readonly used: boolean;
    readonly laneKey: string;
  }[];
  /** Step by which a key moves a mark in a lane: a frame, or a millisecond. */
  readonly stepMs: (lane: LaneData) => number;
  readonly onView: (view: LaneView) => void;
  readonly onCursor: (laneKey: string, ms: number) => void;
  readonly onSelect: (markKey: string | null) => void;
  readonly onMove: (laneKey: string, markKey: string, atMs: number) => void;
  readonly onRemove: (laneKey: string, markKey: string) => void;
  readonly onToggle: (laneKey: string, markKey: string) => void;
}

/** A lane's name and note are on one line where there is room for both. */
const HEAD = { one: 30, two: 48 };
const LETTER_PX = 7.5;
const headOf = (lanes: readonly LaneData[], widthPx: number): number =>
  lanes.some((lane) => (lane.label.length + lane.note.length + 3) * LETTER_PX > widthPx) ? HEAD.two : HEAD.one;

/** Takes as lanes over one time axis: thin gray waves, numbered marks, dimension lines from flash to clap. */
export function Lanes(props: LanesProps) {
  const { lanes, view, widthPx, cursorMs } = props;
  const svg = useRef<SVGSVGElement>(null);
  const latest = useRef(props);
  latest.current = props;
  const head = headOf(lanes, widthPx);
  const pitch = head + LANE_HEIGHT + 8;
  const bottom = pitch * lanes.length;
  useEffect(() => {
    const element = svg.current;
    if (!element) return;
    // React listens passively; the wheel has to be kept from scrolling the page.
    const wheel = (event: WheelEvent) => {
      event.preventDefault();
      const now = latest.current;
      const px = event.clientX - element.getBoundingClientRect().left;
      if (Math.abs(event.deltaX) > Math.abs(event.deltaY) || event.shiftKey) {
        const by = (event.deltaX || event.deltaY) * now.view.msPerPx;
        now.onView(heldWithin({ ...now.view, startMs: now.view.startMs + by }, now.widthPx, now.wholeMs));
      } else now.onView(zoomAbout(now.view, px, 1.0015 ** event.deltaY, now.widthPx, now.wholeMs));
    };
    element.addEventListener('wheel', wheel, { passive: false });
    return () => element.removeEventListener('wheel', wheel);
  }, []);
  const ticks = useMemo(() => timeTicks(view, widthPx), [view, widthPx]);
  return (
    <svg
      ref={svg}
      width={widthPx}
      height={bottom + 34}
      aria-label={say.takesOverTime()}
      style={{ touchAction: 'none' }}
    >
      <defs>
        <pattern id="unseen" width="7" height="7" patternUnits="userSpaceOnUse" patternTransform="rotate(45)">
          <path d="M0 0V7" stroke="var(--rule)" />
        </pattern>
        <clipPath id="lanes-clip">
          <rect width={widthPx} height={bottom + 40} />
        </clipPath>
      </defs>
      <g clipPath="url(#lanes-clip)">
        {lanes.map((lane, i) => (
          <Lane key={lane.key} {...props} lane={lane} head={head} y={pitch * i} />
        ))}
        {cursorMs !== null && (
          <line
            x1={pxOf(view, cursorMs)}
            x2={pxOf(view, cursorMs)}
            y1={0}
            y2={bottom}
            stroke="var(--ink2)"
            strokeDasharray="3 3"
          />
        )}
      </g>
      <line className="axis" x1={0} x2={widthPx} y1={bottom + 4} y2={bottom + 4} />
      {ticks.map(({ px, ms, decimals }) => (
        <g key={ms}>
          <line className="axis" x1={px} x2={px} y1={bottom + 4} y2={bottom + 9} />
          <text
            x={px}
            y={bottom + 25}
            textAnchor={px < 30 ? 'start' : px > widthPx - 30 ? 'end' : 'middle'}
            className="ink2"
          >
            {formatClock(ms, decimals)}
          </text>
        </g>
      ))}
    </svg>
  );
}

function Lane(props: LanesProps & { lane: LaneData; head: number; y: number }) {
  const { lane, head, y, view, widthPx, wholeMs, chosenLane, pairs, onCursor, onView } = props;
  const wave = useMemo(() => wavePath(lane, view, widthPx), [lane, view, widthPx]);
  const trace = useMemo(() => brightnessPath(lane, view, widthPx), [lane, view, widthPx]);
  const gaps = useMemo(() => unseen(lane, view, widthPx, wholeMs), [lane, view, widthPx, wholeMs]);
  const drag = useRef<{ px: number; startMs: number; moved: boolean } | null>(null);
  const here = (event: PointerEvent<SVGRectElement>) =>
    event.clientX - event.currentTarget.ownerSVGElement!.getBoundingClientRect().left;
  return (
    <g transform={`translate(0,${y})`}>
      <text x={0} y={14} style={{ fontWeight: chosenLane === lane.key ? 640 : 400 }}>
        {lane.label}
      </text>
      <text x={widthPx} y={head === HEAD.two ? 32 : 14} textAnchor="end" className="ink2">
        {lane.note}
      </text>
      <g transform={`translate(0,${head})`}>
        {chosenLane === lane.key && <rect x={0} y={0} width={3} height={LANE_HEIGHT} fill="var(--ink)" />}
        {gaps.map((g) => (
          <rect key={g.fromPx} x={g.fromPx} width={g.toPx - g.fromPx} y={0} height={LANE_HEIGHT} fill="url(#unseen)" />
        ))}
        {wave && <path className="wave" d={wave} />}
        {trace && <path className="trace" d={trace} />}
        <line className="rule" x1={0} x2={widthPx} y1={LANE_HEIGHT + 4} y2={LANE_HEIGHT + 4} />
        <rect
          width={widthPx}
          height={LANE_HEIGHT}
          fill="transparent"
          onPointerDown={(e) => {
            e.currentTarget.setPointerCapture(e.pointerId);
            drag.current = { px: here(e), startMs: view.startMs, moved: false };
          }}
          onPointerMove={(e) => {
            if (!drag.current) return;
            const by = here(e) - drag.current.px;
            if (Math.abs(by) > 3) drag.current.moved = true;
            if (drag.current.moved)
              onView(heldWithin({ ...view, startMs: drag.current.startMs - by * view.msPerPx }, widthPx, wholeMs));
          }}
          onPointerUp={(e) => {
            if (drag.current && !drag.current.moved) onCursor(lane.key, msOf(view, here(e)));
            drag.current = null;
          }}
        />
        {spaced(
          pairs.filter((p) => p.laneKey === lane.key),
          view,
          widthPx,
        ).map(({ pair, labelPx }) => (
          <PairLine key={pair.fromMs} pair={pair} view={view} widthPx={widthPx} labelPx={labelPx} />
        ))}
        {lane.marks.map((mark, n) => (
          <MarkFlag key={mark.key} {...props} mark={mark} number={n + 1} />
        ))}
      </g>
    </g>
  );
}

type PairOfLane = LanesProps['pairs'][number];
/** Room for an offset in words. */
const OFFSET_PX = 92;

/** Where each offset is written: not over another one, which then is read when it is pointed at. */
function spaced(
  pairs: readonly PairOfLane[],
  view: LaneView,
  widthPx: number,
): { pair: PairOfLane; labelPx: number | null }[] {
  let free = Number.NEGATIVE_INFINITY;
  const rightOf = (p: PairOfLane) => pxOf(view, Math.max(p.fromMs, p.toMs));
  return [...pairs]
    .sort((a, b) => rightOf(a) - rightOf(b))
    .map((pair) => {
      const labelPx = Math.min(widthPx - OFFSET_PX, rightOf(pair) + 5);
      if (rightOf(pair) < -OFFSET_PX || labelPx < free) return { pair, labelPx: null };
      free = labelPx + OFFSET_PX;
      return { pair, labelPx };
    });
}

interface PairLineProps {
  readonly pair: PairOfLane;
  readonly view: LaneView;
  readonly widthPx: number;
  readonly labelPx: number | null;
}

function PairLine({ pair, view, widthPx, labelPx }: PairLineProps) {
  const from = pxOf(view, pair.fromMs);
  const to = pxOf(view, pair.toMs);
  if (Math.max(from, to) < -OFFSET_PX || Math.min(from, to) > widthPx + OFFSET_PX) return null;
  return (
    <g className="dimension" opacity={pair.used ? 1 : 0.5}>
      <title>{formatOffset(pair.offsetMs, 1)}</title>
      <line x1={from} x2={from} y1={-14} y2={-2} />
      <line x1={to} x2={to} y1={-14} y2={-2} />
      <line x1={from} x2={to} y1={-8} y2={-8} />
      {labelPx !== null && (
        <text x={labelPx} y={-4} stroke="none" style={{ fontSize: 12.5 }}>
          {formatOffset(pair.offsetMs, 1)}
        </text>
      )}
    </g>
  );
}

/** A mark that can be taken by pointer or keys: moved, left out, removed. */
function MarkFlag(props: LanesProps & { lane: LaneData; mark: LaneData['marks'][number]; number: number }) {
  const { lane, mark, number, view, selected, stepMs, onSelect, onMove, onRemove, onToggle } = props;
  const drag = useRef(false);
  const px = pxOf(view, mark.atMs + lane.shiftMs);
  const chosen = selected === mark.key;
  const kind = lane.kind === 'picture' ? say.flash() : say.clap();
  const keys = (event: KeyboardEvent) => {
    const step = stepMs(lane) * (event.shiftKey ? 10 : 1);
    const act = actOf(event.key, {
      earlier: () => onMove(lane.key, mark.key, mark.atMs - step),
      later: () => onMove(lane.key, mark.key, mark.atMs + step),
      remove: () => onRemove(lane.key, mark.key),
      toggle: () => onToggle(lane.key, mark.key),
    });
    if (!act) return;
    event.preventDefault();
    event.stopPropagation();
    act();
  };
  return (
    <g
      role="slider"
      tabIndex={0}
      aria-label={`${kind} ${number}, ${lane.label}${mark.used ? '' : say.excluded()}`}
      aria-valuenow={Math.round(mark.atMs * 10) / 10}
      aria-valuetext={formatClock(mark.atMs, 3)}
      className="lane-grip"
      onFocus={() => onSelect(mark.key)}
      onKeyDown={keys}
      onPointerDown={(e) => {
        e.currentTarget.setPointerCapture(e.pointerId);
        drag.current = true;
      }}
      onPointerMove={(e) => {
        if (!drag.current || (e.movementX === 0 && e.movementY === 0)) return;
        const left = e.currentTarget.ownerSVGElement!.getBoundingClientRect().left;
        onMove(lane.key, mark.key, msOf(view, e.clientX - left) - lane.shiftMs);
      }}
      onPointerUp={() => {
        drag.current = false;
      }}
      onDoubleClick={() => onToggle(lane.key, mark.key)}
    >
      <rect x={px - 7} y={-2} width={14} height={LANE_HEIGHT + 2} fill="transparent" />
      {chosen && <rect x={px - 9} y={-2} width={18} height={14} fill="var(--mark)" stroke="var(--ink)" />}
      <line
        x1={px}
        x2={px}
        y1={0}
        y2={LANE_HEIGHT}
        stroke="var(--ink)"
        strokeWidth={1.6}
        strokeDasharray={mark.used ? undefined : '3 3'}
      />
      <path d={`M${px - 6} 0h12l-6 9z`} fill={mark.used ? 'var(--ink)' : 'var(--paper)'} stroke="var(--ink)" />
    </g>
  );
}

interface MarkActs {
  readonly earlier: () => void;
  readonly later: () => void;
  readonly remove: () => void;
  readonly toggle: () => void;
}

/** What a key does to the mark that has the focus. */
function actOf(key: string, acts: MarkActs): (() => void) | undefined {
  switch (key) {
    case 'ArrowLeft':
      return acts.earlier;
    case 'ArrowRight':
      return acts.later;
    case 'Delete':
    case 'Backspace':
      return acts.remove;
    case ' ':
      return acts.toggle;
    default:
      return undefined;
  }
}
