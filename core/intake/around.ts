import { connectorOf } from '#core/model/plug/index.ts';
import {
  beginsAt,
  type DeviceType,
  endsBehind,
  films,
  findDevice,
  findTypes,
  hearsAir,
  isHardware,
  isPerson,
  isWorn,
  type PortRef,
  type PortSpec,
  portOf,
  portsOf,
  type Rig,
  soundsIntoRoom,
} from '#core/model/rig/index.ts';

const typeOf = (rig: Rig, id: string): DeviceType => findTypes(rig).get(findDevice(rig, id)!.typeId)!;
const has = ({ channels }: PortSpec, carries: 'sound' | 'picture'): boolean =>
  channels.some((c) => c.carries === carries);

/** Devices that a device receives from by cable or radio, and itself; no computer, and nothing behind one. */
export function upstream(rig: Rig, deviceId: string): ReadonlySet<string> {
  return reach(rig, deviceId, (c) => [c.to.deviceId, c.from.deviceId]);
}
/** Devices to which cables and radio go from one, and that itself; no computer, and nothing behind one. */
export function downstream(rig: Rig, deviceId: string): ReadonlySet<string> {
  return reach(rig, deviceId, (c) => [c.from.deviceId, c.to.deviceId]);
}

function reach(rig: Rig, first: string, step: (c: Rig['cables'][number]) => [string, string]): ReadonlySet<string> {
  const met = new Set([first]);
  const open = [first];
  for (let id = open.pop(); id !== undefined; id = open.pop()) {
    for (const cable of rig.cables) {
      if (cable.medium !== 'lead' && cable.medium !== 'radio') continue;
      const [at, next] = step(cable);
      if (at !== id || met.has(next) || typeOf(rig, next).hosts) continue;
      met.add(next);
      open.push(next);
    }
  }
  return met;
}

/** Programs run on it, and it powers what is plugged in: a computer, and no phone. */
export const isComputer = (type: DeviceType): boolean => type.hosts === true && type.power?.feeds !== undefined;

/** A microphone that someone talks into: no camera, no computer, nothing that listens to a room by the way. */
export const isMicrophone = (type: DeviceType): boolean => hearsAir(type) && !films(type) && type.hosts !== true;
/** Earphones with a microphone. */
export const isHeadset = (type: DeviceType): boolean => isMicrophone(type) && isWorn(type);

/** It hears the room by the way: a camera, a computer, a recorder. */
export const hearsToo = (type: DeviceType): boolean =>
  isHardware(type) && type.ports.some((p) => p.direction === 'in' && p.level === 'air' && has(p, 'sound'));
/** Whether something else is plugged in for a device to take than what it hears itself. */
export const isFedByLead = (rig: Rig, deviceId: string): boolean =>
  rig.cables.some((c) => {
    if (c.to.deviceId !== deviceId || c.medium !== 'lead') return false;
    return portsOf(typeOf(rig, deviceId)).get(c.to.portId)?.level === 'microphone';
  });
const voicePort = (type: DeviceType): PortSpec | undefined => type.ports.find((p) => p.does === 'voice');
export const earsPort = (type: DeviceType): PortSpec | undefined => type.ports.find((p) => p.does === 'ears');

/** Whether someone talks into a device. */
const isTalkedInto = (rig: Rig, deviceId: string): boolean =>
  rig.cables.some((c) => c.medium === 'air' && c.to.deviceId === deviceId && isPerson(typeOf(rig, c.from.deviceId)));

/** Where something comes into a computer, or leaves it: the end that programs see, and the device at the other end of the cable. */
export interface End {
  readonly deviceId: string;
  readonly ref: PortRef;
  readonly sound: boolean;
  readonly picture: boolean;
}

