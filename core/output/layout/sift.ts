import type { Columns } from './columns.ts';
import type { Rows } from './rows.ts';

const MAX_ROUNDS = 3;

/** A bundle within one channel: the items that it is joined to on the left, then those on the right. */
interface Bundle {
  readonly items: Int32Array;
  /** Where on the item, 0 to 1 from its top. */
  readonly at: Float64Array;
  readonly lefts: number;
}
interface Joint {
  readonly item: number;
  readonly at: number;
}

/** For every item: the bundles that it is joined to in the channel before it, and in the one behind. */
function bundlesOf({ stretches, ranks, rank, height }: Columns): { before: Bundle[][]; behind: Bundle[][] } {
  const channels = Array.from({ length: ranks + 1 }, () => new Map<number, { lefts: Joint[]; rights: Joint[] }>());
  for (const s of stretches) {
    const channel = channels[s.channel]!;
    const joints = channel.get(s.bundle) ?? { lefts: [], rights: [] };
    channel.set(s.bundle, joints);
    (s.aLeft ? joints.lefts : joints.rights).push({ item: s.a, at: s.aOffset / (height[s.a]! + 1) });
    (s.bLeft ? joints.lefts : joints.rights).push({ item: s.b, at: s.bOffset / (height[s.b]! + 1) });
  }
  const before: Bundle[][] = Array.from(rank, () => []);
  const behind: Bundle[][] = Array.from(rank, () => []);
  for (const channel of channels) {
    for (const { lefts, rights } of channel.values()) {
      const all = [...lefts, ...rights];
      const bundle: Bundle = {
        items: Int32Array.from(all, (j) => j.item),
        at: Float64Array.from(all, (j) => j.at),
        lefts: lefts.length,
      };
      for (const item of new Set(lefts.map((j) => j.item))) behind[item]!.push(bundle);
      for (const item of new Set(rights.map((j) => j.item))) before[item]!.push(bundle);
    }
  }
  return { before, behind };
}

/**
 * Moves each item through its column to where the lines of both its channels cross least, turns included, until no
 * move helps (sifting, Rudell 1993). Two neighbors that change places alter only what their own bundles cross.
 * @param movesFrom  items below this number keep their order among each other
 */
export function sift(columns: Columns, rows: Rows, movesFrom = 0): Rows {
  const { before, behind } = bundlesOf(columns);
  const place = new Float64Array(columns.rank.length);
  const result = rows.map((row) => [...row]);
  for (const row of result) {
    row.forEach((item, i) => {
      place[item] = i;
    });
  }
  const between = (u: number, v: number): number => {
    let cost = 0;
    for (const side of [before, behind])
      for (const a of side[u]!) for (const b of side[v]!) if (a !== b) cost += leastOf(a, b, place);
    return cost;
  };
  const swap = (row: number[], i: number): void => {
    const [u, v] = [row[i]!, row[i + 1]!];
    row[i] = v;
    row[i + 1] = u;
    place[v] = i;
    place[u] = i + 1;
  };
  /** Changes the places of row[i] and row[i + 1]; how many crossings more there are. */
  const change = (row: number[], i: number): number => {
    const [u, v] = [row[i]!, row[i + 1]!];
    const was = between(u, v);
    swap(row, i);
    return between(u, v) - was;
  };
  for (let round = 0; round < MAX_ROUNDS; round++) {
    let gained = false;
    for (const row of result) {
      for (const item of row.filter((i) => i >= movesFrom)) {
        const start = row.indexOf(item);
        let [cost, best, bestAt] = [0, 0, start];
        let at = start;
        for (; at > 0; at--) {
          cost += change(row, at - 1);
          if (cost < best) [best, bestAt] = [cost, at - 1];
        }
        // Back where it began, it costs what it did.
        for (; at < start; at++) swap(row, at);
        cost = 0;
        for (; at + 1 < row.length; at++) {
          cost += change(row, at);
          if (cost < best) [best, bestAt] = [cost, at + 1];
        }
        for (; at > bestAt; at--) swap(row, at - 1);
        if (best < 0) gained = true;
      }
    }
    if (!gained) break;
  }
  return result;
}

/** How often two bundles of a channel cross, in the better order of their tracks. */
function leastOf(a: Bundle, b: Bundle, place: Float64Array): number {
  let [aLow, aHigh, bLow, bHigh] = [
    Number.POSITIVE_INFINITY,
    Number.NEGATIVE_INFINITY,
    Number.POSITIVE_INFINITY,
    Number.NEGATIVE_INFINITY,
  ];
  for (let i = 0; i < a.items.length; i++) {
    const y = place[a.items[i]!]! + a.at[i]!;
    if (y < aLow) aLow = y;
    if (y > aHigh) aHigh = y;
  }
  for (let i = 0; i < b.items.length; i++) {
    const y = place[b.items[i]!]! + b.at[i]!;
    if (y < bLow) bLow = y;
    if (y > bHigh) bHigh = y;
  }
  if (aHigh <= bLow || bHigh <= aLow) return 0;
  // With a further left, its pieces to the right cross b, and b's to the left cross a; and the other way about.
  let [aFirst, bFirst] = [0, 0];
  for (let i = 0; i < a.items.length; i++) {
    const y = place[a.items[i]!]! + a.at[i]!;
    if (y <= bLow || y >= bHigh) continue;
    if (i < a.lefts) bFirst++;
    else aFirst++;
  }
  for (let i = 0; i < b.items.length; i++) {
    const y = place[b.items[i]!]! + b.at[i]!;
    if (y <= aLow || y >= aHigh) continue;
    if (i < b.lefts) aFirst++;
    else bFirst++;
  }
  return Math.min(aFirst, bFirst);
}
