import type { Rig } from '#core/rig/index.ts';
import { dbFromPower } from '#core/units/index.ts';
import type { Arrival } from './arrival.ts';
import type { Components } from './components.ts';
import type { Graph } from './graph.ts';
import { followLoop } from './loop-trace.ts';
import { add, keep, NOTHING, pass } from './meet.ts';

export interface Traced {
  /** Arrivals of each node; sources in the order of the rig. */
  readonly arrivals: readonly (readonly Arrival[])[];
  /** Pictures, traced in the same graph. */
  readonly pictures: readonly (readonly Arrival[])[];
  /** How many arrivals the bounds left out. */
  readonly dropped: number;
}

/** Every source, its sound and its picture, at every node that it reaches, in topological order; loops are bounded. */
export function trace(rig: Rig, graph: Graph, components: Components): Traced {
  const sound = startOf(
    graph,
    (node) => node.carries === 'sound',
    rig.sources.map((s) => ({ ref: s.sound, level: s.level })),
  );
  const picture = startOf(
    graph,
    (node) => node.carries === 'picture',
    rig.sources.map((s) => ({ ref: s.picture, level: [0, 0, 0] as const })),
  );
  const dropped = spread(graph, components, sound) + spread(graph, components, picture);
  return { arrivals: sound, pictures: picture, dropped };
}

interface Origin {
  ref: { deviceId: string; portId: string } | undefined;
  level: readonly [number, number, number];
}

function startOf(graph: Graph, wanted: (node: Graph['nodes'][number]) => boolean, origins: Origin[]): Arrival[][] {
  const lists: Arrival[][] = new Array(graph.nodes.length).fill(NOTHING);
  origins.forEach(({ ref, level }, sourceIndex) => {
    if (!ref) return;
    for (const node of graph.nodesOf(ref)) {
      if (!wanted(graph.nodes[node]!)) continue;
      add(lists, node, {
        sourceIndex,
        node,
        levelDb: level[1],
        levelLowDb: level[0],
        levelHighDb: level[2],
        delayMs: 0,
        delayLowMs: 0,
        delayHighMs: 0,
        polarity: 1,
        conversions: 0,
        lowHz: 0,
        highHz: Number.POSITIVE_INFINITY,
        clock: null,
        headroomDb: Number.POSITIVE_INFINITY,
        way: 7,
        edge: -1,
        from: null,
        reverseDb: Number.NEGATIVE_INFINITY,
        copies: 1,
        cancelledBy: null,
      });
    }
  });
  return lists;
}

function spread(graph: Graph, components: Components, lists: Arrival[][]): number {
  const { count, first, order, loops, of } = components;
  let dropped = 0;
  for (let c = 0; c < count; c++) {
    if (loops[c]) dropped += followLoop(graph, components, c, lists);
    for (let i = first[c]!; i < first[c + 1]!; i++) {
      const node = order[i]!;
      const list = lists[node]!;
      for (let a = 0; a < list.length; a++) {
        for (let e = graph.firstEdge[node]!; e < graph.firstEdge[node + 1]!; e++) {
          const to = graph.to[e]!;
          if (of[to] !== c) dropped += keep(lists, to, pass(graph, list[a]!, e)).gone ? 1 : 0;
        }
      }
    }
  }
  return dropped;
}

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
