import { connectorOf } from '#core/model/plug/index.ts';
import {
  type Cable,
  type DeviceType,
  endName,
  findDevice,
  findTypes,
  type PortRef,
  type PortSpec,
  type Rig,
  soundDeviceOf,
  type Types,
} from '#core/model/rig/index.ts';

/** A place on a device where something is connected: all channels behind one socket, or one software port. */
export interface Socket {
  readonly deviceId: string;
  /** The name that its ends share, or the end's own id. */
  readonly id: string;
  readonly name: string;
  /** Someone has hidden it: it is not offered; or prefers it: it is offered before its like. */
  readonly hidden?: boolean;
  readonly preferred?: boolean;
  readonly connector: string;
  readonly ports: readonly PortSpec[];
  /** What is plugged there already. */
  readonly cableIds: readonly string[];
}

const NEVER_PLUGGED = new Set(['inside', 'file']);

/** Every socket of a device, in the order of its type. */
export function socketsOf(rig: Rig, deviceId: string, types: Types = findTypes(rig)): Socket[] {
  const device = findDevice(rig, deviceId);
  const type: DeviceType | undefined = device && types.get(device.typeId);
  const groups = new Map<string, PortSpec[]>();
  for (const port of type?.ports ?? []) {
    if (NEVER_PLUGGED.has(port.connector)) continue;
    const key = port.socket ?? port.id;
    groups.set(key, [...(groups.get(key) ?? []), port]);
  }
  return [...groups].map(([id, ports]) => ({
    deviceId,
    id,
    // Computed on request: the cable in every socket is looked up for it.
    get name() {
      return endName(rig, types, { deviceId, portId: ports[0]!.id });
    },
    hidden: ports.every((p) => device!.ends?.[p.id]?.hidden === true),
    preferred: ports.some((p) => device!.ends?.[p.id]?.preferred === true),
    connector: ports[0]!.connector,
    ports,
    cableIds: rig.cables
      .filter((c) => [c.from, c.to].some((r) => r.deviceId === deviceId && ports.some((p) => p.id === r.portId)))
      .map((c) => c.id),
  }));
}

const isFarSide = ({ ports }: Socket): boolean => ports.some((p) => p.does === 'far-side');
const standsOnAComputer = ({ connector }: Socket): boolean =>
  connector === 'bluetooth' || ['usb', 'jack'].includes(connectorOf(connector)?.kind ?? '');

/** What carries a signal between two sockets; null where nothing can. */
export function mediumOf(a: Socket, b: Socket): Cable['medium'] | null {
  // The remote computer is not drawn: its devices are on the call.
  if ((isFarSide(a) && standsOnAComputer(b)) || (isFarSide(b) && standsOnAComputer(a))) return 'software';
  const own = (s: Socket) => (connectorOf(s.connector) ? 'lead' : s.connector);
  const [x, y] = [own(a), own(b)];
  if (x !== y) return null;
  return x === 'bluetooth' ? 'radio' : (x as Cable['medium']);
}

/** Meters that such a cable usually has, until someone measures it. */
const USUAL_M: Record<string, number> = { usb: 1.5, hdmi: 2, xlr: 5, network: 5, optical: 2, loudspeaker: 3 };
/** At the mouth, at the ear, and across a room. */
const AT_THE_MOUTH_M = 0.15;
const ACROSS_M = 2;
const USUAL_RADIO_M = 5;

export function usualLength(medium: Cable['medium'], { connector, ports }: Socket): number {
  if (medium === 'software') return 0;
  if (medium === 'air' || medium === 'light') {
    const referenceM = ports.find((p) => p.referenceM !== undefined)?.referenceM;
    return referenceM === undefined || referenceM > 2 * AT_THE_MOUTH_M
      ? ACROSS_M
      : Math.min(referenceM, AT_THE_MOUTH_M);
  }
  if (medium === 'radio') return USUAL_RADIO_M;
  return USUAL_M[connectorOf(connector)?.kind ?? ''] ?? 1.5;
}

const soundIds = (port: PortSpec): string[] => port.channels.filter((c) => c.carries === 'sound').map((c) => c.id);
const carry = (a: PortSpec, b: PortSpec): boolean =>
  a.channels.some((c) => b.channels.some((d) => d.carries === c.carries));

/** The devices behind a socket that a computer tells apart, as a hub's; each with its channels. */
export function devicesBehind({ ports }: Pick<Socket, 'ports'>): PortSpec[][] {
  const devices = new Map<string, PortSpec[]>();
  for (const port of ports) devices.set(soundDeviceOf(port), [...(devices.get(soundDeviceOf(port)) ?? []), port]);
  return [...devices.values()];
}

/** Which channels of two sockets go together: device by device where both have several, otherwise all to all. */
function lanesBetween(a: Socket, b: Socket): [readonly PortSpec[], readonly PortSpec[]][] {
  const [mine, theirs] = [devicesBehind(a), devicesBehind(b)];
  return mine.length > 1 && theirs.length > 1
    ? mine.slice(0, theirs.length).map((ports, i) => [ports, theirs[i]!])
    : [[a.ports, b.ports]];
}

