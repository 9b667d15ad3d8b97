import { type DeviceType, findTypes, type Rig } from '#core/rig/index.ts';
import { cableLinks } from './cable-links.ts';
import type { Disabled, Edge, Graph, Node, Shut } from './graph.ts';
import { insideOf } from './inside.ts';
import { type Link, layoutOf } from './layout.ts';

/**
 * The rig with its settings as a graph of channels: nodes are (device, port, channel), edges the open ways inside
 * devices and the cables between them. No kind of device is known here: everything follows from its type's data.
 * What a device or cable that did not change contributes is kept, so an edit costs what it touches.
 */
export function expand(rig: Rig): Graph {
  const types = findTypes(rig);
  const nodes: Node[] = [];
  const firstOf = new Map<string, number>();
  const typeOf = new Map<string, DeviceType>();
  const links: Link[] = [];
  const disabled: Disabled[] = [];
  const shut: Shut[] = [];
  for (const device of rig.devices) {
    const first = nodes.length;
    const type = types.get(device.typeId)!;
    firstOf.set(device.id, first);
    typeOf.set(device.id, type);
    const inside = insideOf(device, type, rig.session.frameRate);
    for (const node of inside.nodes) nodes.push(node);
    for (const { edge, from, to } of inside.links) links.push({ edge, from: first + from, to: first + to });
    for (const off of inside.disabled) disabled.push({ ...off, from: first + off.from, to: first + off.to });
    for (const door of inside.shut) shut.push({ ...door, from: first + door.from, to: first + door.to });
  }
  for (const cable of rig.cables) {
    const [fromType, toType] = [typeOf.get(cable.from.deviceId)!, typeOf.get(cable.to.deviceId)!];
    const [from, to] = [firstOf.get(cable.from.deviceId)!, firstOf.get(cable.to.deviceId)!];
    for (const link of cableLinks(cable, fromType, toType))
      links.push({ edge: link.edge, from: from + link.from, to: to + link.to });
  }
  const nodesOf = (ref: { readonly deviceId: string; readonly portId: string }): number[] => {
    const type = typeOf.get(ref.deviceId);
    const layout = type && layoutOf(type).get(ref.portId);
    return layout ? layout.spec.channels.map((_, i) => firstOf.get(ref.deviceId)! + layout.first + i) : [];
  };
  return { nodes, shut, disabled, cables: rig.cables, nodesOf, ...inColumns(nodes.length, links) };
}

function inColumns(nodeCount: number, links: readonly Link[]): Pick<Graph, 'edges' | 'from' | 'to' | 'firstEdge'> {
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
  return { edges, from, to, firstEdge };
}
