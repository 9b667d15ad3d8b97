import {
  chosenDevice,
  computerOf,
  type Device,
  type DeviceType,
  findTypes,
  onTwoComputers,
  type Rig,
  sameEnd,
  soundDevicesOf,
} from '#core/model/rig/index.ts';
import { cableLinks } from './cable-links.ts';
import type { BlockedEdge, Disabled, Edge, Elsewhere, Graph, Node } from './graph.ts';
import { insideOf } from './inside.ts';
import { type Link, layoutOf } from './layout.ts';

/** What a graph was made of: what a patch of it is held against. */
interface Made {
  readonly devices: readonly Device[];
  readonly types: Rig['types'];
  readonly frameRate: Rig['session']['frameRate'];
  /** The first node of each device, its first shut way, its first disabled one; and one past the last. */
  readonly firstNode: readonly number[];
  readonly firstShut: readonly number[];
  readonly firstDisabled: readonly number[];
}
const made = new WeakMap<Graph, Made>();

/**
 * The rig with its settings as a graph of channels: nodes are (device, port, channel), edges the open ways inside
 * devices and the cables between them. No kind of device is known here: everything follows from its type's data.
 */
export function expand(rig: Rig): Graph {
  const types = findTypes(rig);
  const nodes: Node[] = [];
  const firstOf = new Map<string, number>();
  const typeOf = new Map<string, DeviceType>();
  const computers = new Map<string, string | null>();
  const links: Link[] = [];
  const disabled: Disabled[] = [];
  const shut: BlockedEdge[] = [];
  const firsts = { firstNode: [0], firstShut: [0], firstDisabled: [0] };
  for (const device of rig.devices) {
    const first = nodes.length;
    const type = types.get(device.typeId)!;
    firstOf.set(device.id, first);
    typeOf.set(device.id, type);
    computers.set(device.id, computerOf(device, type));
    const inside = insideOf(device, type, rig.session.frameRate);
    for (const node of inside.nodes) nodes.push(node);
    for (const { edge, from, to } of inside.links) links.push({ edge, from: first + from, to: first + to });
    for (const off of inside.disabled) disabled.push(moved(off, first));
    for (const door of inside.shut) shut.push(moved(door, first));
    firsts.firstNode.push(nodes.length);
    firsts.firstShut.push(shut.length);
    firsts.firstDisabled.push(disabled.length);
  }
  for (const cable of rig.cables) {
    const [fromType, toType] = [typeOf.get(cable.from.deviceId)!, typeOf.get(cable.to.deviceId)!];
    const [from, to] = [firstOf.get(cable.from.deviceId)!, firstOf.get(cable.to.deviceId)!];
    const [here, there] = [computers.get(cable.from.deviceId)!, computers.get(cable.to.deviceId)!];
    if (cable.medium === 'software' && onTwoComputers(here, there)) continue;
    for (const link of cableLinks(cable, fromType, toType))
      links.push({ edge: link.edge, from: from + link.from, to: to + link.to });
  }
  const nodesOf = (ref: { readonly deviceId: string; readonly portId: string }): number[] => {
    const type = typeOf.get(ref.deviceId);
    const layout = type && layoutOf(type).get(ref.portId);
    return layout ? layout.spec.channels.map((_, i) => firstOf.get(ref.deviceId)! + layout.first + i) : [];
  };
  const elsewhere = rig.cables.flatMap((cable) => (cable.follows ? leadsElsewhere(rig, cable) : []));
  const graph = { nodes, shut, disabled, elsewhere, cables: rig.cables, nodesOf, ...inColumns(nodes.length, links) };
  made.set(graph, { devices: rig.devices, types: rig.types, frameRate: rig.session.frameRate, ...firsts });
  return graph;
}

function leadsElsewhere(rig: Rig, cable: Rig['cables'][number]): Elsewhere[] {
  const chosen = chosenDevice(rig, findTypes(rig), cable);
  if (!chosen) return [];
  return soundDevicesOf(rig, chosen.computerId, chosen.use)
    .filter((other) => !sameEnd(other, chosen.ref))
    .map((other) => ({ cableId: cable.id, from: cable.from, to: cable.to, [chosen.at]: other }));
}

