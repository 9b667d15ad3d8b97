import { endsBehind } from './capabilities.ts';
import type { Edit } from './edit.ts';
import { findDevice, portsOf, type Types } from './lookup.ts';
import type { Device, PortRef, Rig } from './schema.ts';
import type { DeviceType, PortSpec } from './schema-type.ts';

/** What both ways through a socket are called by: the first end behind it. */
const firstAt = (type: DeviceType, port: PortSpec): PortSpec =>
  (port.socket && type.ports.find((p) => p.socket === port.socket)) || port;

/** The name that a user gave to a socket or channel, or to the socket behind it; undefined without one. */
export const givenName = (device: Device, type: DeviceType, port: PortSpec): string | undefined =>
  device.ends?.[port.id]?.name ?? device.ends?.[firstAt(type, port).id]?.name;

/** What an end of a device is called there: as someone has named it, else see `ownEndName`. */
export function endName(rig: Rig, types: Types, ref: PortRef): string {
  const device = findDevice(rig, ref.deviceId);
  const type = device && types.get(device.typeId);
  const port = type && portsOf(type).get(ref.portId);
  return (port && givenName(device, type, port)) ?? ownEndName(rig, types, ref);
}

/** What an end is called where no one has named it: what programs see of a socket by what is plugged into that ('USB 2: Capture card'), all else as its type has it. */
export function ownEndName(rig: Rig, types: Types, { deviceId, portId }: PortRef): string {
  const device = findDevice(rig, deviceId);
  const type = device && types.get(device.typeId);
  const port = type && portsOf(type).get(portId);
  if (!port) return portId;
  return (port.connector === 'software' && pluggedName(rig, types, device, type, port)) || port.name;
}

/** The one socket behind an end that programs see, with the device that is plugged into it; null where none is. */
function pluggedName(rig: Rig, types: Types, device: Device, type: DeviceType, port: PortSpec): string | null {
  const [socket, another] = endsBehind(type, port.id).filter((p) => p.connector !== 'software');
  if (!socket || another) return null;
  const isAt = (ref: PortRef) => ref.deviceId === device.id && ref.portId === socket.id;
  const cable = rig.cables.find((c) => isAt(c.from) || isAt(c.to));
  const box = cable && findDevice(rig, (isAt(cable.from) ? cable.to : cable.from).deviceId);
  if (!box) return null;
  return `${endName(rig, types, { deviceId: device.id, portId: firstAt(type, socket).id })}: ${box.name}`;
}

/** What someone has said of an end. */
export type EndSaid = NonNullable<Device['ends']>[string];

/** The device with one of its ends said to be so; with nothing said of it where `next` is empty. */
export function withEnd(device: Device, portId: string, next: EndSaid): Edit {
  const { [portId]: _before, ...others } = device.ends ?? {};
  const ends = Object.keys(next).length > 0 ? { ...others, [portId]: next } : others;
  const { ends: _ends, ...rest } = device;
  return { kind: 'set-device', device: Object.keys(ends).length > 0 ? { ...rest, ends } : rest };
}

/** The socket behind a channel, named by the user; '' restores its default name. */
export function nameSocket(device: Device, type: DeviceType, portId: string, name: string): Edit {
  const first = firstAt(type, portsOf(type).get(portId)!);
  const { name: _before, ...rest } = device.ends?.[first.id] ?? {};
  const next = name.trim().slice(0, LONGEST_NAME);
  return withEnd(device, first.id, next === '' || next === first.name ? rest : { ...rest, name: next });
}
const LONGEST_NAME = 120;
