import { computerOf, endsBehind, isProgram } from './capabilities.ts';
import type { Edit } from './edit.ts';
import { endName } from './ends.ts';
import { findDevice, findTypes, portsOf, type Types } from './lookup.ts';
import type { Cable, Device, PortRef, Rig } from './schema.ts';
import type { DeviceType, PortSpec } from './schema-type.ts';

/** What a program uses a sound device for. */
export type DeviceUse = 'play' | 'record';

/** The sound device that a program has chosen: which end of the link it is, and whose system lists it. */
export interface ChosenDevice {
  readonly at: 'from' | 'to';
  readonly ref: PortRef;
  readonly use: DeviceUse;
  readonly computerId: string;
}

/** Whether a system lists the end among its sound devices: what is in the computer or plugged into it, and what programs bring along. */
const isListed = (type: DeviceType, port: PortSpec): boolean =>
  port.connector === 'software' && (type.hosts === true || port.listed === true);

const deviceUse = ({ direction }: PortSpec): DeviceUse => (direction === 'in' ? 'play' : 'record');

/** The sound device at one end of a link to a program; null for a link between two programs, or between two devices. */
export function chosenDevice(rig: Rig, types: Types, cable: Cable): ChosenDevice | null {
  if (cable.medium !== 'software') return null;
  const end = (ref: PortRef) => {
    const device = findDevice(rig, ref.deviceId)!;
    const type = types.get(device.typeId)!;
    const port = portsOf(type).get(ref.portId)!;
    return { ref, port, listed: isListed(type, port), program: isProgram(type), computer: computerOf(device, type) };
  };
  const [from, to] = [end(cable.from), end(cable.to)];
  const at = to.listed && from.program && !from.listed ? 'to' : from.listed && to.program && !to.listed ? 'from' : null;
  if (!at) return null;
  const chosen = at === 'to' ? to : from;
  if (chosen.computer === null) return null;
  return { at, ref: chosen.ref, use: deviceUse(chosen.port), computerId: chosen.computer };
}

/** Every end that a computer's system lists for a use, those of programs that run there too. */
export function soundDevicesOf(rig: Rig, computerId: string, use: DeviceUse): PortRef[] {
  const types = findTypes(rig);
  return rig.devices.flatMap((device) => {
    const type = types.get(device.typeId)!;
    if (computerOf(device, type) !== computerId) return [];
    return type.ports
      .filter((p) => isListed(type, p) && deviceUse(p) === use && p.channels.some((c) => c.carries === 'sound'))
      .map((p) => ({ deviceId: device.id, portId: p.id }));
  });
}

const endAt = (rig: Rig, { deviceId, portId }: PortRef) => findDevice(rig, deviceId)?.ends?.[portId] ?? {};

/** What a computer plays to, or records from, where a program has chosen nothing itself; null where no one has said. */
export const defaultDevice = (rig: Rig, computerId: string, use: DeviceUse): PortRef | null =>
  soundDevicesOf(rig, computerId, use).find((ref) => endAt(rig, ref).preferred) ?? null;

export const sameEnd = (a: PortRef, b: PortRef): boolean => a.deviceId === b.deviceId && a.portId === b.portId;

/** What a sound device is called: as someone has named it, else by what is plugged in behind it, else as the computer has it. */
export function soundDeviceName(rig: Rig, types: Types, ref: PortRef): string {
  const own = endAt(rig, ref).name;
  if (own !== undefined) return own;
  const device = findDevice(rig, ref.deviceId)!;
  const behind = new Set(endsBehind(types.get(device.typeId)!, ref.portId).map((p) => p.id));
  const isBehind = (end: PortRef) => end.deviceId === ref.deviceId && behind.has(end.portId);
  for (const { medium, from, to } of rig.cables) {
    if (medium !== 'lead' && medium !== 'radio') continue;
    if (isBehind(from)) return findDevice(rig, to.deviceId)!.name;
    if (isBehind(to)) return findDevice(rig, from.deviceId)!.name;
  }
  return types.get(device.typeId)!.hosts ? endName(rig, types, ref) : device.name;
}

/** Links of programs that follow the default of a computer. */
const followers = (rig: Rig, types: Types, computerId: string, use: DeviceUse): Cable[] =>
  rig.cables.filter((cable) => {
    if (!cable.follows) return false;
    const chosen = chosenDevice(rig, types, cable);
    return chosen?.computerId === computerId && chosen.use === use;
  });

