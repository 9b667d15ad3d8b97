import { scaleLinear } from 'd3-scale';
import { CREST_DB, type Ladder, type Rung, SCALE_UNITS, type Scale } from '#core/signal/index.ts';
import { textOf } from '#words/index.ts';

/** One step of the ladder in pixels: its column, and where its levels stand; null where there is none. */
export interface RungPlace {
  readonly rung: Rung;
  readonly fromPx: number;
  readonly toPx: number;
  readonly levelPx: number;
  readonly lowPx: number;
  readonly highPx: number;
  readonly peakPx: number;
  readonly noisePx: number | null;
  readonly ceilingPx: number | null;
}

/** Neighboring steps in one scale, with its own axis. */
interface ScaleSpan {
  readonly scale: Scale;
  readonly unit: string;
  readonly fromPx: number;
  readonly toPx: number;
  readonly ticks: readonly { readonly px: number; readonly db: number }[];
}

/** Neighboring steps of one device. */
interface BoxSpan {
  readonly name: string;
  readonly fromPx: number;
  readonly toPx: number;
}

export interface LadderLayout {
  readonly places: readonly RungPlace[];
  readonly scales: readonly ScaleSpan[];
  readonly boxes: readonly BoxSpan[];
  /** Pixels a decibel. */
  readonly pxPerDb: number;
}

const MARGIN_DB = 6;
const MIN_SPAN_DB = 60;
/** A floor further down than this below the signal is drawn at the edge. */
const DEEPEST_DB = 110;
const TICK_DB = 20;

/**
 * The ladder drawn as one line: within a scale it goes up and down by the gain of each step, and where the scale
 * changes it stays level, since a change of unit is no gain. Each scale has its own axis.
 */
export function layoutLadder({ rungs }: Ladder, widthPx: number, heightPx: number): LadderLayout {
  const shifts: number[] = [];
  rungs.forEach((rung, i) => {
    const before = rungs[i - 1];
    const shift = before ? shifts[i - 1]! : -rung.levelDb.nominal;
    const changes = before && before.scale !== rung.scale;
    shifts.push(changes ? shift + before.levelDb.nominal - rung.levelDb.nominal : shift);
  });
  const shifted = (db: number | null, i: number) => (db === null ? null : db + shifts[i]!);
  const tops = rungs.flatMap((r, i) => [
    shifted(r.levelDb.nominal + CREST_DB.high, i)!,
    ...(r.ceilingDb === null ? [] : [shifted(r.ceilingDb, i)!]),
  ]);
  const lowest = Math.min(...rungs.map((r, i) => shifted(r.levelDb.low, i)!));
  const deepest = Math.min(...rungs.map((r, i) => shifted(r.levelDb.nominal, i)!)) - DEEPEST_DB;
  const floors = rungs.flatMap((r, i) => (r.noiseDb === null ? [] : [Math.max(deepest, shifted(r.noiseDb, i)!)]));
  const high = Math.max(...tops) + MARGIN_DB;
  const low = Math.min(lowest, high - MIN_SPAN_DB, ...floors) - MARGIN_DB;
  const y = scaleLinear().domain([low, high]).range([heightPx, 0]);
  const column = widthPx / Math.max(1, rungs.length);
  const places = rungs.map((rung, i): RungPlace => {
    const at = (db: number) => y(db + shifts[i]!);
    return {
      rung,
      fromPx: i * column,
      toPx: (i + 1) * column,
      levelPx: at(rung.levelDb.nominal),
      lowPx: at(rung.levelDb.low),
      highPx: at(rung.levelDb.high),
      peakPx: at(rung.levelDb.nominal + CREST_DB.nominal),
      noisePx: rung.noiseDb === null ? null : Math.min(heightPx, at(rung.noiseDb)),
      ceilingPx: rung.ceilingDb === null ? null : at(rung.ceilingDb),
    };
  });
  const scales = spans(places, (r) => r.scale).map(({ first, ...span }): ScaleSpan => {
    const shift = shifts[first]!;
    const from = Math.ceil((low - shift) / TICK_DB) * TICK_DB;
    const count = Math.floor((high - shift - from) / TICK_DB) + 1;
    const ticks = Array.from({ length: Math.max(0, count) }, (_, n) => from + n * TICK_DB);
    const { scale } = rungs[first]!;
    return { ...span, scale, unit: SCALE_UNITS[scale], ticks: ticks.map((db) => ({ db, px: y(db + shift) })) };
  });
  const boxes = spans(places, (r) => textOf(r.box)).map(
    ({ first, ...span }): BoxSpan => ({ ...span, name: textOf(rungs[first]!.box) }),
  );
  return { places, scales, boxes, pxPerDb: Math.abs(y(1) - y(0)) };
}

/** Neighbors that share something, as stretches. */
function spans(places: readonly RungPlace[], of: (rung: Rung) => string) {
  const found: { first: number; fromPx: number; toPx: number }[] = [];
  places.forEach(({ rung, fromPx, toPx }, i) => {
    if (i > 0 && of(rung) === of(places[i - 1]!.rung)) found.at(-1)!.toPx = toPx;
    else found.push({ first: i, fromPx, toPx });
  });
  return found;
}
