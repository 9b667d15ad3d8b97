import { memoized } from '#core/base/memo/index.ts';
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

/** Where the channels of each port of a type stand among the nodes of a device. */
export const layoutOf = memoized((type: DeviceType): Layout => {
  const layout = new Map<string, { first: number; spec: PortSpec }>();
  let first = 0;
  for (const spec of type.ports) {
    layout.set(spec.id, { first, spec });
    first += spec.channels.length;
  }
  return layout;
});

const places = memoized((type: DeviceType): ReadonlyMap<string, number> => {
  const all = type.ports.flatMap((port) => port.channels.map((channel) => `${port.id}.${channel.id}`));
  return new Map(all.map((name, i) => [name, i]));
});

/** The node of a 'port.channel', counted within its device. */
export const placeOf = (type: DeviceType, place: string): number => places(type).get(place)!;
