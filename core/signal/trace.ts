import type { Rig } from '#core/model/rig/index.ts';
import { dbFromPower, exactly } from '#core/model/units/index.ts';
import type { Arrival } from './arrival.ts';
import { type Components, membersOf } from './components.ts';
import type { Graph } from './graph.ts';
import { followLoop } from './loop-trace.ts';
import { add, keep, NOTHING, pass } from './meet.ts';

/** One kind of thing at every node: the arrivals there, and how many of them the bounds left out. */
interface Spread {
  readonly lists: readonly (readonly Arrival[])[];
  readonly dropped: Int32Array;
}

export interface Traced {
  readonly sound: Spread;
  /** Pictures, traced in the same graph. */
  readonly picture: Spread;
  /** How many arrivals the bounds left out, of both. */
  readonly dropped: number;
}

/** What was traced in a graph that differs from this one by edges that lead to a few nodes. */
export interface Near {
  readonly traced: Traced;
  readonly touched: readonly number[];
}

/**
 * Every source, its sound and its picture, at every node that it reaches, in topological order; loops are bounded.
 * @param near  of the same sources: what no other edge leads to is taken over as it is, list by list
 */
export function trace(rig: Rig, graph: Graph, components: Components, near?: Near): Traced {
  const sound = spread(
    graph,
    components,
    originsOf(
      graph,
      'sound',
      rig.sources.map((s) => ({ ref: s.sound, level: s.level })),
    ),
    near && { ...near.traced.sound, touched: near.touched },
  );
  const picture = spread(
    graph,
    components,
    originsOf(
      graph,
      'picture',
      rig.sources.map((s) => ({ ref: s.picture, level: [0, 0, 0] as const })),
    ),
    near && { ...near.traced.picture, touched: near.touched },
  );
  const dropped = [sound, picture].reduce((sum, s) => sum + s.dropped.reduce((a, b) => a + b, 0), 0);
  return { sound, picture, dropped };
}

interface Origin {
  readonly ref: { readonly deviceId: string; readonly portId: string } | undefined;
  readonly level: readonly [number, number, number];
}

type Begin = { readonly sourceIndex: number; readonly level: Origin['level'] };

/** Which sources begin at which nodes. */
function originsOf(graph: Graph, carries: 'sound' | 'picture', origins: readonly Origin[]): Map<number, Begin[]> {
  const begins = new Map<number, Begin[]>();
  origins.forEach(({ ref, level }, sourceIndex) => {
    if (!ref) return;
    for (const node of graph.nodesOf(ref)) {
      if (graph.nodes[node]!.carries !== carries) continue;
      const here = begins.get(node);
      if (here) here.push({ sourceIndex, level });
      else begins.set(node, [{ sourceIndex, level }]);
    }
  });
  return begins;
}

const AT_ONCE = exactly(0);
const beginAt = (node: number, { sourceIndex, level }: Begin): Arrival => ({
  sourceIndex,
  node,
  levelDb: level[1],
  levelLowDb: level[0],
  levelHighDb: level[2],
  delayMs: AT_ONCE,
  polarity: 1,
  conversions: 0,
  lowHz: 0,
  highHz: Number.POSITIVE_INFINITY,
  clock: null,
  headroomDb: Number.POSITIVE_INFINITY,
  way: 7,
  edge: null,
  from: null,
  reverseDb: Number.NEGATIVE_INFINITY,
  copies: 1,
  cancelledBy: null,
});

