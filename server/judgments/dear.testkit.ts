import { boathouse } from '#demo/boathouse.ts';

/** A valid rig that would take minutes to evaluate: so many devices of 64 x 64 in a ring, or in a line. */
export function matrices(count: number, ring: boolean): unknown {
  const channels = Array.from({ length: 64 }, (_, n) => ({ id: `c${n}`, carries: 'sound' }));
  const port = { name: 'x', connector: 'aes3', level: 'digital', channels };
  const type = {
    id: 'big',
    name: 'Big',
    summary: 'x',
    family: 'mixers',
    ports: [
      { ...port, id: 'in', direction: 'in' },
      { ...port, id: 'out', direction: 'out' },
    ],
    settings: [],
    figures: {},
    inside: Array.from({ length: 64 * 64 }, (_, n) => ({ from: `in.c${n >> 6}`, to: `out.c${n & 63}`, stages: [] })),
  };
  const devices = Array.from({ length: count }, (_, n) => ({
    id: `d${n}`,
    typeId: 'big',
    name: `D${n}`,
    settings: {},
  }));
  const cables = devices.slice(ring ? 0 : 1).map((d, n) => ({
    id: `k${n}`,
    from: { deviceId: d.id, portId: 'out' },
    to: { deviceId: `d${(devices.indexOf(d) + 1) % count}`, portId: 'in' },
    medium: 'lead',
    lengthM: 1,
    known: 'assumed',
  }));
  const bare = { sources: [], listeners: [], plan: [], measurements: [], tasks: [], dismissed: [], moments: [] };
  return { ...boathouse, ...bare, name: 'Dear', types: [type], devices, cables };
}
