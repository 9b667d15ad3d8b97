import type { Net } from './ranks.ts';
import { heightOf, LINE_HEIGHT, portOffset, type Shape, type Wire } from './types.ts';

/** A stretch of a line within one channel: from a place at its left or right side to another. */
interface Stretch {
  /** Lines of one output share a number: they run together. */
  readonly bundle: number;
  readonly channel: number;
  readonly a: number;
  readonly aOffset: number;
  readonly b: number;
  readonly bOffset: number;
  /** Whether each end stands at the channel's left side (the right side of a device), or at its right one. */
  readonly aLeft: boolean;
  readonly bLeft: boolean;
}

/**
 * Devices and passing lines in their columns. Items 0 … devices−1 are the devices, the others lines that pass a column.
 * Channel c lies left of column c.
 */
export interface Columns {
  readonly boxes: number;
  readonly rank: Int32Array;
  readonly height: Float64Array;
  readonly ranks: number;
  readonly stretches: readonly Stretch[];
  /** Stretches of each wire, in its order. */
  readonly wires: readonly (readonly number[])[];
}

const isSame = (s: Stretch, t: Stretch): boolean =>
  s.b === t.b && s.bundle === t.bundle && s.channel === t.channel && s.aOffset === t.aOffset && s.bOffset === t.bOffset;

/** Cuts every wire into stretches, one a channel, with a place kept in each column that it passes. */
export function cutIntoColumns(
  net: Net,
  shapes: readonly Shape[],
  wires: readonly Wire[],
  boxRank: Int32Array,
): Columns {
  const boxes = shapes.length;
  const rank: number[] = [...boxRank];
  const height: number[] = shapes.map(heightOf);
  const stretches: Stretch[] = [];
  const outputs = new Map<string, number>();
  const columns = 1 + boxRank.reduce((m, r) => Math.max(m, r), -1);
  /** Lines of one output share the places where they pass: by output, way and column. */
  const passing = new Map<number, number>();
  const pass = (output: number, back: boolean, at: number): number => {
    const key = (output * 2 + Number(back)) * columns + at;
    let item = passing.get(key);
    if (item === undefined) {
      item = rank.length;
      passing.set(key, item);
      rank.push(at);
      height.push(LINE_HEIGHT);
    }
    return item;
  };
  const begun: number[][] = [];
  /** Wires of one output share the stretches that they have in common. */
  const add = (stretch: Stretch): number => {
    begun[stretch.a] ??= [];
    const here = begun[stretch.a]!;
    const known = here.find((i) => isSame(stretches[i]!, stretch));
    if (known !== undefined) return known;
    here.push(stretches.length);
    return stretches.push(stretch) - 1;
  };
  const cut = wires.map((wire, w): number[] => {
    const [from, to] = [net.from[w]!, net.to[w]!];
    const output = `${wire.from.node} ${wire.from.port}`;
    const bundle = outputs.get(output) ?? outputs.size;
    outputs.set(output, bundle);
    const start = portOffset(shapes[from]!, shapes[from]!.outs.indexOf(wire.from.port));
    const end = portOffset(shapes[to]!, shapes[to]!.ins.indexOf(wire.to.port));
    const [r, s] = [boxRank[from]!, boxRank[to]!];
    const middle = LINE_HEIGHT / 2;
    const parts: number[] = [];
    if (r < s) {
      let [a, aOffset] = [from, start];
      for (let at = r + 1; at <= s; at++) {
        const [b, bOffset] = at === s ? [to, end] : [pass(bundle, false, at), middle];
        parts.push(add({ bundle, channel: at, a, aOffset, b, bOffset, aLeft: true, bLeft: false }));
        [a, aOffset] = [b, bOffset];
      }
      return parts;
    }
    // Back: out to the right, over the column of the giver and down to that of the taker, and in from the left.
    let a = pass(bundle, true, r);
    parts.push(
      add({ bundle, channel: r + 1, a: from, aOffset: start, b: a, bOffset: middle, aLeft: true, bLeft: true }),
    );
    for (let at = r; at > s; at--) {
      const b = pass(bundle, true, at - 1);
      parts.push(add({ bundle, channel: at, a, aOffset: middle, b, bOffset: middle, aLeft: false, bLeft: true }));
      a = b;
    }
    parts.push(add({ bundle, channel: s, a, aOffset: middle, b: to, bOffset: end, aLeft: false, bLeft: false }));
    return parts;
  });
  return {
    boxes,
    rank: Int32Array.from(rank),
    height: Float64Array.from(height),
    ranks: columns,
    stretches,
    wires: cut,
  };
}
