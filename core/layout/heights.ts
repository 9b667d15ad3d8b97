import type { Columns } from './columns.ts';
import type { Rows } from './rows.ts';
import { GAP, LINE_GAP } from './types.ts';

const PASSES = 10;
/** What passes a column wants to run straight more than a box wants to stand in the middle. */
const WEIGHT = { lineToLine: 8, lineToBox: 3, boxToBox: 1 };
/** Within this, a line may as well be straight. */
const STRAIGHT_ROUNDS = 3;

interface Pull {
  readonly other: number;
  /** Where the item's top would be for a straight line, less the other's top. */
  readonly by: number;
  readonly weight: number;
}

/**
 * Tops of all items: in the order of the rows, apart by their gaps, as near as may be to what they are joined to.
 * @returns px from the top of the map, none below 0
 */
export function findTops(columns: Columns, rows: Rows): Float64Array {
  const { height, boxes } = columns;
  const isLine = (item: number) => item >= boxes;
  const gap = (u: number, v: number) =>
    isLine(u) && isLine(v) ? LINE_GAP : isLine(u) || isLine(v) ? (GAP + LINE_GAP) / 2 : GAP;
  const top = new Float64Array(height.length);
  for (const row of rows) {
    let y = 0;
    row.forEach((item, i) => {
      if (i > 0) y += gap(row[i - 1]!, item);
      top[item] = y;
      y += height[item]!;
    });
  }
  const pulls = pullsOf(columns);
  for (let pass = 0; pass < PASSES; pass++) {
    const last = pass >= PASSES - 2;
    const side = pass % 2 === 0 ? pulls.before : pulls.after;
    const ranks = pass % 2 === 0 ? rows : [...rows].reverse();
    for (const row of ranks)
      settle(row, top, height, gap, (item) => (last ? [...pulls.before[item]!, ...pulls.after[item]!] : side[item]!));
  }
  for (let round = 0; round < STRAIGHT_ROUNDS; round++) {
    const side = round % 2 === 0 ? pulls.before : pulls.after;
    for (const row of round % 2 === 0 ? rows : [...rows].reverse()) straighten(row, top, height, gap, side);
  }
  const least = top.reduce((m, t) => Math.min(m, t), Number.POSITIVE_INFINITY);
  return top.map((t) => Math.round(t - (Number.isFinite(least) ? least : 0)));
}

function pullsOf({ stretches, rank, boxes }: Columns): { before: Pull[][]; after: Pull[][] } {
  const before: Pull[][] = Array.from(rank, () => []);
  const after: Pull[][] = Array.from(rank, () => []);
  for (const { a, aOffset, b, bOffset, aLeft, bLeft } of stretches) {
    const lines = Number(a >= boxes) + Number(b >= boxes);
    const weight = lines === 2 ? WEIGHT.lineToLine : lines === 1 ? WEIGHT.lineToBox : WEIGHT.boxToBox;
    const toB: Pull = { other: b, by: bOffset - aOffset, weight };
    const toA: Pull = { other: a, by: aOffset - bOffset, weight };
    if (aLeft === bLeft) {
      // A turn back: the line is drawn near to the box, not level with it.
      before[b]!.push({ ...toA, by: 0, weight: WEIGHT.boxToBox });
      continue;
    }
    (aLeft ? after : before)[a]!.push(toB);
    (bLeft ? after : before)[b]!.push(toA);
  }
  return { before, after };
}

/** The best tops of one row for what pulls at it, in its order and with its gaps: pooled means (isotonic regression). */
function settle(
  row: readonly number[],
  top: Float64Array,
  height: Float64Array,
  gap: (u: number, v: number) => number,
  pulls: (item: number) => readonly Pull[],
): void {
  // Without the heights and gaps above it, every item's wish is a plain number, and the order a rising line.
  const blocks: { sum: number; weight: number; count: number }[] = [];
  const above: number[] = [];
  let y = 0;
  row.forEach((item, i) => {
    if (i > 0) y += height[row[i - 1]!]! + gap(row[i - 1]!, item);
    above.push(y);
    let sum = 0;
    let weight = 0;
    for (const p of pulls(item)) {
      sum += (top[p.other]! + p.by) * p.weight;
      weight += p.weight;
    }
    const wish = weight > 0 ? sum / weight : top[item]!;
    const strength = weight > 0 ? weight : 0.1;
    blocks.push({ sum: (wish - y) * strength, weight: strength, count: 1 });
    while (blocks.length > 1) {
      const [p, q] = [blocks[blocks.length - 2]!, blocks[blocks.length - 1]!];
      if (p.sum / p.weight <= q.sum / q.weight) break;
      blocks.pop();
      p.sum += q.sum;
      p.weight += q.weight;
      p.count += q.count;
    }
  });
  let i = 0;
  for (const { sum, weight, count } of blocks) {
    for (let k = 0; k < count; k++, i++) top[row[i]!] = sum / weight + above[i]!;
  }
}

/** Moves items the little way that makes their main line straight, where there is room for it. */
function straighten(
  row: readonly number[],
  top: Float64Array,
  height: Float64Array,
  gap: (u: number, v: number) => number,
  side: readonly (readonly Pull[])[],
): void {
  for (let i = 0; i < row.length; i++) {
    const item = row[i]!;
    const pulls = side[item]!;
    if (pulls.length === 0) continue;
    const wishes = pulls.map((p) => ({ at: top[p.other]! + p.by, weight: p.weight }));
    const wish = wishes.reduce((best, w) => {
      const nearer = Math.abs(w.at - top[item]!) < Math.abs(best.at - top[item]!);
      return w.weight > best.weight || (w.weight === best.weight && nearer) ? w : best;
    }).at;
    const low = i > 0 ? top[row[i - 1]!]! + height[row[i - 1]!]! + gap(row[i - 1]!, item) : Number.NEGATIVE_INFINITY;
    const high =
      i + 1 < row.length ? top[row[i + 1]!]! - height[item]! - gap(item, row[i + 1]!) : Number.POSITIVE_INFINITY;
    if (wish >= low && wish <= high) top[item] = wish;
  }
}
