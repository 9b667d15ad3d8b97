import fc from 'fast-check';
import { type DeviceType, parseRig, RIG_VERSION, type Rig, type Stage, type Way } from '#core/model/rig/index.ts';

/** A device with `count` mono inputs and outputs and the ways given, for rigs of a test's own. */
export function box(id: string, count: number, inside: Way[], more: Partial<DeviceType> = {}): DeviceType {
  const port = (direction: 'in' | 'out', n: number) => ({
    id: `${direction}-${n}`,
    name: `${direction} ${n}`,
    direction,
    connector: 'plug',
    level: 'line' as const,
    channels: [{ id: 'mono', carries: 'sound' as const }],
  });
  const numbers = Array.from({ length: count }, (_, i) => i + 1);
  return {
    id,
    name: id,
    family: 'tests',
    summary: '',
    ports: [...numbers.map((n) => port('in', n)), ...numbers.map((n) => port('out', n))],
    settings: [],
    figures: {},
    inside,
    ...more,
  };
}

export const through = (from: number, to: number, ...stages: Stage[]): Way => ({
  from: `in-${from}.mono`,
  to: `out-${to}.mono`,
  stages,
});

interface Plan {
  types: DeviceType[];
  devices: Record<string, string>;
  /** 'device.out-1 > device.in-1' */
  cables: string[];
  source: string;
  listener: string;
  settings?: Record<string, Rig['devices'][number]['settings']>;
}

/** A rig of one source and one listener out of devices and cables. */
export function rigOf({ types, devices, cables, source, listener, settings = {} }: Plan): Rig {
  const ref = (place: string) => {
    const [deviceId, portId] = place.trim().split('.') as [string, string];
    return { deviceId, portId };
  };
  return parseRig({
    schemaVersion: RIG_VERSION,
    name: 'a test',
    notes: '',
    session: { frameRate: { num: 50, den: 1 }, sampleRateHz: 48000, toleranceId: 'ebu-r37', fullScaleDbu: 18 },
    types,
    devices: Object.entries(devices).map(([id, typeId]) => ({ id, typeId, name: id, settings: settings[id] ?? {} })),
    cables: cables.map((cable, i) => {
      const [from, to] = cable.split('>') as [string, string];
      return { id: `c${i}`, from: ref(from), to: ref(to), medium: 'lead', lengthM: 1, known: 'confirmed' };
    }),
    sources: [{ id: 's', name: 's', letter: 'S', hue: 1, sound: ref(source), level: [0, 0, 0] }],
    listeners: [{ id: 'l', name: 'l', sound: ref(listener) }],
    plan: [],
    measurements: [],
    tasks: [],
  });
}

/** Figure of a device: a latency with a range. */
export const latencyFigure = (low: number, nominal: number, high: number): DeviceType['figures'][string] => ({
  label: 'inside',
  unit: 'ms',
  range: [low, nominal, high],
  kind: 'typical',
  source: 'a test',
});

export interface SmallNet {
  rig: Rig;
  /** Gain in dB and delay in ms from box i's output to box j's. */
  links: { from: number; to: number; db: number; ms: number }[];
  boxes: number;
}

/** Small random nets of devices without loops: every device passes each of its inputs to its one output. */
export const aSmallNet = (): fc.Arbitrary<SmallNet> =>
  fc.integer({ min: 2, max: 5 }).chain((boxes) => {
    const pairs = Array.from({ length: boxes }, (_, to) =>
      Array.from({ length: to }, (_, from) => ({ from, to })),
    ).flat();
    return fc
      .tuple(
        ...pairs.map(({ from, to }) =>
          fc.option(
            fc.record({
              from: fc.constant(from),
              to: fc.constant(to),
              db: fc.integer({ min: -20, max: 6 }),
              ms: fc.integer({ min: 1, max: 4000 }).map((n) => n / 8),
            }),
          ),
        ),
      )
      .map((found) => {
        const links = found.filter((l) => l !== null);
        const types = Array.from({ length: boxes }, (_, b) => {
          const inputs = links.filter((l) => l.to === b);
          return box(
            `box-${b}`,
            Math.max(1, inputs.length),
            inputs.map((l, i) =>
              through(i + 1, 1, { do: 'fixed-gain', db: l.db }, { do: 'latency', figure: `ms-${i + 1}` }),
            ),
            { figures: Object.fromEntries(inputs.map((l, i) => [`ms-${i + 1}`, latencyFigure(l.ms, l.ms, l.ms)])) },
          );
        });
        const cables = types.flatMap((_, b) =>
          links.filter((l) => l.to === b).map((l, i) => `d${l.from}.out-1 > d${b}.in-${i + 1}`),
        );
        const rig = rigOf({
          types,
          devices: Object.fromEntries(types.map((t, b) => [`d${b}`, t.id])),
          cables,
          source: 'd0.out-1',
          listener: `d${boxes - 1}.out-1`,
        });
        return { rig, links, boxes };
      });
  });

/** A source that comes to a bus by two ways: as far down, inverted, and as uncertain in time as the second one is said to be. */
export function twoWays(second: { db: number; invert: boolean; ms?: [number, number, number] }): Rig {
  const [low, nominal, high] = second.ms ?? [0, 0, 0];
  const fork = box('fork', 2, [
    through(1, 1),
    { ...through(1, 2, { do: 'door', setting: 'second', openWhen: false }, { do: 'fixed-gain', db: second.db }) },
  ]);
  const wire = box(
    'wire',
    1,
    [through(1, 1, ...(second.invert ? [{ do: 'invert' as const }] : []), { do: 'latency', figure: 'ms' })],
    { figures: { ms: latencyFigure(low, nominal, high) } },
  );
  const bus = box('bus', 2, [through(1, 1), through(2, 1)]);
  return rigOf({
    types: [
      { ...fork, settings: [{ id: 'second', name: 'Second', kind: 'mute', default: false }] },
      wire,
      bus,
      box('src', 1, []),
    ],
    devices: { src: 'src', fork: 'fork', wire: 'wire', bus: 'bus' },
    cables: ['src.out-1 > fork.in-1', 'fork.out-1 > bus.in-1', 'fork.out-2 > wire.in-1', 'wire.out-1 > bus.in-2'],
    source: 'src.out-1',
    listener: 'bus.out-1',
  });
}
