import { type Columns, cutIntoColumns } from './columns.ts';
import { findTops } from './heights.ts';
import { findRanks, type Net, RANKINGS } from './ranks.ts';
import { orderRows, type Rows } from './rows.ts';
import { sift } from './sift.ts';
import { countOnTracks, findTracks, type Upright } from './tracks.ts';
import {
  CHANNEL_MARGIN,
  type Drawing,
  heightOf,
  type Placed,
  type Point,
  type Seats,
  type Shape,
  TRACK_GAP,
  type Wire,
} from './types.ts';

/**
 * Sets out devices and the lines between them: columns by the order of the signal with loops collapsed, rows by sweeps,
 * lines level and upright on tracks of their own. The lines of one output run together. Pure and deterministic.
 * @param last  seats of an earlier layout: devices keep their order, as far as the signal allows
 */
export function layout(shapes: readonly Shape[], wires: readonly Wire[], last?: Seats): Drawing {
  const at = new Map(shapes.map((s, i) => [s.id, i]));
  const net: Net = {
    ids: shapes.map((s) => s.id),
    from: Int32Array.from(wires, (w) => at.get(w.from.node)!),
    to: Int32Array.from(wires, (w) => at.get(w.to.node)!),
    weak: Uint8Array.from(wires, (w) => (w.weak ? 1 : 0)),
  };
  if (last && shapes.some((s) => last.has(s.id))) return seated(net, shapes, wires, last);
  const size = shapes.length + wires.length;
  const tried = RANKINGS.slice(0, size <= ALL_TRIED_UP_TO ? 4 : size <= TWO_TRIED_UP_TO ? 2 : 1).map((ranking) => {
    const columns = cutIntoColumns(net, shapes, wires, findRanks(net, ranking));
    return drawBest(columns, shapes, wires, startsOf(columns, net, firstRows(columns, net)));
  });
  return tried.reduce((best, t) => (t.crossings < best.crossings ? t : best));
}

/** What was set out before stays in its columns and its order: a small edit must not turn the map over. */
function seated(net: Net, shapes: readonly Shape[], wires: readonly Wire[], last: Seats): Drawing {
  const moved = (rank: Int32Array): number =>
    shapes.reduce((sum, { id }, i) => sum + Math.min(1, Math.abs((last.get(id)?.rank ?? rank[i]!) - rank[i]!)), 0);
  const rank = RANKINGS.map((ranking) => findRanks(net, ranking, last)).reduce((best, r) =>
    moved(r) < moved(best) ? r : best,
  );
  const columns = cutIntoColumns(net, shapes, wires, rank);
  const rows = firstRows(columns, net, last);
  // Devices stay; the lines that pass them find their way again.
  const small = columns.rank.length <= SIFTED_UP_TO;
  return draw(columns, shapes, wires, small ? sift(columns, rows, columns.boxes) : rows);
}

/** Devices and lines, up to which all ways to find the columns are tried, and two of them. */
const ALL_TRIED_UP_TO = 120;
const TWO_TRIED_UP_TO = 150;

/** Large maps are tried from few beginnings, small ones from many: the better of them is not known before. */
const ITEMS_TRIED = 1200;
const MAX_STARTS = 2;
const SIFTED_UP_TO = 500;
const MAX_SIFTED = 1;

/** Orders to begin the sweeps from: by the walk, from the other end, and shuffled, the same every time. */
function startsOf(columns: Columns, net: Net, first: Rows): Rows[] {
  const count = Math.max(1, Math.min(MAX_STARTS, Math.floor(ITEMS_TRIED / (columns.rank.length + 1))));
  const starts: Rows[] = [first];
  if (count > 1) starts.push(first.map((row) => [...row].reverse()));
  const random = seeded(net.ids.length + net.from.length);
  while (starts.length < count) {
    const keys = columns.rank.map(() => random());
    starts.push(first.map((row) => [...row].sort((a, b) => keys[a]! - keys[b]!)));
  }
  return starts;
}

/** A stream of numbers from 0 to 1, the same for the same seed (a linear congruence). */
function seeded(seed: number): () => number {
  let state = seed >>> 0;
  return () => {
    state = (Math.imul(state, 1664525) + 1013904223) >>> 0;
    return state / 2 ** 32;
  };
}

