import type { Graph } from './graph.ts';

/** Strongly connected components in topological order: every edge leads to the same component or a later one. */
export interface Components {
  /** Component of each node. */
  readonly of: Int32Array;
  /** Nodes of each component, in topological order of the components. */
  readonly members: readonly (readonly number[])[];
  /** Whether a signal can come back to a node of the component. */
  readonly loops: readonly boolean[];
}

/** Tarjan 1972, without recursion: a rig may be as long as it likes. */
export function findComponents(graph: Graph): Components {
  const { to: ends, firstEdge } = graph;
  const count = graph.nodes.length;
  const order = new Int32Array(count).fill(-1);
  const lowest = new Int32Array(count);
  const onStack = new Uint8Array(count);
  const cursor = firstEdge.slice(0, count);
  const of = new Int32Array(count);
  const stack: number[] = [];
  const members: number[][] = [];
  let visited = 0;
  for (let root = 0; root < count; root++) {
    if (order[root]! >= 0) continue;
    const path = [root];
    while (path.length > 0) {
      const node = path[path.length - 1]!;
      if (order[node]! < 0) {
        order[node] = lowest[node] = visited++;
        stack.push(node);
        onStack[node] = 1;
      }
      const end = firstEdge[node + 1]!;
      let deeper = -1;
      while (cursor[node]! < end && deeper < 0) {
        const to = ends[cursor[node]!]!;
        cursor[node]!++;
        if (order[to]! < 0) deeper = to;
        else if (onStack[to]) lowest[node] = Math.min(lowest[node]!, order[to]!);
      }
      if (deeper >= 0) {
        path.push(deeper);
        continue;
      }
      path.pop();
      const parent = path[path.length - 1];
      if (parent !== undefined) lowest[parent] = Math.min(lowest[parent]!, lowest[node]!);
      if (lowest[node] !== order[node]) continue;
      const component: number[] = [];
      let member: number;
      do {
        member = stack.pop()!;
        onStack[member] = 0;
        of[member] = members.length;
        component.push(member);
      } while (member !== node);
      members.push(component);
    }
  }
  // Tarjan finishes the last components first.
  members.reverse();
  for (let n = 0; n < count; n++) of[n] = members.length - 1 - of[n]!;
  const loops = members.map((m) => m.length > 1 || selfLoop(graph, m[0]!));
  return { of, members, loops };
}

function selfLoop({ to, firstEdge }: Graph, node: number): boolean {
  for (let e = firstEdge[node]!; e < firstEdge[node + 1]!; e++) if (to[e] === node) return true;
  return false;
}

/** A way that comes back to where it began: the loudest one of its component. */
export interface Loop {
  readonly deviceIds: readonly string[];
  readonly gainDb: number;
  readonly delayMs: number;
  /** Through air, so that its gain is an estimate with hidden peaks. */
  readonly throughAir: boolean;
}

/** The loudest simple return of every looping component, by relaxation over at most as many steps as it has nodes. */
export function readLoops(graph: Graph, components: Components): Loop[] {
  return components.members.flatMap((members, c) =>
    components.loops[c] ? [loudestReturn(graph, components, members, c)] : [],
  );
}

function loudestReturn(graph: Graph, components: Components, members: readonly number[], c: number): Loop {
  const { edges, to: ends, firstEdge, nodes } = graph;
  let best: { gainDb: number; trail: number[] } = { gainDb: Number.NEGATIVE_INFINITY, trail: [] };
  for (const start of members) {
    let front = new Map<number, { gainDb: number; trail: number[] }>([[start, { gainDb: 0, trail: [] }]]);
    for (let step = 0; step < members.length && front.size > 0; step++) {
      const next = new Map<number, { gainDb: number; trail: number[] }>();
      for (const [node, at] of front) {
        for (let e = firstEdge[node]!; e < firstEdge[node + 1]!; e++) {
          const to = ends[e]!;
          if (components.of[to] !== c || at.trail.some((t) => ends[t] === to)) continue;
          const gainDb = at.gainDb + edges[e]!.gainDb.nominal;
          const reached = { gainDb, trail: [...at.trail, e] };
          if (to === start) {
            if (gainDb > best.gainDb) best = reached;
          } else if (gainDb > (next.get(to)?.gainDb ?? Number.NEGATIVE_INFINITY)) next.set(to, reached);
        }
      }
      front = next;
    }
  }
  return {
    deviceIds: [...new Set(best.trail.map((e) => nodes[ends[e]!]!.deviceId))],
    gainDb: best.gainDb,
    delayMs: best.trail.reduce((ms, e) => ms + edges[e]!.delayMs.nominal, 0),
    throughAir: best.trail.some((e) => nodes[graph.from[e]!]!.scale === 'spl' && 'cableId' in edges[e]!.via),
  };
}
