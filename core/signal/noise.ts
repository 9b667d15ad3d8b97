import type { Rig } from '#core/model/rig/index.ts';
import { findListener } from '#core/model/rig/index.ts';
import { findComponents } from './components.ts';
import type { Graph } from './graph.ts';

/** One place where noise is added, and how much of it arrives at the tap point. */
export interface NoisePart {
  /** The edge whose own noise it is. */
  readonly edge: number;
  /** Over 0 dB of the tap's scale. */
  readonly power: number;
}

/**
 * Where the noise at a node comes from, largest first: the cascade of noise floors read backwards, so that each edge's
 * own noise is weighted by the power gain from there to here. Their sum is the noise floor of the evaluation.
 */
export const noiseParts = (graph: Graph, node: number): NoisePart[] =>
  noisesInto(graph, node).sort((a, b) => b.power - a.power);

/** The same, unsorted: for callers that look for some of them. */
export function noisesInto(graph: Graph, node: number): NoisePart[] {
  const { edges, firstEdge, to } = graph;
  const { count, first, order } = findComponents(graph);
  // The power gain from each node to the tap; a loop is passed once, as in the floor itself.
  const gain = new Float64Array(graph.nodes.length);
  gain[node] = 1;
  for (let c = count - 1; c >= 0; c--) {
    for (let i = first[c + 1]! - 1; i >= first[c]!; i--) {
      const from = order[i]!;
      // Most places are no part of what is heard here.
      for (let e = firstEdge[from]!; e < firstEdge[from + 1]!; e++)
        if (gain[to[e]!]! > 0) gain[from]! += gain[to[e]!]! * edges[e]!.powerGain;
    }
  }
  const parts: NoisePart[] = [];
  for (let e = 0; e < edges.length; e++) {
    const after = gain[to[e]!]!;
    if (after === 0) continue;
    const power = edges[e]!.noisePower * after;
    if (power > 0) parts.push({ edge: e, power });
  }
  return parts;
}

/**
 * Noise floors with those that were measured in place of what was expected there; what the rig has changed since then has
 * changed them by as much.
 */
export function withMeasuredNoise(rig: Rig, graph: Graph, noiseDb: Float64Array): Float64Array {
  const measured = rig.measurements.filter((m) => m.kind === 'noise');
  if (measured.length === 0) return noiseDb;
  const out = noiseDb.slice();
  for (const { listenerId, db, expectedDb } of measured) {
    const listener = findListener(rig, listenerId);
    if (!listener) continue;
    for (const node of graph.nodesOf(listener.sound)) {
      if (graph.nodes[node]!.carries !== 'sound') continue;
      const now = noiseDb[node]!;
      out[node] = db.mean + (expectedDb !== null && Number.isFinite(now) ? now - expectedDb : 0);
    }
  }
  return out;
}
