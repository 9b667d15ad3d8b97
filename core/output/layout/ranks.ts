import { leadsTo, postOrder, walk } from '#core/base/search/index.ts';
import type { Seats } from './types.ts';

/** Devices and their joints as columns: joint j runs from box `from[j]` to box `to[j]`. */
export interface Net {
  readonly ids: readonly string[];
  readonly from: Int32Array;
  readonly to: Int32Array;
  /** 1 for joints at which a loop is opened first. */
  readonly weak: Uint8Array;
}

/** Which joints run against the order of the signal: taken as backward, none of the rest closes a ring. */
function findBackward(net: Net, seats: Seats | undefined, by: Breaking): Uint8Array {
  const strong = [...net.from.keys()].filter((j) => !net.weak[j]);
  const firm: Net = {
    ids: net.ids,
    from: Int32Array.from(strong, (j) => net.from[j]!),
    to: Int32Array.from(strong, (j) => net.to[j]!),
    weak: new Uint8Array(strong.length),
  };
  const found = by === 'walk' ? backOnTheWalk(firm) : againstTheOrder(firm, seats);
  const backward = new Uint8Array(net.from.length);
  strong.forEach((j, i) => {
    backward[j] = found[i]!;
  });
  addWeak(net, backward);
  return backward;
}

function againstTheOrder(net: Net, seats: Seats | undefined): Uint8Array {
  const place = new Int32Array(net.ids.length);
  orderOf(net, seats).forEach((box, i) => {
    place[box] = i;
  });
  // The order is found over all devices at once: a joint that closes no ring may stand against it, and runs forward all the same.
  const ring = ringsOf(net);
  return Uint8Array.from(net.from, (from, j) => {
    const to = net.to[j]!;
    return ring[from] === ring[to] && place[from]! >= place[to]! ? 1 : 0;
  });
}

/** Devices that hang together by rings have the same number, all others one of their own (Kosaraju; Sharir 1981). */
function ringsOf({ ids, from, to }: Net): Int32Array {
  const count = ids.length;
  const outs: number[][] = Array.from({ length: count }, () => []);
  const ins: number[][] = Array.from({ length: count }, () => []);
  for (let j = 0; j < from.length; j++) {
    outs[from[j]!]!.push(to[j]!);
    ins[to[j]!]!.push(from[j]!);
  }
  const left = postOrder(outs.keys(), (box) => outs[box]!);
  const ring = new Int32Array(count).fill(-1);
  const free = (boxes: readonly number[]) => boxes.filter((box) => ring[box]! < 0);
  for (let i = count - 1; i >= 0; i--) for (const box of walk(free([left[i]!]), (at) => free(ins[at]!))) ring[box] = i;
  return ring;
}

/** Takes the weak joints in one by one, and those that would close a ring as backward. */
function addWeak({ ids, from, to, weak }: Net, backward: Uint8Array): void {
  const ahead: number[][] = Array.from({ length: ids.length }, () => []);
  for (let j = 0; j < from.length; j++) if (!weak[j] && !backward[j]) ahead[from[j]!]!.push(to[j]!);
  for (let j = 0; j < from.length; j++) {
    if (!weak[j]) continue;
    if (leadsTo(to[j]!, from[j]!, (box) => ahead[box]!)) backward[j] = 1;
    else ahead[from[j]!]!.push(to[j]!);
  }
}

/** How loops are opened: where least runs against the order, or where a walk along the signal comes back on itself. */
type Breaking = 'least' | 'walk';
/** A way to find the columns. */
export interface Ranking {
  readonly by: Breaking;
  /** Whether devices are drawn to what they are joined to, or stay as far left as they can. */
  readonly pulled: boolean;
}
export const RANKINGS: readonly Ranking[] = [
  { by: 'least', pulled: true },
  { by: 'walk', pulled: true },
  { by: 'walk', pulled: false },
  { by: 'least', pulled: false },
];

/** Joints that lead back to a device that the walk is still on: depth first, from what nothing feeds. */
function backOnTheWalk({ ids, from, to }: Net): Uint8Array {
  const count = ids.length;
  const backward = new Uint8Array(from.length);
  const outs: number[][] = Array.from({ length: count }, () => []);
  const fed = new Uint8Array(count);
  for (let j = 0; j < from.length; j++) {
    outs[from[j]!]!.push(j);
    if (from[j] !== to[j]) fed[to[j]!] = 1;
  }
  const state = new Uint8Array(count);
  const cursor = new Int32Array(count);
  const roots = [...Array(count).keys()].sort((a, b) => fed[a]! - fed[b]!);
  for (const root of roots) {
    if (state[root]) continue;
    const path = [root];
    state[root] = 1;
    while (path.length > 0) {
      const box = path[path.length - 1]!;
      const joint = outs[box]![cursor[box]!];
      if (joint === undefined) {
        state[box] = 2;
        path.pop();
        continue;
      }
      cursor[box]!++;
      const next = to[joint]!;
      if (state[next] === 1) backward[joint] = 1;
      else if (state[next] === 0) {
        state[next] = 1;
        path.push(next);
      }
    }
  }
  return backward;
}