/** Crossings count as drawn, tracks and turns included; the best few of small maps are looked at place by place. */
function drawBest(
  columns: Columns,
  shapes: readonly Shape[],
  wires: readonly Wire[],
  starts: readonly Rows[],
): Drawing {
  const drawn = (rows: Rows) => ({ rows, drawing: draw(columns, shapes, wires, rows) });
  const tried = starts
    .map((start) => drawn(orderRows(columns, start)))
    .sort((x, y) => x.drawing.crossings - y.drawing.crossings);
  const small = columns.rank.length <= SIFTED_UP_TO;
  const sifted = small ? tried.slice(0, MAX_SIFTED).map(({ rows }) => drawn(sift(columns, rows))) : [];
  return [...tried.slice(0, 1), ...sifted].reduce((best, t) =>
    t.drawing.crossings < best.drawing.crossings ? t : best,
  ).drawing;
}

/** The order to begin from: by the last seats; what is new, and the lines that pass, by what they are joined to. */
function firstRows(columns: Columns, { ids, from, to }: Net, last?: Seats): Rows {
  const rows: number[][] = Array.from({ length: columns.ranks }, () => []);
  const key = new Float64Array(columns.rank.length).fill(Number.NaN);
  if (last) {
    ids.forEach((id, i) => {
      key[i] = last.get(id)?.row ?? Number.NaN;
    });
  } else {
    walk(ids.length, from, to).forEach((box, i) => {
      key[box] = i;
    });
  }
  spreadKeys(columns, key);
  for (let i = 0; i < key.length; i++) rows[columns.rank[i]!]!.push(i);
  const keyOf = (i: number) => (Number.isNaN(key[i]!) ? Number.MAX_VALUE : key[i]!);
  for (const row of rows) row.sort((x, y) => keyOf(x) - keyOf(y) || x - y);
  return rows;
}

/** From what is known along the stretches, until nothing more is reached: each by the mean of what it is reached from. */
function spreadKeys({ stretches, rank }: Columns, key: Float64Array): void {
  const near: number[][] = Array.from(rank, () => []);
  for (const { a, b } of stretches) {
    near[a]!.push(b);
    near[b]!.push(a);
  }
  const sum = new Float64Array(key.length);
  const count = new Int32Array(key.length);
  let reached = [...key.keys()].filter((i) => !Number.isNaN(key[i]!));
  while (reached.length > 0) {
    const next: number[] = [];
    for (const item of reached)
      for (const other of near[item]!) {
        if (!Number.isNaN(key[other]!)) continue;
        if (count[other]! === 0) next.push(other);
        sum[other]! += key[item]!;
        count[other]!++;
      }
    for (const item of next) key[item] = sum[item]! / count[item]! + 1e-6;
    reached = next;
  }
}

/** Devices in the order that one meets them, walking on and back along the joints. */
function walk(count: number, from: Int32Array, to: Int32Array): number[] {
  const near: number[][] = Array.from({ length: count }, () => []);
  for (let j = 0; j < from.length; j++) {
    near[from[j]!]!.push(to[j]!);
    near[to[j]!]!.push(from[j]!);
  }
  const seen = new Uint8Array(count);
  const order: number[] = [];
  for (let root = 0; root < count; root++) {
    const open = [root];
    while (open.length > 0) {
      const box = open.pop()!;
      if (seen[box]) continue;
      seen[box] = 1;
      order.push(box);
      for (const other of near[box]!) if (!seen[other]) open.push(other);
    }
  }
  return order;
}