const moved = <T extends { readonly from: number; readonly to: number }>(way: T, by: number): T => ({
  ...way,
  from: by + way.from,
  to: by + way.to,
});

type Columns = Pick<Graph, 'edges' | 'from' | 'to' | 'firstEdge' | 'into' | 'firstInto'>;

function inColumns(nodeCount: number, links: readonly Link[]): Columns {
  const firstEdge = new Int32Array(nodeCount + 1);
  for (const link of links) firstEdge[link.from + 1]!++;
  for (let n = 0; n < nodeCount; n++) firstEdge[n + 1]! += firstEdge[n]!;
  const next = firstEdge.slice();
  const edges: Edge[] = new Array(links.length);
  const from = new Int32Array(links.length);
  const to = new Int32Array(links.length);
  for (const link of links) {
    const e = next[link.from]!++;
    edges[e] = link.edge;
    from[e] = link.from;
    to[e] = link.to;
  }
  return { edges, from, to, firstEdge, ...intoNodes(nodeCount, to) };
}

/** Edges by the node that they lead to: a counting sort, so that they stay in order. */
function intoNodes(nodeCount: number, to: Int32Array): Pick<Graph, 'into' | 'firstInto'> {
  const firstInto = new Int32Array(nodeCount + 1);
  for (const node of to) firstInto[node + 1]!++;
  for (let n = 0; n < nodeCount; n++) firstInto[n + 1]! += firstInto[n]!;
  const next = firstInto.slice();
  const into = new Int32Array(to.length);
  for (let e = 0; e < to.length; e++) into[next[to[e]!]!++] = e;
  return { into, firstInto };
}

/** A graph that differs from another one by the settings of a few devices. */
export interface Patched {
  readonly graph: Graph;
  /** Nodes that other edges lead to than before: what they hear has to be looked at again. */
  readonly touched: readonly number[];
  /** Edges have come or gone: the order of the nodes may be another one. */
  readonly rewired: boolean;
}

/** More devices than this share are not worth a patch. */
const MAX_PATCHED = 0.25;

/** The graph of a rig, made of that of one which has the same devices and cables; null where more than a few settings differ. */
export function patch(before: Graph, rig: Rig): Patched | null {
  const was = made.get(before);
  if (!was || was.types !== rig.types || before.cables !== rig.cables || was.frameRate !== rig.session.frameRate)
    return null;
  const { devices } = was;
  if (devices.length !== rig.devices.length) return null;
  const changed: number[] = [];
  for (let d = 0; d < devices.length; d++) {
    const [a, b] = [devices[d]!, rig.devices[d]!];
    if (a === b) continue;
    if (a.id !== b.id || a.typeId !== b.typeId || a.on !== b.on) return null;
    changed.push(d);
  }
  if (changed.length > Math.max(1, devices.length * MAX_PATCHED)) return null;
  const types = findTypes(rig);
  const patches = changed.map((d): PatchedDevice => {
    const device = rig.devices[d]!;
    const inside = insideOf(device, types.get(device.typeId)!, rig.session.frameRate, devices[d]);
    return { at: d, first: was.firstNode[d]!, end: was.firstNode[d + 1]!, ...inside };
  });
  const columns = patchColumns(before, patches);
  const shut = replaced(before.shut, was.firstShut, patches, (p) => p.shut);
  const disabled = replaced(before.disabled, was.firstDisabled, patches, (p) => p.disabled);
  const graph = { ...before, ...columns, shut: shut.list, disabled: disabled.list };
  made.set(graph, { ...was, devices: rig.devices, firstShut: shut.firsts, firstDisabled: disabled.firsts });
  return { graph, touched: touchedBy(before, patches), rewired: columns.to !== before.to };
}