/**
 * The cables that join two sockets, both ways where there are ends for it: each device behind the one to its own of the
 * other. Where there is one device for several, several outputs take the channels of an input one after another, and
 * several inputs those of an output, as the pairs of a USB device do.
 */
export function joinSockets(rig: Rig, a: Socket, b: Socket, lengthM?: number): Cable[] {
  const medium = mediumOf(a, b);
  if (!medium || a.deviceId === b.deviceId) return [];
  const length = lengthM ?? usualLength(medium, a);
  const taken = new Set(rig.cables.map((c) => c.id));
  const cables: Cable[] = [];
  const add = (from: [Socket, PortSpec], to: [Socket, PortSpec], map?: Cable['map']): void => {
    const id = freeId(taken, `${from[0].deviceId}-${to[0].deviceId}`);
    taken.add(id);
    const [start, end] = [from, to].map(([s, p]): PortRef => ({ deviceId: s.deviceId, portId: p.id }));
    cables.push({ id, from: start!, to: end!, medium, lengthM: length, known: 'assumed', ...(map && { map }) });
  };
  const lanes = lanesBetween(a, b);
  for (const [from, to, isBack] of [
    [a, b, false],
    [b, a, true],
  ] as const)
    for (const [one, other] of lanes) {
      const [outs, ins] = isBack ? [other, one] : [one, other];
      const outputs = outs.filter((o) => o.direction === 'out' && ins.some((i) => i.direction === 'in' && carry(o, i)));
      const inputs = ins.filter((i) => i.direction === 'in' && outputs.some((o) => carry(o, i)));
      const [output, input] = [outputs[0], inputs[0]];
      if (!output || !input) continue;
      if (outputs.length > 1) {
        for (const { port, at } of oneAfterAnother(outputs, input))
          add([from, port], [to, input], at ? mapOf(soundIds(port), at) : undefined);
      } else
        for (const { port, at } of oneAfterAnother(inputs, output))
          add([from, output], [to, port], at ? mapOf(at, soundIds(port)) : undefined);
    }
  return cables;
}

/**
 * As `joinSockets`; where a stereo pair meets inputs for one channel, its right side goes into the next input of the
 * device that is like the first and free.
 */
export function joinSides(rig: Rig, a: Socket, b: Socket): Cable[] {
  const cables = joinSockets(rig, a, b);
  const [only] = cables;
  if (!only || cables.length > 1 || only.medium !== 'lead') return cables;
  const [from, to] = only.from.deviceId === a.deviceId ? [a, b] : [b, a];
  const out = from.ports.find((p) => p.id === only.from.portId)!;
  if (soundIds(out).length !== 2 || !isPairOfSockets(from) || !isMonoInput(to)) return cables;
  const all = socketsOf(rig, to.deviceId);
  const next = all
    .slice(all.findIndex((s) => s.id === to.id) + 1)
    .find((s) => s.connector === to.connector && isMonoInput(s) && s.ports[0]!.level === to.ports[0]!.level);
  if (!next || next.cableIds.length > 0 || to.cableIds.length > 0) return cables;
  const taken = new Set([...rig.cables.map((c) => c.id), only.id]);
  return [to, next].map((socket, i): Cable => {
    const input = socket.ports[0]!;
    return {
      ...only,
      id: i === 0 ? only.id : freeId(taken, only.id),
      to: { deviceId: socket.deviceId, portId: input.id },
      map: [{ from: soundIds(out)[i]!, to: soundIds(input)[0]! }],
    };
  });
}

const isPairOfSockets = ({ connector }: Socket): boolean =>
  connectorOf(connector)?.plugs[0]?.endsWith('-pair') === true;
const isMonoInput = (socket: Socket): boolean => {
  const [port, more] = socket.ports;
  return (
    !more &&
    port?.direction === 'in' &&
    port.channels.length === 1 &&
    soundIds(port).length === 1 &&
    !isPairOfSockets(socket)
  );
};

const mapOf = (from: readonly string[], to: readonly string[]): Cable['map'] =>
  to.slice(0, from.length).map((id, i) => ({ from: from[i]!, to: id }));

/** The ends of one side, each with the channels of the one end over there that are its own; the first has them as they come. */
function oneAfterAnother(
  ports: readonly PortSpec[],
  single: PortSpec,
): { readonly port: PortSpec; readonly at: readonly string[] | null }[] {
  const room = soundIds(single);
  let next = 0;
  return ports
    .filter((port) => carry(port, single))
    .flatMap((port) => {
      const start = next;
      const at = room.slice(start, start + soundIds(port).length);
      next += soundIds(port).length;
      return start > 0 && at.length === 0 ? [] : [{ port, at: start > 0 ? at : null }];
    });
}

export function freeId(taken: ReadonlySet<string>, wanted: string): string {
  const short = wanted.slice(0, 60).replace(/-+$/, '');
  let id = short;
  for (let n = 2; taken.has(id); n++) id = `${short}-${n}`;
  return id;
}