function draw(columns: Columns, shapes: readonly Shape[], wires: readonly Wire[], rows: Rows): Drawing {
  const { ranks, rank, stretches } = columns;
  const tops = findTops(columns, rows);
  const widths = new Float64Array(ranks);
  shapes.forEach((s, i) => {
    widths[rank[i]!] = Math.max(widths[rank[i]!]!, s.widthPx);
  });
  const yOf = (item: number, offset: number) => tops[item]! + offset;
  const channels = Array.from({ length: ranks + 1 }, () => new Map<number, { lefts: number[]; rights: number[] }>());
  for (const s of stretches) {
    const channel = channels[s.channel]!;
    const upright = channel.get(s.bundle) ?? { lefts: [], rights: [] };
    channel.set(s.bundle, upright);
    (s.aLeft ? upright.lefts : upright.rights).push(yOf(s.a, s.aOffset));
    (s.bLeft ? upright.lefts : upright.rights).push(yOf(s.b, s.bOffset));
  }
  const thickness = new Map<number, number>();
  wires.forEach((wire, w) => {
    for (const index of columns.wires[w]!) {
      const { bundle } = stretches[index]!;
      thickness.set(bundle, Math.max(thickness.get(bundle) ?? 1, wire.thicknessPx ?? 1));
    }
  });
  const columnX = new Float64Array(ranks);
  const trackX: ReadonlyMap<number, number>[] = [];
  let x = 0;
  let crossings = 0;
  for (let c = 0; c <= ranks; c++) {
    const uprights = [...channels[c]!].map(([bundle, ends]): Upright => ({ bundle, ...ends }));
    const { at, widthPx, crossings: here } = setTracks(uprights, thickness, x + CHANNEL_MARGIN);
    crossings += here;
    trackX.push(at);
    const bare = (c === 0 || c === ranks) && widthPx === 0;
    x += bare ? 0 : 2 * CHANNEL_MARGIN + widthPx;
    if (c < ranks) {
      columnX[c] = x;
      x += widths[c]!;
    }
  }
  const boxes = new Map<string, Placed>();
  rows.forEach((row) => {
    row.forEach((item, i) => {
      const shape = shapes[item];
      if (!shape) return;
      const r = rank[item]!;
      boxes.set(shape.id, {
        rank: r,
        row: i,
        xPx: columnX[r]! + (widths[r]! - shape.widthPx) / 2,
        yPx: tops[item]!,
        widthPx: shape.widthPx,
        heightPx: heightOf(shape),
      });
    });
  });
  /** Where a stretch leaves its item: at the edge of a device, or of the column for a line that passes. */
  const edgeX = (item: number, left: boolean): number => {
    const box = shapes[item] && boxes.get(shapes[item].id);
    if (box) return left ? box.xPx + box.widthPx : box.xPx;
    return left ? columnX[rank[item]!]! + widths[rank[item]!]! : columnX[rank[item]!]!;
  };
  const lines = new Map<string, readonly Point[]>();
  wires.forEach((wire, w) => {
    const points: Point[] = [];
    for (const index of columns.wires[w]!) {
      const s = stretches[index]!;
      const [y1, y2] = [yOf(s.a, s.aOffset), yOf(s.b, s.bOffset)];
      const at = trackX[s.channel]!.get(s.bundle)!;
      points.push([edgeX(s.a, s.aLeft), y1]);
      if (y1 !== y2 || s.aLeft === s.bLeft) points.push([at, y1], [at, y2]);
      points.push([edgeX(s.b, s.bLeft), y2]);
    }
    lines.set(wire.id, withoutRepeats(points));
  });
  const heightPx = tops.reduce((m, t, i) => Math.max(m, t + columns.height[i]!), 0);
  return {
    widthPx: x,
    heightPx,
    boxes,
    wires: lines,
    crossings,
    seats: new Map([...boxes].map(([id, { rank: r, row }]) => [id, { rank: r, row }])),
  };
}

/** Where the uprights of one channel stand: every track as broad as the broadest bundle on it. */
function setTracks(
  uprights: readonly Upright[],
  thickness: ReadonlyMap<number, number>,
  fromX: number,
): { at: ReadonlyMap<number, number>; widthPx: number; crossings: number } {
  const tracks = findTracks(uprights);
  const broad: number[] = [];
  uprights.forEach((u, i) => {
    const t = tracks[i]!;
    if (t >= 0) broad[t] = Math.max(broad[t] ?? 0, thickness.get(u.bundle) ?? 1);
  });
  const middles: number[] = [];
  let x = fromX;
  broad.forEach((w, t) => {
    middles[t] = x + w / 2;
    x += w + TRACK_GAP;
  });
  return {
    at: new Map(uprights.map((u, i) => [u.bundle, middles[Math.max(0, tracks[i]!)] ?? fromX])),
    widthPx: broad.length > 0 ? x - TRACK_GAP - fromX : 0,
    crossings: countOnTracks(uprights, tracks),
  };
}

/** Corners only: points between two others on one line are left out. */
function withoutRepeats(points: readonly Point[]): Point[] {
  const kept: Point[] = [];
  for (const p of points) {
    const [a, b] = [kept[kept.length - 2], kept[kept.length - 1]];
    if (b && b[0] === p[0] && b[1] === p[1]) continue;
    if (a && b && ((a[0] === b[0] && b[0] === p[0]) || (a[1] === b[1] && b[1] === p[1]))) kept.pop();
    kept.push(p);
  }
  return kept;
}
