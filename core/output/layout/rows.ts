import type { Columns } from './columns.ts';

/** The items of every column from the top down. */
export type Rows = readonly (readonly number[])[];

/** Sweeps without a better count before it is left. */
const PATIENCE = 6;
const MAX_SWEEPS = 40;
const FEWEST_SWEEPS = 4;
/** Items set in order in all sweeps together: large maps are swept less often. */
const ITEMS_SWEPT = 60_000;
/** Neighbors are tried by turns while the map is small enough for it. */
const TURNS_UP_TO = 1500;

/** Straight stretches of each channel, seen from the side of either column. */
interface Sides {
  /** For each item: stretches to the column before, and to the next one. */
  readonly before: readonly (readonly number[])[];
  readonly after: readonly (readonly number[])[];
}

function sidesOf({ stretches, rank, boxes }: Columns): Sides {
  const before: number[][] = Array.from(rank, () => []);
  const after: number[][] = Array.from(rank, () => []);
  stretches.forEach((s, i) => {
    if (s.aLeft === s.bLeft) {
      // A turn: the line that passes wants to be near the device that it turns to.
      const line = s.a >= boxes ? s.a : s.b;
      (s.aLeft ? after : before)[line]!.push(i);
      return;
    }
    const [left, right] = s.aLeft ? [s.a, s.b] : [s.b, s.a];
    after[left]!.push(i);
    before[right]!.push(i);
  });
  return { before, after };
}

/**
 * An order in every column with few crossings: medians, swept to and fro, and neighbors changed where that helps
 * (Gansner and others 1993). Begins from `first`; with `settled`, it stays as it is but for what `first` leaves open.
 */
export function orderRows(columns: Columns, first: Rows): Rows {
  const sides = sidesOf(columns);
  const rows = first.map((r) => [...r]);
  const place = new Float64Array(columns.rank.length);
  const number = (row: readonly number[]) => {
    for (let i = 0; i < row.length; i++) place[row[i]!] = i;
  };
  for (const row of rows) number(row);
  let best = rows.map((r) => [...r]);
  let least = countCrossings(columns, best);
  let waited = 0;
  const most = Math.max(FEWEST_SWEEPS, Math.min(MAX_SWEEPS, Math.floor(ITEMS_SWEPT / columns.rank.length)));
  for (let sweep = 0; sweep < most && waited < PATIENCE && least > 0; sweep++) {
    const down = sweep % 2 === 0;
    for (let k = 1; k < rows.length; k++) {
      const r = down ? k : rows.length - 1 - k;
      const row = rows[r]!;
      sortByMedian(columns, row, down ? sides.before : sides.after, place, sweep % 4 > 1);
      number(row);
    }
    if (columns.rank.length <= TURNS_UP_TO) for (const row of rows) takeTurns(columns, row, sides, place);
    const now = countCrossings(columns, rows);
    waited++;
    if (now < least) {
      least = now;
      best = rows.map((r) => [...r]);
      waited = 0;
    }
  }
  return best;
}

/** Where the far end of a stretch stands, by row and port. */
const farPlace = ({ stretches, height }: Columns, item: number, s: number, place: Float64Array): number => {
  const { a, aOffset, b, bOffset } = stretches[s]!;
  const [other, offset] = a === item ? [b, bOffset] : [a, aOffset];
  return place[other]! + offset / (height[other]! + 1);
};

/** Puts the row in the order of medians of its neighbors; who has none keeps the place. */
function sortByMedian(
  columns: Columns,
  row: number[],
  side: readonly (readonly number[])[],
  place: Float64Array,
  mean: boolean,
): void {
  const keyed: { item: number; key: number }[] = [];
  const kept: (number | null)[] = row.map((item) => {
    const links = side[item]!;
    if (links.length === 0) return item;
    const far = links.map((s) => farPlace(columns, item, s, place)).sort((x, y) => x - y);
    keyed.push({ item, key: mean ? far.reduce((t, f) => t + f, 0) / far.length : medianOf(far) });
    return null;
  });
  keyed.sort((x, y) => x.key - y.key);
  let next = 0;
  for (let i = 0; i < row.length; i++) row[i] = kept[i] ?? keyed[next++]!.item;
}

function medianOf(sorted: readonly number[]): number {
  const m = sorted.length >> 1;
  if (sorted.length % 2) return sorted[m]!;
  if (sorted.length === 2) return (sorted[0]! + sorted[1]!) / 2;
  const [left, right] = [sorted[m - 1]! - sorted[0]!, sorted[sorted.length - 1]! - sorted[m]!];
  return left + right === 0
    ? (sorted[m - 1]! + sorted[m]!) / 2
    : (sorted[m - 1]! * right + sorted[m]! * left) / (left + right);
}

/** Changes neighbors of a row as long as crossings go. */
function takeTurns(columns: Columns, row: number[], { before, after }: Sides, place: Float64Array): void {
  for (let round = 0; round < 3; round++) {
    let changed = false;
    for (let i = 0; i + 1 < row.length; i++) {
      const [u, v] = [row[i]!, row[i + 1]!];
      let gain = 0;
      for (const side of [before, after]) {
        const [us, vs] = [side[u]!, side[v]!];
        for (const s of us) {
          const x = farPlace(columns, u, s, place);
          for (const t of vs) {
            if (columns.stretches[s]!.bundle === columns.stretches[t]!.bundle) continue;
            const y = farPlace(columns, v, t, place);
            gain += x > y ? 1 : x < y ? -1 : 0;
          }
        }
      }
      if (gain <= 0) continue;
      row[i] = v;
      row[i + 1] = u;
      place[v] = i;
      place[u] = i + 1;
      changed = true;
    }
    if (!changed) return;
  }
}

/** How often straight stretches of different bundles cross, by merge sort: n log n. */
export function countCrossings(columns: Columns, rows: Rows): number {
  const { rank, height, stretches, ranks } = columns;
  const place = new Float64Array(rank.length);
  for (const row of rows) for (let i = 0; i < row.length; i++) place[row[i]!] = i;
  const left = new Float64Array(stretches.length);
  const right = new Float64Array(stretches.length);
  const channels: number[][] = Array.from({ length: ranks + 1 }, () => []);
  for (let s = 0; s < stretches.length; s++) {
    const { a, aOffset, b, bOffset, aLeft, bLeft, channel } = stretches[s]!;
    if (aLeft === bLeft) continue;
    const [atA, atB] = [place[a]! + aOffset / (height[a]! + 1), place[b]! + bOffset / (height[b]! + 1)];
    left[s] = aLeft ? atA : atB;
    right[s] = aLeft ? atB : atA;
    channels[channel]!.push(s);
  }
  let crossings = 0;
  for (const links of channels) {
    links.sort((s, t) => left[s]! - left[t]! || right[s]! - right[t]!);
    crossings += inversions(Float64Array.from(links, (s) => right[s]!));
  }
  return crossings;
}

function inversions(values: Float64Array): number {
  let count = 0;
  let from: Float64Array = values;
  let into: Float64Array = new Float64Array(values.length);
  for (let width = 1; width < values.length; width *= 2) {
    for (let low = 0; low < values.length; low += 2 * width) {
      const middle = Math.min(low + width, values.length);
      const high = Math.min(low + 2 * width, values.length);
      let [i, j] = [low, middle];
      for (let k = low; k < high; k++) {
        if (i < middle && (j >= high || from[i]! <= from[j]!)) into[k] = from[i++]!;
        else {
          into[k] = from[j++]!;
          count += middle - i;
        }
      }
    }
    [from, into] = [into, from];
  }
  return count;
}
