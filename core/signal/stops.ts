import type { PortRef, SettingValue } from '#core/rig/index.ts';
import type { Graph, Shut } from './graph.ts';

/** A setting on the way that is shut, and what opens it. */
export interface ClosedDoor {
  readonly deviceId: string;
  readonly settingId: string;
  readonly opensAt: SettingValue;
}

/** Why nothing of a source comes to a place. */
export type Stop =
  /** There is a way, and these doors on it are shut, in the order that the sound meets them. */
  | { readonly kind: 'shut'; readonly doors: readonly ClosedDoor[]; readonly deviceIds: readonly string[] }
  /** There is none: so far it comes, through open doors and shut ones, and this feeds the place. */
  | { readonly kind: 'no-way'; readonly reaches: readonly string[]; readonly fedBy: readonly string[] };

interface Step {
  readonly from: number;
  readonly shut: Shut | null;
}

/**
 * Where the sound of a source stops on its way to a place: the way with the fewest shut doors, the shortest of those
 * (breadth first, in layers by the number of doors). Null where it arrives. A way that would need one switch in two
 * positions at once is none.
 */
export function whereItStops(graph: Graph, source: PortRef, place: PortRef): Stop | null {
  const shutFrom = new Map<number, Shut[]>();
  for (const s of graph.shut) {
    const here = shutFrom.get(s.from);
    if (here) here.push(s);
    else shutFrom.set(s.from, [s]);
  }
  const goals = new Set(sounding(graph, place));
  const doorsTo = new Int32Array(graph.nodes.length).fill(-1);
  const came = new Map<number, Step>();
  const layers: number[][] = [sounding(graph, source)];
  for (const node of layers[0]!) doorsTo[node] = 0;
  for (let doors = 0; doors < layers.length; doors++) {
    const layer = layers[doors] ?? [];
    for (let i = 0; i < layer.length; i++) {
      const node = layer[i]!;
      // Met again in an earlier layer: that way had fewer doors.
      if (doorsTo[node] !== doors) continue;
      if (goals.has(node)) return doors === 0 ? null : wayTo(graph, came, node);
      const reach = (to: number, more: number, shut: Shut | null) => {
        const total = doors + more;
        if (doorsTo[to]! >= 0 && doorsTo[to]! <= total) return;
        doorsTo[to] = total;
        came.set(to, { from: node, shut });
        layers[total] ??= [];
        layers[total]!.push(to);
      };
      for (let e = graph.firstEdge[node]!; e < graph.firstEdge[node + 1]!; e++) reach(graph.to[e]!, 0, null);
      for (const shut of shutFrom.get(node) ?? [])
        if (!contradicts(came, node, shut)) reach(shut.to, shut.doors.length, shut);
    }
  }
  return { kind: 'no-way', reaches: lastReached(graph, doorsTo), fedBy: feeding(graph, goals) };
}

const sounding = (graph: Graph, ref: PortRef): number[] =>
  graph.nodesOf(ref).filter((n) => graph.nodes[n]!.carries === 'sound');

/** Whether the way so far has opened one of these doors at another position. */
function contradicts(came: ReadonlyMap<number, Step>, node: number, { deviceId, doors }: Shut): boolean {
  for (let step = came.get(node); step; step = came.get(step.from)) {
    if (step.shut?.deviceId !== deviceId) continue;
    for (const before of step.shut.doors)
      if (doors.some((d) => d.settingId === before.settingId && d.opensAt !== before.opensAt)) return true;
  }
  return false;
}

function wayTo(graph: Graph, came: ReadonlyMap<number, Step>, end: number): Stop {
  const nodes = [end];
  const doors: ClosedDoor[] = [];
  for (let step = came.get(end); step; step = came.get(step.from)) {
    nodes.unshift(step.from);
    if (!step.shut) continue;
    const { deviceId } = step.shut;
    doors.unshift(...step.shut.doors.map((d) => ({ deviceId, ...d })));
  }
  const known = new Set<string>();
  const once = doors.filter(({ deviceId, settingId }) => {
    const key = `${deviceId}.${settingId}`;
    return !known.has(key) && known.add(key);
  });
  return { kind: 'shut', doors: once, deviceIds: [...new Set(nodes.map((n) => graph.nodes[n]!.deviceId))] };
}

/** Boxes that it comes to and that hand it on to no other box. */
function lastReached({ nodes, edges, from, to }: Graph, doorsTo: Int32Array): string[] {
  const reached = new Set<string>();
  const handsOn = new Set<string>();
  for (let n = 0; n < nodes.length; n++) if (doorsTo[n]! >= 0) reached.add(nodes[n]!.deviceId);
  for (let e = 0; e < edges.length; e++)
    if (doorsTo[from[e]!]! >= 0 && 'cableId' in edges[e]!.via && nodes[to[e]!]!.deviceId !== nodes[from[e]!]!.deviceId)
      handsOn.add(nodes[from[e]!]!.deviceId);
  return [...reached].filter((id) => !handsOn.has(id));
}

/** Boxes that stand before a place. */
function feeding({ nodes, edges, from, to }: Graph, goals: ReadonlySet<number>): string[] {
  const devices = new Set([...goals].map((n) => nodes[n]!.deviceId));
  const fed = new Set<string>();
  for (let e = 0; e < edges.length; e++)
    if ('cableId' in edges[e]!.via && devices.has(nodes[to[e]!]!.deviceId)) fed.add(nodes[from[e]!]!.deviceId);
  return [...fed].filter((id) => !devices.has(id));
}
