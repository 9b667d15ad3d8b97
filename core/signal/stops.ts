import { memoized } from '#core/base/memo/index.ts';
import type { PortRef, SettingValue } from '#core/model/rig/index.ts';
import { settingKey } from '#core/model/rig/index.ts';
import { type Break, breaksBetween } from './breaks.ts';
import type { BlockedEdge, Graph } from './graph.ts';

/** A setting on the way that is shut, and what opens it. */
export interface BlockingSetting {
  readonly deviceId: string;
  readonly settingId: string;
  readonly opensAt: SettingValue;
}

/** Why a source does not arrive at a place. */
export type Stop =
  /** There is a way, and these doors on it are shut, in the order that the sound meets them. */
  | { readonly kind: 'shut'; readonly doors: readonly BlockingSetting[]; readonly deviceIds: readonly string[] }
  /**
   * There is none: so far it comes, through open doors and shut ones, and this feeds the place; `breaks` is what lies
   * between on the way that comes closest, where the two hang together at all.
   */
  | {
      readonly kind: 'no-way';
      readonly reaches: readonly string[];
      readonly fedBy: readonly string[];
      readonly breaks: readonly Break[];
    };

/** BlockedEdge ways in columns, by the node that they leave: those of node n from `first[n]` up to `first[n + 1]`. */
interface ShutIndex {
  readonly first: Int32Array;
  readonly shut: readonly BlockedEdge[];
}

const shutIndex = memoized((graph: Graph): ShutIndex => {
  const first = new Int32Array(graph.nodes.length + 1);
  for (const s of graph.shut) first[s.from + 1]!++;
  for (let n = 0; n < graph.nodes.length; n++) first[n + 1]! += first[n]!;
  const next = first.slice();
  const shut: BlockedEdge[] = new Array(graph.shut.length);
  for (const s of graph.shut) shut[next[s.from]!++] = s;
  return { first, shut };
});

/** How the search reached each node: from which node, and through which blocked edge; -1 for none. */
interface Trail {
  readonly from: Int32Array;
  readonly shutAt: Int32Array;
  readonly shut: readonly BlockedEdge[];
}

/**
 * Where the sound of a source stops on its way to a place: the way with the fewest shut doors, the shortest of those
 * (breadth first, in layers by the number of doors). Null where it arrives. A way that would need one switch in two
 * positions at once is none.
 */
export function whereItStops(graph: Graph, source: PortRef, place: PortRef): Stop | null {
  const { first, shut } = shutIndex(graph);
  const goals = new Set(sounding(graph, place));
  const count = graph.nodes.length;
  const doorsTo = new Int32Array(count).fill(-1);
  const trail: Trail = { from: new Int32Array(count).fill(-1), shutAt: new Int32Array(count).fill(-1), shut };
  const layers: number[][] = [sounding(graph, source)];
  for (const node of layers[0]!) doorsTo[node] = 0;
  for (let doors = 0; doors < layers.length; doors++) {
    const layer = layers[doors] ?? [];
    const reach = (node: number, to: number, more: number, shutAt: number) => {
      const total = doors + more;
      if (doorsTo[to]! >= 0 && doorsTo[to]! <= total) return;
      doorsTo[to] = total;
      trail.from[to] = node;
      trail.shutAt[to] = shutAt;
      layers[total] ??= [];
      layers[total]!.push(to);
    };
    for (let i = 0; i < layer.length; i++) {
      const node = layer[i]!;
      // Met again in an earlier layer: that way had fewer doors.
      if (doorsTo[node] !== doors) continue;
      if (goals.has(node)) return doors === 0 ? null : wayTo(graph, trail, node);
      for (let e = graph.firstEdge[node]!; e < graph.firstEdge[node + 1]!; e++) reach(node, graph.to[e]!, 0, -1);
      for (let s = first[node]!; s < first[node + 1]!; s++)
        if (!contradicts(trail, node, shut[s]!)) reach(node, shut[s]!.to, shut[s]!.doors.length, s);
    }
  }
  return {
    kind: 'no-way',
    reaches: lastReached(graph, doorsTo),
    fedBy: feeding(graph, goals),
    breaks: breaksBetween(graph, source, place),
  };
}

const sounding = (graph: Graph, ref: PortRef): number[] =>
  graph.nodesOf(ref).filter((n) => graph.nodes[n]!.carries === 'sound');

/** Whether the path so far has already used one of these settings in another position. */
function contradicts({ from, shutAt, shut }: Trail, node: number, { deviceId, doors }: BlockedEdge): boolean {
  for (let at = node; at >= 0; at = from[at]!) {
    const before = shut[shutAt[at]!];
    if (before?.deviceId !== deviceId) continue;
    if (before.doors.some((b) => doors.some((d) => d.settingId === b.settingId && d.opensAt !== b.opensAt)))
      return true;
  }
  return false;
}

function wayTo(graph: Graph, { from, shutAt, shut }: Trail, end: number): Stop {
  const deviceIds: string[] = [];
  const doors = new Map<string, BlockingSetting>();
  const nodes: number[] = [];
  for (let node = end; node >= 0; node = from[node]!) nodes.push(node);
  for (const node of nodes.reverse()) {
    const { deviceId } = graph.nodes[node]!;
    if (!deviceIds.includes(deviceId)) deviceIds.push(deviceId);
    for (const door of shut[shutAt[node]!]?.doors ?? []) {
      const key = settingKey(deviceId, door.settingId);
      if (!doors.has(key)) doors.set(key, { deviceId, ...door });
    }
  }
  return { kind: 'shut', doors: [...doors.values()], deviceIds };
}

/** Devices that it reaches and that pass it on to no other device. */
function lastReached({ nodes, edges, from, to }: Graph, doorsTo: Int32Array): string[] {
  const reached = new Set<string>();
  const forwardsInput = new Set<string>();
  for (let n = 0; n < nodes.length; n++) if (doorsTo[n]! >= 0) reached.add(nodes[n]!.deviceId);
  for (let e = 0; e < edges.length; e++)
    if (doorsTo[from[e]!]! >= 0 && 'cableId' in edges[e]!.via && nodes[to[e]!]!.deviceId !== nodes[from[e]!]!.deviceId)
      forwardsInput.add(nodes[from[e]!]!.deviceId);
  return [...reached].filter((id) => !forwardsInput.has(id));
}

/** Devices that stand before a place. */
function feeding({ nodes, edges, from, to }: Graph, goals: ReadonlySet<number>): string[] {
  const devices = new Set([...goals].map((n) => nodes[n]!.deviceId));
  const fed = new Set<string>();
  for (let e = 0; e < edges.length; e++)
    if ('cableId' in edges[e]!.via && devices.has(nodes[to[e]!]!.deviceId)) fed.add(nodes[from[e]!]!.deviceId);
  return [...fed].filter((id) => !devices.has(id));
}
