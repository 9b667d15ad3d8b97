import { memoized } from '#core/base/memo/index.ts';
import { connectorOf } from '#core/model/plug/index.ts';
import { portOf } from './keys.ts';
import { settingOf } from './lookup.ts';
import type { Device } from './schema.ts';
import type { DeviceType, PortSpec, Purpose, SettingSpec } from './schema-type.ts';

/** The ends of a type that are for something. */
export const endsThat = (type: DeviceType, does: PortSpec['does']): PortSpec[] =>
  type.ports.filter((p) => p.does === does);

export const isPerson = ({ nature }: DeviceType): boolean => nature === 'person';
/** It runs on a computer and has no socket of its own. */
export const isProgram = ({ nature }: DeviceType): boolean => nature === 'program';
export const isHardware = ({ nature = 'hardware' }: DeviceType): boolean => nature === 'hardware';

/** The computer that a device is, or runs on; null where it is none, or no one has said on which. */
export const computerOf = ({ id, on }: Pick<Device, 'id' | 'on'>, type: DeviceType): string | null =>
  on ?? (type.hosts ? id : null);

/** Whether two things run on computers that are known to be two: no program hands anything over there. */
export const onTwoComputers = (a: string | null, b: string | null): boolean => a !== null && b !== null && a !== b;

/** It joins two places: ours, and one that nothing else leads to. */
export const isCall = (type: DeviceType): boolean => type.ports.some((p) => p.does === 'far-side');

/** The setting of a type that is there for something. */
export const settingFor = (type: DeviceType, purpose: Purpose): SettingSpec | undefined =>
  type.settings.find((s) => s.purpose === purpose);

/** Ends of a type from which ways lead to one of some others, whatever is set; those themselves too. */
export function endsThatLeadTo(type: DeviceType, ends: readonly PortSpec[]): ReadonlySet<string> {
  const reached = new Set(ends.map((p) => p.id));
  for (let before = -1; before !== reached.size; ) {
    before = reached.size;
    for (const { from, to } of type.inside) if (reached.has(portOf(to))) reached.add(portOf(from));
  }
  return reached;
}

const isMadeHere = (type: DeviceType, end: PortSpec): boolean =>
  !type.inside.some((w) => w.to.startsWith(`${end.id}.`));

/** Whether something begins at an output: nothing within leads to it. */
export const beginsAt = (type: DeviceType, end: PortSpec): boolean => end.direction === 'out' && isMadeHere(type, end);

/** A camera: takes in light, and no one watches it. */
export const films = (type: DeviceType): boolean =>
  isHardware(type) && type.ports.some((p) => p.direction === 'in' && p.level === 'light');
/** One sees a picture on it. */
export const showsPicture = (type: DeviceType): boolean =>
  type.ports.some((p) => p.direction === 'out' && p.level === 'light' && !isMadeHere(type, p));
/** Video that arrives here is captured by a computer. */
export const captures = (type: DeviceType): boolean => endsThat(type, 'captured').length > 0;
/** It turns sound in the air into a signal. */
export const hearsAir = (type: DeviceType): boolean =>
  isHardware(type) && type.ports.some((p) => p.direction === 'in' && p.level === 'air');
/** It is worn: its sound is for the ears of one. */
export const isWorn = (type: DeviceType): boolean => isHardware(type) && endsThat(type, 'ears').length > 0;
/** It writes what it gets to a file. */
export const records = (type: DeviceType): boolean => type.ports.some((p) => p.connector === 'file');

/** It has outlets for others and takes nothing else in hand: a hub, a strip, a charger. */
export const isSupply = (type: DeviceType): boolean => type.power?.feeds !== undefined && type.hosts !== true;
/** A supply that signals go through, too: one way up, several down. */
export const isHub = (type: DeviceType): boolean => isSupply(type) && type.ports.length > 0;
/** Whether a device takes its power from its own battery, as it is set. */
export function runsOnBattery(device: Device, { power, settings }: DeviceType): boolean {
  const supply = power?.supply && settings.find((s) => s.id === power.supply);
  return supply ? settingOf(device, supply).value === 'battery' : power?.by[0] === 'battery';
}