/** What the cables of a computer bring to its programs, or take from them; the computer's own ends last. */
export function endsOf(rig: Rig, hostId: string, way: 'in' | 'out'): End[] {
  const type = typeOf(rig, hostId);
  const direction = way === 'in' ? 'out' : 'in';
  const behind = (portId: string): PortSpec[] =>
    endsBehind(type, portId).filter((p) => p.connector === 'software' && p.direction === direction);
  const end = (deviceId: string, port: PortSpec): End => ({
    deviceId,
    ref: { deviceId: hostId, portId: port.id },
    sound: has(port, 'sound'),
    picture: has(port, 'picture'),
  });
  const plugged = rig.cables.flatMap((c): End[] => {
    const [near, far] = way === 'in' ? [c.to, c.from] : [c.from, c.to];
    if (near.deviceId !== hostId || (c.medium !== 'lead' && c.medium !== 'radio')) return [];
    const box = behindHub(rig, far, way);
    if (box === null) return [];
    // What a cable brings is what both its ends carry.
    const there = portsOf(typeOf(rig, box.deviceId)).get(box.portId);
    return behind(near.portId).map((port) => {
      const found = end(box.deviceId, port);
      return {
        ...found,
        sound: found.sound && (!there || has(there, 'sound')),
        picture: found.picture && (!there || has(there, 'picture')),
      };
    });
  });
  // Cards within the computer bring what they have to programs.
  const cards = rig.devices.flatMap((d): End[] =>
    way === 'in' && d.on === hostId && isHardware(typeOf(rig, d.id))
      ? typeOf(rig, d.id)
          .ports.filter((p) => p.direction === 'out' && p.connector === 'software')
          .map((port) => ({ ...end(d.id, port), ref: { deviceId: d.id, portId: port.id } }))
      : [],
  );
  const own = type.ports
    .filter((p) => p.direction === way && (p.level === 'air' || p.level === 'light'))
    .flatMap((p) => behind(p.id).map((port) => end(hostId, port)));
  return [...plugged, ...cards, ...own];
}

const isUsb = (port: PortSpec | undefined): boolean =>
  port !== undefined && connectorOf(port.connector)?.kind === 'usb';

/** What stands behind an end that a computer is joined to: the end itself, or through USB hubs what is plugged there; null for nothing. */
function behindHub(rig: Rig, far: PortRef, way: 'in' | 'out'): PortRef | null {
  const type = typeOf(rig, far.deviceId);
  const ports = portsOf(type);
  const lanes = type.inside.flatMap(({ from, to }): string[] => {
    const [near, on] = (way === 'in' ? [to, from] : [from, to]).map(portOf);
    return near === far.portId ? [on!] : [];
  });
  const [lane] = lanes;
  if (lane === undefined || ![far.portId, lane].every((id) => isUsb(ports.get(id))) || !lanes.every((l) => l === lane))
    return far;
  const next = rig.cables
    .map(({ from, to }) => (way === 'in' ? { near: to, far: from } : { near: from, far: to }))
    .find((c) => c.near.deviceId === far.deviceId && c.near.portId === lane);
  return next ? behindHub(rig, next.far, way) : null;
}

/** Kinds of content that a device carries: a voice, a game's audio, something else; by importance. */
export function carriesWhat(rig: Rig, deviceId: string): 'voice' | 'game' | 'other' {
  const up = [...upstream(rig, deviceId)].map((id) => typeOf(rig, id));
  if (up.some(isMicrophone) || [...upstream(rig, deviceId)].some((id) => isTalkedInto(rig, id))) return 'voice';
  return up.some((t) => t.ports.some((p) => p.does === 'game' && beginsAt(t, p))) ? 'game' : 'other';
}

/** How near to the ears of someone a device plays: worn itself, with something worn behind it, into the room, or nowhere. */
export function listenRank(rig: Rig, deviceId: string, hostId: string): number {
  if (deviceId === hostId) return 4;
  const type = typeOf(rig, deviceId);
  if (isWorn(type)) return 0;
  const down = [...downstream(rig, deviceId)].map((id) => typeOf(rig, id));
  if (down.some(isWorn)) return 1;
  if (down.some(soundsIntoRoom)) return 2;
  // A phone is connected where it can be heard: to a device that leads on.
  const leadsOn = rig.cables.some(
    (c) => c.medium === 'lead' && c.from.deviceId === deviceId && c.to.deviceId !== hostId,
  );
  return typeOf(rig, hostId).power?.feeds || !leadsOn ? 5 : 3;
}

/** People with a voice, in the order in which they were named. */
export const peopleOf = (rig: Rig): string[] => {
  const ids = rig.devices.filter((d) => isPerson(typeOf(rig, d.id)) && voicePort(typeOf(rig, d.id))).map((d) => d.id);
  const place = (id: string) => rig.sources.findIndex((s) => s.sound.deviceId === id);
  return ids.sort((a, b) => place(a) - place(b));
};

export const hostsOf = (rig: Rig): string[] =>
  rig.devices.filter((d) => isHardware(typeOf(rig, d.id)) && typeOf(rig, d.id).hosts === true).map((d) => d.id);

export const programsOn = (rig: Rig, hostId: string): string[] =>
  rig.devices.filter((d) => d.on === hostId).map((d) => d.id);
