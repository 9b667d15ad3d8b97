import type { Rig } from '#core/model/rig/index.ts';
import { findComponents } from './components.ts';
import { expand } from './expand.ts';

/** Maximum number of paths of one source that are followed at one node. */
const WAYS = 16;
/** Steps that a browser does in about two seconds; a desk of fifty devices needs a hundredth of it. */
const MAX_STEPS = 40_000_000;

/**
 * How many steps evaluating a rig takes at most: counted from its graph, the same on every machine. Tracing follows each
 * source over every edge; a loop is searched from each of its nodes, over its edges, for as many turns as it has nodes.
 */
export function stepsOf(rig: Rig): number {
  const graph = expand(rig);
  const { count, first, loops, of } = findComponents(graph);
  const inside = new Float64Array(count);
  for (let e = 0; e < graph.edges.length; e++) {
    const c = of[graph.from[e]!]!;
    if (c === of[graph.to[e]!]!) inside[c]!++;
  }
  let steps = graph.edges.length * rig.sources.length * WAYS;
  for (let c = 0; c < count; c++) if (loops[c]) steps += inside[c]! * (first[c + 1]! - first[c]!) ** 2;
  return steps;
}

/** Whether evaluating it would keep a page, or a request, waiting for long. */
export const isTooLarge = (rig: Rig): boolean => stepsOf(rig) > MAX_STEPS;