/**
 * An order of all devices with few joints against it: what feeds only goes first, what is only fed goes last, and within
 * loops whatever gives most more than it takes (Eades, Lin and Smyth 1993). Devices that sat in a layout before keep
 * the order that they had, where a loop leaves a choice.
 */
function orderOf({ ids, from, to }: Net, seats: Seats | undefined): number[] {
  const count = ids.length;
  const outs: number[][] = Array.from({ length: count }, () => []);
  const ins: number[][] = Array.from({ length: count }, () => []);
  for (let j = 0; j < from.length; j++) {
    if (from[j] === to[j]) continue;
    outs[from[j]!]!.push(to[j]!);
    ins[to[j]!]!.push(from[j]!);
  }
  const gives = Int32Array.from(outs, (o) => o.length);
  const takes = Int32Array.from(ins, (i) => i.length);
  const left = new Uint8Array(count).fill(1);
  const head: number[] = [];
  const tail: number[] = [];
  const sources: number[] = [];
  const sinks: number[] = [];
  const note = (box: number): void => {
    if (!left[box]) return;
    if (takes[box] === 0) sources.push(box);
    else if (gives[box] === 0) sinks.push(box);
  };
  const remove = (box: number): void => {
    left[box] = 0;
    for (const o of outs[box]!)
      if (left[o]) {
        takes[o]!--;
        note(o);
      }
    for (const i of ins[box]!)
      if (left[i]) {
        gives[i]!--;
        note(i);
      }
  };
  const seatOf = (box: number): number => seats?.get(ids[box]!)?.rank ?? Number.POSITIVE_INFINITY;
  const pick = (): number => {
    let best = -1;
    for (let box = 0; box < count; box++) {
      if (!left[box]) continue;
      if (best < 0) best = box;
      else {
        const [a, b] = [seatOf(box), seatOf(best)];
        if (a !== b ? a < b : gives[box]! - takes[box]! > gives[best]! - takes[best]!) best = box;
      }
    }
    return best;
  };
  for (let box = 0; box < count; box++) note(box);
  while (head.length + tail.length < count) {
    const source = sources.shift();
    if (source !== undefined) {
      if (left[source]) {
        head.push(source);
        remove(source);
      }
      continue;
    }
    const sink = sinks.pop();
    if (sink !== undefined) {
      if (left[sink]) {
        tail.push(sink);
        remove(sink);
      }
      continue;
    }
    const box = pick();
    head.push(box);
    remove(box);
  }
  return [...head, ...tail.reverse()];
}

/** Rounds in which devices are drawn nearer to what they are joined to; one is mostly enough. */
const PULLS = 2;

/** The column of every device, from 0: behind all that feeds it, but for what runs backward. */
export function findRanks(net: Net, { by, pulled }: Ranking, seats?: Seats): Int32Array {
  const count = net.ids.length;
  const backward = findBackward(net, seats, by);
  const ahead: number[][] = Array.from({ length: count }, () => []);
  const behind: number[][] = Array.from({ length: count }, () => []);
  for (let j = 0; j < net.from.length; j++) {
    if (backward[j]) continue;
    ahead[net.from[j]!]!.push(net.to[j]!);
    behind[net.to[j]!]!.push(net.from[j]!);
  }
  const rank = longestWay(count, ahead, behind);
  for (let pull = 0; pulled && pull < PULLS; pull++) {
    let moved = false;
    const boxes = pull % 2 ? ascending(rank) : ascending(rank).reverse();
    for (const box of boxes) {
      const low = behind[box]!.reduce((m, b) => Math.max(m, rank[b]! + 1), 0);
      const high = ahead[box]!.reduce((m, b) => Math.min(m, rank[b]! - 1), Number.MAX_SAFE_INTEGER);
      const [gives, takes] = [ahead[box]!.length, behind[box]!.length];
      const wanted = gives > takes ? high : takes > gives ? low : rank[box]!;
      if (gives + takes > 0 && wanted !== rank[box]) {
        rank[box] = wanted;
        moved = true;
      }
    }
    if (!moved) break;
  }
  const least = rank.reduce((m, r) => Math.min(m, r), Number.MAX_SAFE_INTEGER);
  for (let b = 0; b < count; b++) rank[b]! -= least;
  return rank;
}

const ascending = (rank: Int32Array): number[] => [...rank.keys()].sort((a, b) => rank[a]! - rank[b]!);

function longestWay(count: number, ahead: readonly number[][], behind: readonly number[][]): Int32Array {
  const rank = new Int32Array(count);
  const waits = Int32Array.from(behind, (b) => b.length);
  const ready: number[] = [];
  for (let b = 0; b < count; b++) if (waits[b] === 0) ready.push(b);
  for (let i = 0; i < ready.length; i++) {
    const box = ready[i]!;
    for (const next of ahead[box]!) {
      rank[next] = Math.max(rank[next]!, rank[box]! + 1);
      if (--waits[next]! === 0) ready.push(next);
    }
  }
  return rank;
}