const behind = memoized((type: DeviceType): ReadonlyMap<string, readonly PortSpec[]> => {
  const ids = new Map<string, Set<string>>();
  for (const { from, to } of type.inside)
    for (const [a, b] of [
      [portOf(from), portOf(to)],
      [portOf(to), portOf(from)],
    ] as const)
      ids.set(a, (ids.get(a) ?? new Set()).add(b));
  return new Map([...ids].map(([id, others]) => [id, type.ports.filter((p) => others.has(p.id))]));
});

/** Ends of a type that paths lead to straight from one of its ends, or that lead to it. */
export const endsBehind = (type: DeviceType, portId: string): readonly PortSpec[] => behind(type).get(portId) ?? [];

const isUsb = ({ connector }: PortSpec): boolean => connectorOf(connector)?.kind === 'usb';

/**
 * Which end of a USB lead a socket is, by all ends behind it: a USB A socket, or one that gives power, is a host's; every
 * other one is a device's. Null for what is no USB.
 */
export function usbRoleOf(type: DeviceType, port: PortSpec): 'host' | 'device' | 'either' | 'power' | null {
  if (!isUsb(port)) return null;
  if (port.usb) return port.usb;
  if (port.connector === 'usb-a') return 'host';
  const beside = port.socket === undefined ? [port] : type.ports.filter((p) => p.socket === port.socket);
  return beside.some((p) => p.gives?.kind === 'usb') ? 'host' : 'device';
}

/** Whether two USB ends can talk: a host with a device, and no one with a socket that only charges. Anything else is not asked. */
export function usbMeets(a: ReturnType<typeof usbRoleOf>, b: ReturnType<typeof usbRoleOf>): boolean {
  if (a === null || b === null) return true;
  return a !== 'power' && b !== 'power' && (a === 'either' || b === 'either' || a !== b);
}

/** What a system shows as one sound device: the ends of one socket, unless the type says otherwise. */
export const soundDeviceOf = ({ soundDevice, socket, id }: PortSpec): string => soundDevice ?? socket ?? id;

/** Nothing but windings at line level: no power passes, and none drives it. */
export const isTransformer = ({ ports, power }: DeviceType): boolean =>
  ports.length > 0 && power?.by.length === 0 && ports.every((p) => p.isolated === true && p.level === 'line');

/** It drives speakers. */
export const amplifies = (type: DeviceType): boolean =>
  type.ports.some((p) => p.direction === 'out' && p.level === 'speaker');

/** Nearer than this a sound is stated for one ear, and not for a room. */
const ROOM_M = 0.2;

/** Its output is at microphone level, as of a DI box: whatever is connected is brought down to that. */
export const givesMicrophoneLevel = (type: DeviceType, end: PortSpec): boolean =>
  type.inside.some(
    (w) =>
      portOf(w.from) === end.id &&
      type.ports.some((p) => p.id === portOf(w.to) && p.level === 'microphone' && p.isolated === true),
  );

/** It makes an instrument that is plugged into it loud in the room. */
export const amplifiesInstrument = (type: DeviceType): boolean =>
  isHardware(type) &&
  soundsIntoRoom(type) &&
  type.inside.some((w) => {
    const [from, to] = [w.from, w.to].map((place) => type.ports.find((p) => p.id === portOf(place)));
    return from?.level === 'microphone' && to?.level === 'air';
  });

/** Whether it radiates sound into the room: converts a signal to sound, but not at an ear. */
export const soundsIntoRoom = (type: DeviceType): boolean =>
  type.ports.some(
    (p) =>
      p.direction === 'out' &&
      p.level === 'air' &&
      (p.referenceM ?? 1) > ROOM_M &&
      type.inside.some((w) => portOf(w.to) === p.id && w.stages.some((s) => s.do === 'radiate')),
  );