interface PatchedDevice extends Pick<ReturnType<typeof insideOf>, 'links' | 'shut' | 'disabled'> {
  /** Which device of the rig it is, its first node and the one after its last. */
  readonly at: number;
  readonly first: number;
  readonly end: number;
}

/** A list in the order of the devices, with what some of them bring replaced. */
function replaced<T extends { readonly from: number; readonly to: number }>(
  before: readonly T[],
  firsts: readonly number[],
  patches: readonly PatchedDevice[],
  of: (patch: PatchedDevice) => readonly T[],
): { list: readonly T[]; firsts: readonly number[] } {
  const list: T[] = [];
  const shifted = firsts.slice();
  let [done, shift] = [0, 0];
  patches.forEach((p, i) => {
    const own = of(p);
    for (let k = done; k < firsts[p.at]!; k++) list.push(before[k]!);
    for (const item of own) list.push(moved(item, p.first));
    done = firsts[p.at + 1]!;
    shift += own.length - (done - firsts[p.at]!);
    const until = patches[i + 1]?.at ?? firsts.length - 1;
    if (shift !== 0) for (let d = p.at + 1; d <= until; d++) shifted[d] = firsts[d]! + shift;
  });
  for (let k = done; k < before.length; k++) list.push(before[k]!);
  return { list, firsts: shifted };
}

/** Nodes that added or removed edges lead to. */
function touchedBy(before: Graph, patches: readonly PatchedDevice[]): number[] {
  const touched: number[] = [];
  for (const { first, end, links } of patches) {
    const gone = new Map<Edge, number>();
    for (let e = before.firstEdge[first]!; e < before.firstEdge[end]!; e++)
      if ('deviceId' in before.edges[e]!.via) gone.set(before.edges[e]!, before.to[e]!);
    for (const { edge, to } of links) if (!gone.delete(edge)) touched.push(first + to);
    touched.push(...gone.values());
  }
  return touched;
}

/** Columns with the edges inside some devices replaced: their cables stay after them, as they were. The ends are the very same where none has come or gone. */
function patchColumns(before: Graph, patches: readonly PatchedDevice[]): Columns {
  const nodeCount = before.nodes.length;
  const firstEdge = new Int32Array(nodeCount + 1);
  const edges: Edge[] = [];
  const to: number[] = [];
  const copy = (start: number, end: number) => {
    for (let node = start; node < end; node++) {
      firstEdge[node] = edges.length;
      for (let e = before.firstEdge[node]!; e < before.firstEdge[node + 1]!; e++) {
        edges.push(before.edges[e]!);
        to.push(before.to[e]!);
      }
    }
  };
  let done = 0;
  for (const { first, end, links } of patches) {
    copy(done, first);
    const own: Link[][] = Array.from({ length: end - first }, () => []);
    for (const link of links) own[link.from]!.push(link);
    for (let node = first; node < end; node++) {
      firstEdge[node] = edges.length;
      for (const link of own[node - first]!) {
        edges.push(link.edge);
        to.push(first + link.to);
      }
      for (let e = before.firstEdge[node]!; e < before.firstEdge[node + 1]!; e++) {
        if ('deviceId' in before.edges[e]!.via) continue;
        edges.push(before.edges[e]!);
        to.push(before.to[e]!);
      }
    }
    done = end;
  }
  copy(done, nodeCount);
  firstEdge[nodeCount] = edges.length;
  const { from: was, to: led, firstEdge: begun, into, firstInto } = before;
  if (same(firstEdge, begun) && same(to, led)) return { edges, from: was, to: led, firstEdge: begun, into, firstInto };
  const from = new Int32Array(edges.length);
  for (let node = 0; node < nodeCount; node++) from.fill(node, firstEdge[node], firstEdge[node + 1]);
  const ends = Int32Array.from(to);
  return { edges, from, to: ends, firstEdge, ...intoNodes(nodeCount, ends) };
}

function same(a: ArrayLike<number>, b: ArrayLike<number>): boolean {
  if (a.length !== b.length) return false;
  for (let i = 0; i < a.length; i++) if (a[i] !== b[i]) return false;
  return true;
}