/** The link with its device another one; its map stays only where both have the channels. */
function moved(rig: Rig, types: Types, cable: Cable, at: 'from' | 'to', ref: PortRef): Cable {
  const port = portsOf(types.get(findDevice(rig, ref.deviceId)!.typeId)!).get(ref.portId)!;
  const fits = cable.map?.every((m) => port.channels.some((c) => c.id === m[at]));
  const { map, ...rest } = cable;
  return { ...rest, ...(map && fits && { map }), [at]: ref };
}

/** The link as it is now, in place of what it was. */
export const relinked = (cable: Cable): Edit => ({
  kind: 'batch',
  edits: [
    { kind: 'unplug', cableId: cable.id },
    { kind: 'plug', cable },
  ],
});

function flagged(device: Device, portId: string, preferred: boolean): Device {
  const { preferred: _before, ...rest } = device.ends?.[portId] ?? {};
  const end = preferred ? { ...rest, preferred: true as const } : rest;
  const others = Object.entries(device.ends ?? {}).filter(([id]) => id !== portId);
  const ends = Object.keys(end).length > 0 ? [...others, [portId, end] as const] : others;
  const { ends: _ends, ...bare } = device;
  return ends.length > 0 ? { ...bare, ends: Object.fromEntries(ends) } : bare;
}

/** An end as the default of its computer, in place of what was: how the devices are then, and the links that go along. */
export interface NewDefault {
  readonly devices: readonly Device[];
  readonly cables: readonly Cable[];
}

export function asDefault(rig: Rig, computerId: string, ref: PortRef): NewDefault {
  const types = findTypes(rig);
  const port = portsOf(types.get(findDevice(rig, ref.deviceId)!.typeId)!).get(ref.portId)!;
  const serves = deviceUse(port);
  const devices = new Map<string, Device>();
  const flag = (end: PortRef, on: boolean) => {
    const device = devices.get(end.deviceId) ?? findDevice(rig, end.deviceId)!;
    devices.set(end.deviceId, flagged(device, end.portId, on));
  };
  for (const other of soundDevicesOf(rig, computerId, serves)) if (endAt(rig, other).preferred) flag(other, false);
  flag(ref, true);
  const cables = followers(rig, types, computerId, serves)
    .map((cable) => moved(rig, types, cable, chosenDevice(rig, types, cable)!.at, ref))
    .filter(
      (cable) => !rig.cables.some((c) => c.id === cable.id && sameEnd(c.from, cable.from) && sameEnd(c.to, cable.to)),
    );
  return { devices: [...devices.values()], cables };
}

/** Devices as they are then, as one edit. */
export const redrawn = (devices: readonly Device[]): Edit => ({
  kind: 'batch',
  edits: devices.map((device): Edit => ({ kind: 'set-device', device })),
});

/** Makes an end the default of its computer; programs that follow the default go with it. */
export function makeDefault(rig: Rig, computerId: string, ref: PortRef): Edit {
  const { devices, cables } = asDefault(rig, computerId, ref);
  return { kind: 'batch', edits: [redrawn(devices), ...cables.map(relinked)] };
}

/** Nothing is said of what the default is; programs that follow it stay where they are drawn. */
export const unsetDefault = (rig: Rig, ref: PortRef): Edit => ({
  kind: 'set-device',
  device: flagged(findDevice(rig, ref.deviceId)!, ref.portId, false),
});

/** The link of a program that follows the default of its computer: at once, where that is known. */
export function followingDefault(rig: Rig, cable: Cable): Cable {
  const types = findTypes(rig);
  const chosen = chosenDevice(rig, types, cable);
  const now = chosen && defaultDevice(rig, chosen.computerId, chosen.use);
  return { ...(now ? moved(rig, types, cable, chosen.at, now) : cable), follows: 'default' };
}

/** The link with a sound device chosen in the program itself: it follows nothing any more. */
export function choosing(rig: Rig, cable: Cable, ref: PortRef): Cable {
  const types = findTypes(rig);
  const { follows: _before, ...rest } = cable;
  const chosen = chosenDevice(rig, types, cable);
  return chosen ? moved(rig, types, rest, chosen.at, ref) : rest;
}
