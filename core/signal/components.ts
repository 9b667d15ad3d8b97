import type { Graph } from './graph.ts';

/**
 * Strongly connected components in topological order: every edge leads to the same component or a later one. The nodes
 * of component c are those of `order` from `first[c]` up to `first[c + 1]`.
 */
export interface Components {
  readonly count: number;
  /** Component of each node. */
  readonly of: Int32Array;
  readonly order: Int32Array;
  readonly first: Int32Array;
  /** 1 where a signal can return to a node of the component (a loop). */
  readonly loops: Uint8Array;
}

export const membersOf = ({ order, first }: Components, c: number): Int32Array =>
  order.subarray(first[c]!, first[c + 1]!);

const known = new WeakMap<Graph, Components>();

/**
 * The components of a graph, found once.
 * @param like  a graph with the same ends of all edges, whatever they do: its components are these
 */
export function findComponents(graph: Graph, like?: Graph): Components {
  let found = known.get(graph) ?? (like && known.get(like));
  found ??= tarjan(graph);
  known.set(graph, found);
  return found;
}

/** Tarjan 1972, without recursion: a rig may be as long as it likes. */
function tarjan(graph: Graph): Components {
  const { to: ends, firstEdge } = graph;
  const nodes = graph.nodes.length;
  // Visits are counted from 1, so that 0 says 'not yet'.
  const visit = new Int32Array(nodes);
  const lowest = new Int32Array(nodes);
  const onStack = new Uint8Array(nodes);
  const cursor = firstEdge.slice(0, nodes);
  const stack = new Int32Array(nodes);
  const path = new Int32Array(nodes);
  // Tarjan finishes the last components first: they are written from the back.
  const order = new Int32Array(nodes);
  const starts = new Int32Array(nodes);
  let [visited, onTop, free, count] = [0, 0, nodes, 0];
  for (let root = 0; root < nodes; root++) {
    if (visit[root]! > 0) continue;
    let depth = 0;
    path[depth++] = root;
    while (depth > 0) {
      const node = path[depth - 1]!;
      if (visit[node] === 0) {
        visit[node] = lowest[node] = ++visited;
        stack[onTop++] = node;
        onStack[node] = 1;
      }
      const end = firstEdge[node + 1]!;
      let deeper = -1;
      while (cursor[node]! < end && deeper < 0) {
        const to = ends[cursor[node]!]!;
        cursor[node]!++;
        if (visit[to] === 0) deeper = to;
        else if (onStack[to] === 1 && visit[to]! < lowest[node]!) lowest[node] = visit[to]!;
      }
      if (deeper >= 0) {
        path[depth++] = deeper;
        continue;
      }
      depth--;
      if (depth > 0 && lowest[node]! < lowest[path[depth - 1]!]!) lowest[path[depth - 1]!] = lowest[node]!;
      if (lowest[node] !== visit[node]) continue;
      let member: number;
      do {
        member = stack[--onTop]!;
        onStack[member] = 0;
        order[--free] = member;
      } while (member !== node);
      starts[count++] = free;
    }
  }
  return { count, ...numbered(graph, order, starts.subarray(0, count).reverse()) };
}

/** Components in topological order, and which of them contain a loop. */
function numbered(graph: Graph, order: Int32Array, starts: Int32Array): Omit<Components, 'count'> {
  const first = new Int32Array(starts.length + 1);
  first.set(starts);
  first[starts.length] = order.length;
  const of = new Int32Array(order.length);
  const loops = new Uint8Array(starts.length);
  for (let c = 0; c < starts.length; c++) {
    const [begin, end] = [first[c]!, first[c + 1]!];
    for (let i = begin; i < end; i++) of[order[i]!] = c;
    if (end - begin > 1 || selfLoop(graph, order[begin]!)) loops[c] = 1;
  }
  return { of, order, first, loops };
}

function selfLoop({ to, firstEdge }: Graph, node: number): boolean {
  for (let e = firstEdge[node]!; e < firstEdge[node + 1]!; e++) if (to[e] === node) return true;
  return false;
}