function spread(
  graph: Graph,
  components: Components,
  origins: ReadonlyMap<number, readonly Begin[]>,
  near?: Spread & Pick<Near, 'touched'>,
): Spread {
  const { count, first, order, loops, of } = components;
  const { from, into, firstInto } = graph;
  const lists = (near?.lists.slice() ?? new Array(graph.nodes.length).fill(NOTHING)) as Arrival[][];
  const dropped = near?.dropped.slice() ?? new Int32Array(graph.nodes.length);
  /** 1 where something else is heard than before. */
  const moved = new Uint8Array(graph.nodes.length);
  const touched = new Uint8Array(graph.nodes.length);
  for (const node of near?.touched ?? []) touched[node] = 1;
  const isMoved = (node: number): boolean => {
    if (touched[node] === 1) return true;
    for (let i = firstInto[node]!; i < firstInto[node + 1]!; i++) if (moved[from[into[i]!]!] === 1) return true;
    return false;
  };
  for (let c = 0; c < count; c++) {
    const [begin, end] = [first[c]!, first[c + 1]!];
    let stays = near !== undefined;
    for (let i = begin; i < end && stays; i++) stays = !isMoved(order[i]!);
    if (stays) continue;
    for (let i = begin; i < end; i++) {
      const node = order[i]!;
      lists[node] = NOTHING;
      dropped[node] = 0;
      for (const begun of origins.get(node) ?? []) add(lists, node, beginAt(node, begun));
      for (let k = firstInto[node]!; k < firstInto[node + 1]!; k++) {
        const e = into[k]!;
        if (of[from[e]!] === c) continue;
        for (const arrival of lists[from[e]!]!) if (keep(lists, node, pass(graph, arrival, e)).gone) dropped[node]!++;
      }
    }
    if (loops[c]) dropped[order[begin]!]! += followLoop(graph, components, c, lists);
    if (near) recognize(components, c, lists, near.lists, moved);
    else for (let i = begin; i < end; i++) moved[order[i]!] = 1;
  }
  return { lists, dropped };
}

/**
 * Puts what arrives in a component just as it did before back in the place of its equal, and a whole list that is the same:
 * what is read of it, and what it goes on to, need not be looked at again. Notes where anything is another one.
 */
function recognize(
  components: Components,
  c: number,
  lists: Arrival[][],
  before: readonly (readonly Arrival[])[],
  moved: Uint8Array,
): void {
  // An arrival is unchanged if the one it continues is unchanged: what goes around is recognized from its start.
  const known = new Map<Arrival, Arrival>();
  const old = (arrival: Arrival): Arrival => {
    const chain: Arrival[] = [];
    let at: Arrival | null = arrival;
    while (at && components.of[at.node] === c && !known.has(at) && lists[at.node]!.includes(at)) {
      chain.push(at);
      at = at.from;
    }
    for (let next = chain.pop(); next; next = chain.pop()) {
      const from: Arrival | null = next.from ? (known.get(next.from) ?? next.from) : null;
      if (from !== next.from) next.from = from;
      known.set(next, before[next.node]!.find((other) => isEqual(other, next)) ?? next);
    }
    return known.get(arrival) ?? arrival;
  };
  for (const node of membersOf(components, c)) {
    const list = lists[node]!;
    const was = before[node]!;
    for (let i = 0; i < list.length; i++) list[i] = old(list[i]!);
    if (list.length === was.length && list.every((a, i) => a === was[i])) lists[node] = was as Arrival[];
    else moved[node] = 1;
  }
}

const isEqual = (a: Arrival, b: Arrival): boolean =>
  a.edge === b.edge &&
  a.from === b.from &&
  a.sourceIndex === b.sourceIndex &&
  a.levelDb === b.levelDb &&
  a.levelLowDb === b.levelLowDb &&
  a.levelHighDb === b.levelHighDb &&
  a.delayMs.nominal === b.delayMs.nominal &&
  a.polarity === b.polarity &&
  a.headroomDb === b.headroomDb &&
  a.copies === b.copies &&
  a.reverseDb === b.reverseDb &&
  a.cancelledBy === null &&
  b.cancelledBy === null;

/** The noise floor of every node, dB in its own scale, by power from all that feeds it; -Infinity for none. */
export function readNoise(graph: Graph, { count, first, order }: Components): Float64Array {
  const { edges, firstEdge, to } = graph;
  const power = new Float64Array(graph.nodes.length);
  for (let e = 0; e < edges.length; e++) power[to[e]!]! += edges[e]!.noisePower;
  for (let c = 0; c < count; c++) {
    const [begin, end] = [first[c]!, first[c + 1]!];
    // One turn: what a loop adds to its own noise beyond that belongs to the loop's own finding.
    for (let i = begin; i < end; i++) {
      const node = order[i]!;
      if (power[node] === 0) continue;
      for (let e = firstEdge[node]!; e < firstEdge[node + 1]!; e++) {
        power[to[e]!]! += power[node]! * edges[e]!.powerGain;
      }
    }
  }
  return power.map((p) => (p > 0 ? dbFromPower(p) : Number.NEGATIVE_INFINITY));
}
