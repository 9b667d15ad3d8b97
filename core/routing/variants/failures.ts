import type { Text } from '#core/base/said/index.ts';
import {
  type Device,
  type DeviceType,
  findTypes,
  isPerson,
  isProgram,
  type Rig,
  runsOnBattery,
} from '#core/model/rig/index.ts';
import { chainOf, leadsOf } from '#core/rules/index.ts';
import { type Evaluation, readPath } from '#core/signal/index.ts';
import { say } from './sayings.ts';

/** What can fail, by its kind. */
export const FAILURE_KINDS = ['box', 'supply', 'battery', 'program', 'lead', 'adapter', 'radio'] as const;
export type FailureKind = (typeof FAILURE_KINDS)[number];

/** One thing that can fail, and what is lost with it. */
export interface Failure {
  readonly kind: FailureKind;
  readonly name: Text;
  readonly deviceIds: readonly string[];
  readonly cableIds: readonly string[];
  /** Of what the plan wants, the pairs that have no way without it. */
  readonly loses: number;
}

/**
 * Everything of a rig that can fail: devices, their supplies and batteries, programs, leads with their adapters, radio
 * links. A device fails with all that goes through it; a supply with what it feeds. What takes most along comes first.
 */
export function failuresOf(rig: Rig, { graph, pairs }: Evaluation): Failure[] {
  const types = findTypes(rig);
  const wanted = pairs.filter((p) => p.want === 'must' && p.ways.length > 0);
  /** For each wanted pair, of every way: the devices and cables on it. */
  const ways = wanted.map((pair) =>
    pair.ways.map((way) => {
      const on = new Set<string>(way.deviceIds);
      for (const { via } of readPath(graph, way.arrival).edges) if ('cableId' in via) on.add(`cable ${via.cableId}`);
      return on;
    }),
  );
  const losesBy = (things: readonly string[]): number =>
    ways.filter((all) => all.every((on) => things.some((t) => on.has(t)))).length;
  const boxes = rig.devices.flatMap((device) => {
    const type = types.get(device.typeId)!;
    const kinds = kindsOf(device, type);
    const loses = losesBy([device.id]);
    return kinds.map((kind): Failure => ({ kind, name: device.name, deviceIds: [device.id], cableIds: [], loses }));
  });
  const leads = leadsOf(rig, types)
    .filter((l) => !l.twin)
    .flatMap((lead): Failure[] => {
      const chain = chainOf(lead);
      const own = chain === 'nothing-to-plug' || !chain ? [] : chain.parts;
      const name = say.ways({ from: lead.from.device.name, to: lead.to.device.name });
      const base = { deviceIds: [], cableIds: [lead.cable.id], loses: losesBy([`cable ${lead.cable.id}`]) };
      const parts = own.filter((p) => p.kind !== 'lead');
      return [
        { ...base, kind: 'lead', name },
        ...parts.map((p): Failure => ({ ...base, kind: 'adapter', name: say.partIn({ part: p.name, cable: name }) })),
      ];
    });
  const names = new Map(rig.devices.map((d) => [d.id, d.name]));
  const radio = rig.cables
    .filter((c) => c.medium === 'radio')
    .map(
      (c): Failure => ({
        kind: 'radio',
        name: say.ways({ from: names.get(c.from.deviceId) ?? '', to: names.get(c.to.deviceId) ?? '' }),
        deviceIds: [],
        cableIds: [c.id],
        loses: losesBy([`cable ${c.id}`]),
      }),
    );
  return [...boxes, ...leads, ...radio].sort((a, b) => b.loses - a.loses);
}

/** A device itself, and what it is fed from where that is its own; people do not fail here. */
function kindsOf(device: Device, type: DeviceType): FailureKind[] {
  if (isPerson(type)) return [];
  if (isProgram(type)) return ['program'];
  const { power } = type;
  if (!power || power.by.length === 0) return ['box'];
  if (runsOnBattery(device, type)) return ['box', 'battery'];
  return power.by[0] === 'mains' ? ['box', 'supply'] : ['box'];
}

/** How many of each kind. */
export const countByKind = (failures: readonly Failure[]): Record<FailureKind, number> =>
  Object.fromEntries(FAILURE_KINDS.map((k) => [k, failures.filter((f) => f.kind === k).length])) as Record<
    FailureKind,
    number
  >;
