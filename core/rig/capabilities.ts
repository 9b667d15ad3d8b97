import type { DeviceType, PortSpec, Purpose, SettingSpec } from './schema-type.ts';

/** The ends of a type that are for something. */
export const endsThat = (type: DeviceType, does: PortSpec['does']): PortSpec[] =>
  type.ports.filter((p) => p.does === does);

const portOf = (place: string): string => place.split('.')[0]!;

/** It joins two places: ours, and one that nothing else leads to. */
export const isCall = (type: DeviceType): boolean => type.ports.some((p) => p.does === 'far-side');

/** The switch or mute of a type that is there for something. */
export const settingFor = (type: DeviceType, purpose: Purpose): SettingSpec | undefined =>
  type.settings.find((s) => 'purpose' in s && s.purpose === purpose);

/** Ends of a type from which ways lead to one of some others, whatever is set; those themselves too. */
export function endsThatLeadTo(type: DeviceType, ends: readonly PortSpec[]): ReadonlySet<string> {
  const reached = new Set(ends.map((p) => p.id));
  for (let before = -1; before !== reached.size; ) {
    before = reached.size;
    for (const { from, to } of type.inside) if (reached.has(portOf(to))) reached.add(portOf(from));
  }
  return reached;
}

/** Nearer than this a sound is stated for one ear, and not for a room. */
const ROOM_M = 0.2;

/** Whether it makes sound of its own into the room: volts, or what comes by a link, turned into air, not at an ear. */
export const soundsIntoRoom = (type: DeviceType): boolean =>
  type.ports.some(
    (p) =>
      p.direction === 'out' &&
      p.level === 'air' &&
      (p.referenceM ?? 1) > ROOM_M &&
      type.inside.some((w) => portOf(w.to) === p.id && w.stages.some((s) => s.do === 'radiate')),
  );
