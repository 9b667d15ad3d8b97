import {
  applyEdit,
  beginsAt,
  type Device,
  type DeviceType,
  type Edit,
  findTypes,
  idFrom,
  isHardware,
  isProgram,
  type PortSpec,
  type Rig,
} from '#core/model/rig/index.ts';
import { freeId } from './sockets.ts';

type Source = Rig['sources'][number];
type Listener = Rig['listeners'][number];

/** How loud what begins at a port usually is, in its scale: dB SPL at its distance, dBFS, dBu. */
const USUAL_LEVEL: Partial<Record<PortSpec['level'], [number, number, number]>> = {
  air: [74, 77, 80],
  digital: [-26, -20, -14],
  software: [-26, -20, -14],
  headphone: [-20, -14, -8],
  line: [-14, -8, -2],
};

const has = (port: PortSpec, carries: 'sound' | 'picture'): boolean => port.channels.some((c) => c.carries === carries);

/** Hues that lines have. */
const HUES = 8;

/** The hue that the fewest sources have. */
export function freeHue({ sources }: Pick<Rig, 'sources'>): number {
  const used = (hue: number) => sources.filter((s) => s.hue === hue).length;
  return Array.from({ length: HUES }, (_, i) => i + 1).reduce((a, b) => (used(b) < used(a) ? b : a));
}

/** The source that begins in a device, where one does: what nothing within leads to. */
function sourceOf(rig: Rig, device: Device, type: DeviceType, called: string): Source | null {
  const sound = type.ports.find((p) => beginsAt(type, p) && has(p, 'sound'));
  if (!sound) return null;
  const picture = has(sound, 'picture') ? sound : type.ports.find((p) => beginsAt(type, p) && has(p, 'picture'));
  const taken = new Set(rig.sources.map((s) => s.letter));
  const letters = [...device.name.toUpperCase().replace(/[^A-Z0-9]/g, ''), ...'ABCDEFGHIJKLMNOPQRSTUVWXYZ0123456789'];
  const letter = letters.find((l) => !taken.has(l)) ?? 'X';
  const at = (port: PortSpec) => ({ deviceId: device.id, portId: port.id });
  return {
    id: freeId(new Set(rig.sources.map((s) => s.id)), device.id),
    name: called,
    letter,
    hue: freeHue(rig),
    sound: at(sound),
    ...(picture && { picture: at(picture) }),
    level: USUAL_LEVEL[sound.level] ?? [-26, -20, -14],
  };
}

/** Who gets something at a device: what it records or streams, and ears. */
function listenersOf(rig: Rig, device: Device, type: DeviceType): Listener[] {
  const ends = type.ports.filter(
    (p) =>
      has(p, 'sound') &&
      (p.connector === 'file' ||
        p.does === 'stream' ||
        p.does === 'room-ears' ||
        (p.does === 'ears' && isHardware(type))),
  );
  const view = type.ports.find((p) => p.does === 'view');
  const taken = new Set(rig.listeners.map((l) => l.id));
  return ends.map((port): Listener => {
    const id = freeId(taken, ends.length > 1 ? `${device.id}-${port.id}` : device.id);
    taken.add(id);
    const picture = has(port, 'picture') ? port : view;
    return {
      id,
      name: (ends.length > 1 ? `${device.name}, ${port.name}` : device.name).slice(0, 120),
      sound: { deviceId: device.id, portId: port.id },
      ...(picture && { picture: { deviceId: device.id, portId: picture.id } }),
    };
  });
}

/** 'Screen with headphone jack' is called 'Screen'; a second one 'Screen 2'. */
export function nameFor(rig: Rig, type: DeviceType): string {
  const short = type.name.split(/,| with | without | over | for | in the /)[0]!.trim();
  const names = new Set(rig.devices.map((d) => d.name));
  let name = short;
  for (let n = 2; names.has(name); n++) name = `${short} ${n}`;
  return name;
}

/**
 * A device of a type, with the source that begins in it and who hears at it; a program on the one computer there is.
 * @param voice  what the source is called, where that is not the device's name
 */
export function addDevice(
  rig: Rig,
  type: DeviceType,
  name = nameFor(rig, type),
  voice = name,
): { edit: Edit; device: Device } {
  const types = findTypes(rig);
  const hosts = rig.devices.filter((d) => types.get(d.typeId)!.hosts);
  // What is connected to it decides which one is meant, where there is a tablet as well.
  const wired = hosts.filter((d) => types.get(d.typeId)!.power?.feeds !== undefined);
  const computers = wired.length > 0 ? wired : hosts;
  const device: Device = {
    id: freeId(new Set(rig.devices.map((d) => d.id)), idFrom(name, 'device')),
    typeId: type.id,
    name,
    settings: {},
    ...(isProgram(type) && computers.length === 1 && { on: computers[0]!.id }),
  };
  const source = sourceOf(rig, device, type, voice);
  return {
    device,
    edit: {
      kind: 'batch',
      edits: [
        { kind: 'add-device', device },
        ...(source ? [{ kind: 'add-source' as const, source }] : []),
        ...listenersOf(rig, device, type).map((listener): Edit => ({ kind: 'add-listener', listener })),
      ],
    },
  };
}

/** This many devices of each type, one after another. */
export function addDevices(rig: Rig, counts: ReadonlyMap<string, number>): Edit {
  const types = findTypes(rig);
  const edits: Edit[] = [];
  let now = rig;
  for (const [typeId, count] of counts) {
    const type = types.get(typeId);
    for (let n = 0; type && n < count; n++) {
      const { edit } = addDevice(now, type);
      const done = applyEdit(now, edit);
      if (!done.ok) break;
      edits.push(edit);
      now = done.rig;
    }
  }
  return { kind: 'batch', edits };
}
