import type { Columns } from './columns.ts';
import type { Rows } from './rows.ts';
import { GAP, LINE_GAP } from './types.ts';

const PASSES = 10;
/** What passes a column wants to run straight more than a device wants to stand in the middle. */
const WEIGHT = { lineToLine: 8, lineToBox: 3, boxToBox: 1 };
/** Within this, a line may as well be straight. */
const STRAIGHT_ROUNDS = 3;

/** What pulls at each item, in columns: those at item i are from `first[i]` up to `first[i + 1]`. */
interface Pulls {
  readonly first: Int32Array;
  readonly other: Int32Array;
  /** Where the item's top would be for a straight line, less the other's top. */
  readonly by: Float64Array;
  readonly weight: Float64Array;
}

/** How far apart neighbors in a column stand. */
const gap = (boxes: number, u: number, v: number): number =>
  u >= boxes && v >= boxes ? LINE_GAP : u >= boxes || v >= boxes ? (GAP + LINE_GAP) / 2 : GAP;

/**
 * Tops of all items: in the order of the rows, apart by their gaps, as near as may be to what they are joined to.
 * @returns px from the top of the map, none below 0
 */
export function findTops(columns: Columns, rows: Rows): Float64Array {
  const { height, boxes } = columns;
  const top = new Float64Array(height.length);
  for (const row of rows) {
    let y = 0;
    row.forEach((item, i) => {
      if (i > 0) y += gap(boxes, row[i - 1]!, item);
      top[item] = y;
      y += height[item]!;
    });
  }
  const [before, after, both] = [pullsOf(columns, 'before'), pullsOf(columns, 'after'), pullsOf(columns, 'both')];
  const backwards = [...rows].reverse();
  for (let pass = 0; pass < PASSES; pass++) {
    const side = pass >= PASSES - 2 ? both : pass % 2 === 0 ? before : after;
    for (const row of pass % 2 === 0 ? rows : backwards) settle(columns, row, top, side);
  }
  for (let round = 0; round < STRAIGHT_ROUNDS; round++) {
    const side = round % 2 === 0 ? before : after;
    for (const row of round % 2 === 0 ? rows : backwards) straighten(columns, row, top, side);
  }
  const least = top.reduce((m, t) => Math.min(m, t), Number.POSITIVE_INFINITY);
  return top.map((t) => Math.round(t - (Number.isFinite(least) ? least : 0)));
}

type Side = 'before' | 'after' | 'both';

function pullsOf({ stretches, rank, boxes }: Columns, side: Side): Pulls {
  const first = new Int32Array(rank.length + 1);
  const each = (note: (item: number, other: number, by: number, weight: number) => void) => {
    for (const { a, aOffset, b, bOffset, aLeft, bLeft } of stretches) {
      // A turn back: the line is drawn near to the device, not level with it.
      if (aLeft === bLeft) {
        if (side !== 'after') note(b, a, 0, WEIGHT.boxToBox);
        continue;
      }
      const lines = Number(a >= boxes) + Number(b >= boxes);
      const weight = lines === 2 ? WEIGHT.lineToLine : lines === 1 ? WEIGHT.lineToBox : WEIGHT.boxToBox;
      if (side === 'both' || aLeft === (side === 'after')) note(a, b, bOffset - aOffset, weight);
      if (side === 'both' || bLeft === (side === 'after')) note(b, a, aOffset - bOffset, weight);
    }
  };
  each((item) => {
    first[item + 1]!++;
  });
  for (let i = 0; i < rank.length; i++) first[i + 1]! += first[i]!;
  const next = first.slice();
  const count = first[rank.length]!;
  const pulls = { other: new Int32Array(count), by: new Float64Array(count), weight: new Float64Array(count) };
  each((item, other, by, weight) => {
    const p = next[item]!++;
    pulls.other[p] = other;
    pulls.by[p] = by;
    pulls.weight[p] = weight;
  });
  return { first, ...pulls };
}

/** The best tops of one row for what pulls at it, in its order and with its gaps: pooled means (isotonic regression). */
function settle({ height, boxes }: Columns, row: readonly number[], top: Float64Array, pulls: Pulls): void {
  const { first, other, by, weight } = pulls;
  // Without the heights and gaps above it, every item's wish is a plain number, and the order a rising line.
  const above = new Float64Array(row.length);
  const sums = new Float64Array(row.length);
  const weights = new Float64Array(row.length);
  const ends = new Int32Array(row.length);
  let [blocks, y] = [0, 0];
  for (let i = 0; i < row.length; i++) {
    const item = row[i]!;
    if (i > 0) y += height[row[i - 1]!]! + gap(boxes, row[i - 1]!, item);
    above[i] = y;
    let [sum, pulling] = [0, 0];
    for (let p = first[item]!; p < first[item + 1]!; p++) {
      sum += (top[other[p]!]! + by[p]!) * weight[p]!;
      pulling += weight[p]!;
    }
    const wish = pulling > 0 ? sum / pulling : top[item]!;
    const strength = pulling > 0 ? pulling : 0.1;
    sums[blocks] = (wish - y) * strength;
    weights[blocks] = strength;
    ends[blocks++] = i + 1;
    while (blocks > 1 && sums[blocks - 2]! / weights[blocks - 2]! > sums[blocks - 1]! / weights[blocks - 1]!) {
      blocks--;
      sums[blocks - 1]! += sums[blocks]!;
      weights[blocks - 1]! += weights[blocks]!;
      ends[blocks - 1] = i + 1;
    }
  }
  for (let b = 0, i = 0; b < blocks; b++)
    for (const mean = sums[b]! / weights[b]!; i < ends[b]!; i++) top[row[i]!] = mean + above[i]!;
}

/** Moves items the little way that makes their main line straight, where there is room for it. */
function straighten({ height, boxes }: Columns, row: readonly number[], top: Float64Array, pulls: Pulls): void {
  const { first, other, by, weight } = pulls;
  for (let i = 0; i < row.length; i++) {
    const item = row[i]!;
    let [wish, heaviest] = [Number.NaN, 0];
    for (let p = first[item]!; p < first[item + 1]!; p++) {
      const at = top[other[p]!]! + by[p]!;
      const nearer = Math.abs(at - top[item]!) < Math.abs(wish - top[item]!);
      if (weight[p]! < heaviest || (weight[p] === heaviest && !nearer)) continue;
      wish = at;
      heaviest = weight[p]!;
    }
    const low = i > 0 ? top[row[i - 1]!]! + height[row[i - 1]!]! + gap(boxes, row[i - 1]!, item) : -Infinity;
    const high = i + 1 < row.length ? top[row[i + 1]!]! - height[item]! - gap(boxes, item, row[i + 1]!) : Infinity;
    if (wish >= low && wish <= high) top[item] = wish;
  }
}
