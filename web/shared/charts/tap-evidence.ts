import { scaleLinear } from 'd3-scale';
import { area, line } from 'd3-shape';
import { BEFORE_MS, RESPONSE_STEP_MS, type TuneHeard } from '#core/desk-tests/tunes/index.ts';
import { charts as say } from '#words/index.ts';
import type { Tick } from './Axes.tsx';

/** Room of a small chart of evidence. */
export const EVIDENCE = { width: 340, height: 130, left: 30, bottom: 20, top: 8 } as const;

export interface ArrivalsLayout {
  readonly path: string;
  readonly xTicks: readonly Tick[];
  readonly yTicks: readonly Tick[];
  readonly zeroPx: number;
  readonly seconds: readonly { readonly px: number; readonly py: number; readonly label: string }[];
}

const DEEPEST_DB = -50;
const MIN_TO_MS = 60;
const MIN_FROM_MS = -20;

/** Correlation of a source with a take over time: its strongest arrival at 0, others behind it. Cropped to the interesting part. */
export function layoutTapArrivals({ response, seconds }: Pick<TuneHeard, 'response' | 'seconds'>): ArrivalsLayout {
  const furthest = Math.max(0, ...seconds.ways.map((w) => w.afterMs));
  const toMs = Math.max(MIN_TO_MS, furthest * 1.25);
  const fromMs = Math.max(-BEFORE_MS, Math.min(MIN_FROM_MS, 1.25 * Math.min(0, ...seconds.ways.map((w) => w.afterMs))));
  const { width, height, left, bottom, top } = EVIDENCE;
  const x = scaleLinear([fromMs, toMs], [left, width - 12]);
  const y = scaleLinear([0, DEEPEST_DB], [top, height - bottom]);
  const points = response
    .map((db, i): readonly [number, number] => [i * RESPONSE_STEP_MS - BEFORE_MS, Math.max(DEEPEST_DB, db)])
    .filter(([ms]) => ms >= fromMs && ms <= toMs);
  const shape = area<readonly [number, number]>(
    ([ms]) => x(ms),
    y(DEEPEST_DB),
    ([, db]) => y(db),
  );
  const xTicks = x.ticks(6).map((ms) => ({ text: String(ms).replace('-', '−'), px: x(ms) }));
  return {
    path: shape([...points]) ?? '',
    xTicks,
    yTicks: [0, -20, -40].map((db) => ({ text: String(db).replace('-', '−'), px: y(db) })),
    zeroPx: x(0),
    // On the curve, which weighs every lag equally; the true level is printed beside it.
    seconds: seconds.ways.map((w) => ({
      px: x(w.afterMs),
      py: y(Math.max(DEEPEST_DB, heightAt(response, w.afterMs))),
      label: say.msDb({ replace: w.afterMs.toFixed(1).replace('-', '−'), n0: w.underDb.toFixed(0) }),
    })),
  };
}

function heightAt(response: readonly number[], ms: number): number {
  const at = Math.floor((ms + BEFORE_MS) / RESPONSE_STEP_MS);
  return Math.max(DEEPEST_DB, ...response.slice(Math.max(0, at - 1), at + 2));
}

export interface SecondsLayout {
  readonly bars: readonly {
    readonly px: number;
    readonly py: number;
    readonly width: number;
    readonly height: number;
  }[];
  readonly xTicks: readonly Tick[];
  readonly usualPx: number;
}

const MAX_STANDS = 12;
/** Maximum score of a second without the tune. */
const CHANCE_STANDS = 2.8;

/** Detection score of each second of a tune in a take. */
export function layoutTapSeconds({ blocks }: Pick<TuneHeard, 'blocks'>): SecondsLayout {
  const { width, height, left, bottom, top } = EVIDENCE;
  const x = scaleLinear([0, blocks.length], [left, width - 6]);
  const y = scaleLinear([0, Math.max(MAX_STANDS, ...blocks.map((b) => b.standsOut))], [height - bottom, top]);
  return {
    bars: blocks.map((b, i) => ({
      px: x(i) + 1,
      py: y(b.standsOut),
      width: x(1) - x(0) - 2,
      height: height - bottom - y(b.standsOut),
    })),
    xTicks: blocks.flatMap((_, i) => (i % 5 === 0 ? [{ text: String(i), px: x(i) }] : [])),
    usualPx: y(CHANCE_STANDS),
  };
}

export interface LatenessLayout {
  readonly dots: readonly { readonly px: number; readonly py: number; readonly isClear: boolean }[];
  readonly xTicks: readonly Tick[];
  readonly yTicks: readonly Tick[];
  readonly zeroPx: number;
}

const MIN_LATE_MS = 5;

/** How much later or earlier each second of a tune comes than its middle one. */
export function layoutTapLateness({ blocks }: Pick<TuneHeard, 'blocks'>): LatenessLayout {
  const { width, height, left, bottom, top } = EVIDENCE;
  const isClear = blocks.map((b) => b.standsOut > CHANCE_STANDS);
  const told = blocks.filter((_, i) => isClear[i]).map((b) => b.lateMs);
  const x = scaleLinear([0, blocks.length], [left, width - 6]);
  const y = scaleLinear(
    [Math.min(-MIN_LATE_MS, ...told), Math.max(MIN_LATE_MS, ...told)],
    [height - bottom - 6, top + 16],
  ).clamp(true);
  return {
    dots: blocks.map((b, i) => ({ px: x(i + 0.5), py: y(b.lateMs), isClear: isClear[i]! })),
    xTicks: blocks.flatMap((_, i) => (i % 5 === 0 ? [{ text: String(i), px: x(i) }] : [])),
    yTicks: y.ticks(4).map((ms) => ({ text: String(ms).replace('-', '−'), px: y(ms) })),
    zeroPx: y(0),
  };
}

export interface BandsLayout {
  readonly path: string;
  readonly dots: readonly { readonly px: number; readonly py: number; readonly there: boolean }[];
  /** Maximum level of octave bands, dB. */
  readonly atMost: readonly { readonly px: number; readonly py: number }[];
  readonly xTicks: readonly Tick[];
  readonly yTicks: readonly Tick[];
}

/** How loud a source comes octave by octave, against the middle of its own sound. */
export function layoutTapBands({ bands }: Pick<TuneHeard, 'bands'>): BandsLayout {
  const { width, height, left, bottom, top } = EVIDENCE;
  const x = scaleLinear([0, bands.length - 1], [left + 20, width - 26]);
  const y = scaleLinear([12, -36], [top, height - bottom]).clamp(true);
  const there = bands.flatMap((b, i): (readonly [number, number])[] => (b.db === null ? [] : [[x(i), y(b.db)]]));
  return {
    path: line()(there as [number, number][]) ?? '',
    dots: bands.flatMap((b, i) =>
      b.atMostDb === null
        ? [{ px: x(i), py: b.db === null ? height - bottom - 4 : y(b.db), there: b.db !== null }]
        : [],
    ),
    atMost: bands.flatMap((b, i) => (b.atMostDb === null ? [] : [{ px: x(i), py: y(b.atMostDb) }])),
    xTicks: bands.map((b, i) => ({ text: b.lowHz >= 1000 ? `${b.lowHz / 1000}k` : String(b.lowHz), px: x(i) })),
    yTicks: [0, -20].map((db) => ({ text: String(db).replace('-', '−'), px: y(db) })),
  };
}
