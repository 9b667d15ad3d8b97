import type { DeviceType, PortSpec } from '#core/model/rig/index.ts';
import type { Edge } from './graph.ts';

/** An edge with its ends: as positions within its devices at first, within the whole graph in the end. */
export interface Link {
  readonly edge: Edge;
  readonly from: number;
  readonly to: number;
}

/** Ways between the same two ports share a number: what goes by them is one way to a person. Only compared, never stored. */
let nextWayId = 1;
export const newWayId = (): number => nextWayId++;

type Layout = ReadonlyMap<string, { readonly first: number; readonly spec: PortSpec }>;
const layouts = new WeakMap<DeviceType, Layout>();

/** Where the channels of each port of a type stand among the nodes of a device. */
export function layoutOf(type: DeviceType): Layout {
  const known = layouts.get(type);
  if (known) return known;
  const layout = new Map<string, { first: number; spec: PortSpec }>();
  let first = 0;
  for (const spec of type.ports) {
    layout.set(spec.id, { first, spec });
    first += spec.channels.length;
  }
  layouts.set(type, layout);
  return layout;
}

const places = new WeakMap<DeviceType, ReadonlyMap<string, number>>();

/** The node of a 'port.channel', counted within its device. */
export function placeOf(type: DeviceType, place: string): number {
  let index = places.get(type);
  if (!index) {
    const all = type.ports.flatMap((port) => port.channels.map((channel) => `${port.id}.${channel.id}`));
    index = new Map(all.map((name, i) => [name, i]));
    places.set(type, index);
  }
  return index.get(place)!;
}
