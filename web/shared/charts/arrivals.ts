import { scaleLinear } from 'd3-scale';
import type { Rig } from '#core/model/rig/index.ts';
import { sourceIn } from '#core/model/rig/index.ts';
import type { Pair, State, Tolerance } from '#core/signal/index.ts';

/** One way of one source on the chart, in pixels from the left of the plot. */
interface ArrivalMark {
  readonly atPx: number;
  readonly lowPx: number;
  readonly highPx: number;
  readonly offsetMs: number;
  /** The way that is judged; others are drawn lighter. */
  readonly main: boolean;
}

export interface ArrivalRow {
  readonly source: Rig['sources'][number];
  readonly state: State;
  readonly pair: Pair;
  readonly marks: readonly ArrivalMark[];
  /** Former position of a source, if a proposal moves it; null otherwise. */
  readonly beforePx: number | null;
  /** The dimension line from picture to sound, or between two ways. */
  readonly dimension: {
    readonly fromPx: number;
    readonly toPx: number;
    readonly kind: 'offset' | 'apart';
    readonly ms: number;
  } | null;
}

export interface ArrivalLayout {
  readonly rows: readonly ArrivalRow[];
  readonly zeroPx: number;
  readonly tolerancePx: { readonly from: number; readonly to: number };
  readonly ticks: readonly { readonly px: number; readonly ms: number }[];
}

/** Ways quieter than the loudest by more than this are not drawn. */
const DRAWN_DB = 30;
const MARGIN = 1.08;
/** Room for the number at a tick. */
const TICK_PX = 64;
/** The axis always shows at least this much to each side. */
const MIN_MS = 100;

/** Layout of the arrival chart. Pure: returns pixels, draws nothing. */
export function layoutArrivals(
  rig: Rig,
  pairs: readonly Pair[],
  before: readonly Pair[],
  tolerance: Tolerance,
  widthPx: number,
): ArrivalLayout {
  const shown = pairs.filter((p) => p.ways[0]?.offset);
  const values = [...shown, ...before].flatMap((p) =>
    p.ways.flatMap((w) => (w.offset ? [w.offset.value.low, w.offset.value.high] : [])),
  );
  const low = Math.min(-MIN_MS, tolerance.earlyMs, ...values) * MARGIN;
  const high = Math.max(MIN_MS, tolerance.lateMs, ...values) * MARGIN;
  const x = scaleLinear().domain([low, high]).range([0, widthPx]).nice(8);
  const rows = shown.map((pair): ArrivalRow => {
    const source = sourceIn(rig, pair.sourceId);
    const loudest = pair.ways[0]!.levelDb.nominal;
    const marks = pair.ways
      .filter((w) => w.offset && w.levelDb.nominal > loudest - DRAWN_DB)
      .map((w, i): ArrivalMark => {
        const { low: l, nominal, high: h } = w.offset!.value;
        return { atPx: x(nominal), lowPx: x(l), highPx: x(h), offsetMs: nominal, main: i === 0 };
      });
    const was = before.find((p) => p.sourceId === pair.sourceId)?.ways[0]?.offset?.value.nominal;
    const moved = was !== undefined && Math.abs(was - marks[0]!.offsetMs) > 0.5;
    return {
      source,
      state: pair.verdict.state,
      pair,
      marks,
      beforePx: moved ? x(was) : null,
      dimension: dimensionOf(pair, marks, x),
    };
  });
  return {
    rows,
    zeroPx: x(0),
    tolerancePx: { from: x(tolerance.earlyMs), to: x(tolerance.lateMs) },
    ticks: x.ticks(Math.max(2, Math.min(8, widthPx / TICK_PX))).map((ms) => ({ px: x(ms), ms })),
  };
}

function dimensionOf(
  { ways, verdict }: Pair,
  [main]: readonly ArrivalMark[],
  x: (ms: number) => number,
): ArrivalRow['dimension'] {
  if (!main) return null;
  const zeroPx = x(0);
  const second = verdict.apart && ways.find((w) => w.afterFirst === verdict.apart)?.offset;
  if (second) {
    const atPx = x(second.value.nominal);
    return {
      fromPx: Math.min(main.atPx, atPx),
      toPx: Math.max(main.atPx, atPx),
      kind: 'apart',
      ms: Math.abs(verdict.apart!.value.nominal),
    };
  }
  return { fromPx: Math.min(main.atPx, zeroPx), toPx: Math.max(main.atPx, zeroPx), kind: 'offset', ms: main.offsetMs };
}
