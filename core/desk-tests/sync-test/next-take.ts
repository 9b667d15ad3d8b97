import type { Rig } from '#core/model/rig/index.ts';
import { evaluate, type Pair } from '#core/signal/index.ts';
import { openFigures } from './figures.ts';

/** A take that is still to be recorded, and how much it would reduce the uncertainty. */
export interface NextTake {
  readonly sourceId: string;
  readonly listenerId: string;
  /** The share of all doubt about offsets that it takes away, 0 to 1, after those before it. */
  readonly tells: number;
  /** Other paths that become clearer with it. */
  readonly also: readonly { readonly sourceId: string; readonly listenerId: string }[];
}

/** A slate or four claps, read: one standard deviation, ms. */
const TAKE_SD_MS = 5;
/** Limits are taken for two standard deviations to each side. */
const SIGMAS = 4;
/** Takes that reduce the uncertainty by less than this are not suggested. */
const MIN_TELLS = 0.02;
const MOST = 12;
/** A path becomes clearer where this share of its own doubt goes. */
const CLEARER = 0.25;

/**
 * What to record next, and next after that: each time the take that takes away most of the doubt that is left, over all
 * paths together. Figures that paths share make one take speak for several. Doubt is variance in a linear Gaussian
 * model: each figure independent, each take the sum of its path's figures.
 */
export function nextTakes(rig: Rig): NextTake[] {
  const pairs = evaluate(rig).pairs.filter((p) => p.ways[0]?.offset);
  const index = new Map<string, number>();
  const variances: number[] = [];
  const rows = pairs.map((pair) =>
    [...openFigures(pair)].map(([key, { count, ms }]) => {
      if (!index.has(key)) {
        index.set(key, variances.length);
        variances.push(((ms.high - ms.low) / SIGMAS) ** 2);
      }
      return { at: index.get(key)!, count };
    }),
  );
  const doubt = covariance(variances);
  for (const m of rig.measurements)
    if (m.kind === 'delay') {
      const row = m.terms.flatMap((t) => (index.has(t.figure) ? [{ at: index.get(t.figure)!, count: t.sign }] : []));
      if (row.length === m.terms.length) learn(doubt, row, m.ms.sd);
    }
  const whole = rows.map((row) => varianceOf(doubt, row));
  const all = whole.reduce((a, b) => a + b, 0);
  const left = [...whole];
  const next: NextTake[] = [];
  const open = new Set(pairs.keys());
  while (all > 0 && next.length < MOST) {
    let best = { pair: -1, gain: 0, after: left };
    for (const i of open) {
      const after = rows.map((row, k) => left[k]! - learned(doubt, rows[i]!, row));
      const gain = left.reduce((sum, v, k) => sum + v - after[k]!, 0);
      if (gain > best.gain) best = { pair: i, gain, after };
    }
    if (best.pair < 0 || best.gain / all < MIN_TELLS) break;
    learn(doubt, rows[best.pair]!, TAKE_SD_MS);
    const also = pairs.filter(
      (_, k) => k !== best.pair && left[k]! - best.after[k]! > CLEARER * left[k]! && left[k]! > 1,
    );
    next.push({ ...named(pairs[best.pair]!), tells: best.gain / all, also: also.map(named) });
    left.splice(0, left.length, ...best.after);
    open.delete(best.pair);
  }
  return next;
}

const named = ({ sourceId, listenerId }: Pair) => ({ sourceId, listenerId });

type Row = readonly { readonly at: number; readonly count: number }[];
type Matrix = Float64Array[];

const covariance = (variances: readonly number[]): Matrix =>
  variances.map((v, i) => Float64Array.from(variances, (_, j) => (i === j ? v : 0)));

const times = (doubt: Matrix, row: Row): Float64Array => {
  const out = new Float64Array(doubt.length);
  for (const { at, count } of row) for (let i = 0; i < out.length; i++) out[i]! += count * doubt[i]![at]!;
  return out;
};
const varianceOf = (doubt: Matrix, row: Row): number => dot(times(doubt, row), row);
const dot = (x: Float64Array, row: Row): number => row.reduce((sum, { at, count }) => sum + count * x[at]!, 0);

/** How much the variance of one row falls when another is read. */
function learned(doubt: Matrix, read: Row, of: Row): number {
  const seen = times(doubt, read);
  return dot(seen, of) ** 2 / (dot(seen, read) + TAKE_SD_MS ** 2);
}

/** The figures once a row of them was read with this spread. */
function learn(doubt: Matrix, read: Row, sdMs: number): void {
  const seen = times(doubt, read);
  const k = 1 / (dot(seen, read) + Math.max(0.1, sdMs) ** 2);
  for (let i = 0; i < doubt.length; i++)
    for (let j = 0; j < doubt.length; j++) doubt[i]![j]! -= k * seen[i]! * seen[j]!;
}
