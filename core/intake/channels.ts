import type { PortRef, Rig } from '#core/model/rig/index.ts';
import { type Evaluation, evaluate } from '#core/signal/index.ts';

/** Two channels of an end beside each other, as programs take them, and whose sound is on each. */
export interface Pair {
  /** 1 for the first two. */
  readonly number: number;
  readonly channels: readonly string[];
  readonly sources: ReadonlySet<string>;
  /** The same on each of the channels. */
  readonly on: readonly ReadonlySet<string>[];
}

/** What comes on the pairs of an end that brings sound; pairs that nothing comes on are left out. */
export function pairsAt(rig: Rig, ref: PortRef, evaluation: Evaluation = evaluate(rig)): Pair[] {
  const { graph, arrivals } = evaluation;
  const nodes = graph.nodesOf(ref).filter((n) => graph.nodes[n]!.carries === 'sound');
  const pairs: Pair[] = [];
  for (let i = 0; i < nodes.length; i += 2) {
    const both = nodes.slice(i, i + 2);
    const on = both.map((n) => new Set(arrivals[n]!.map((a) => rig.sources[a.sourceIndex]!.id)));
    const sources = new Set(on.flatMap((s) => [...s]));
    if (sources.size > 0)
      pairs.push({ number: i / 2 + 1, channels: both.map((n) => graph.nodes[n]!.channelId), sources, on });
  }
  return pairs;
}
