import { connectorOf } from '#core/plug/index.ts';
import {
  type Cable,
  type DeviceType,
  findTypes,
  type PortRef,
  type PortSpec,
  type Rig,
  type Types,
} from '#core/rig/index.ts';

/** A place on a box where something is plugged or handed on: all ends behind one socket, or one end by itself. */
export interface Socket {
  readonly deviceId: string;
  /** The name that its ends share, or the end's own id. */
  readonly id: string;
  readonly name: string;
  /** Somebody has hidden it: it is not offered; or prefers it: it is offered before its like. */
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
  const device = rig.devices.find((d) => d.id === deviceId);
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
    name: device!.ends?.[ports[0]!.id]?.name ?? ports[0]!.name,
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
  // The computer over there is not drawn: what stands on it is on the call.
  if ((isFarSide(a) && standsOnAComputer(b)) || (isFarSide(b) && standsOnAComputer(a))) return 'software';
  const own = (s: Socket) => (connectorOf(s.connector) ? 'lead' : s.connector);
  const [x, y] = [own(a), own(b)];
  if (x !== y) return null;
  return x === 'bluetooth' ? 'radio' : (x as Cable['medium']);
}

/** Metres that such a lead usually has, until somebody measures it. */
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

/**
 * The cables that join two sockets, both ways where there are ends for it. Several outputs behind one socket take the
 * channels of the input one after another, as a USB device's pairs do.
 */
export function joinSockets(rig: Rig, a: Socket, b: Socket, lengthM?: number): Cable[] {
  const medium = mediumOf(a, b);
  if (!medium || a.deviceId === b.deviceId) return [];
  const length = lengthM ?? usualLength(medium, a);
  const taken = new Set(rig.cables.map((c) => c.id));
  const cables: Cable[] = [];
  for (const [from, to] of [
    [a, b],
    [b, a],
  ] as const) {
    const input = to.ports.find(
      (p) => p.direction === 'in' && from.ports.some((o) => o.direction === 'out' && carry(o, p)),
    );
    if (!input) continue;
    let next = 0;
    const room = soundIds(input);
    for (const output of from.ports.filter((p) => p.direction === 'out' && carry(p, input))) {
      const own = soundIds(output);
      const at = room.slice(next, next + own.length);
      if (next > 0 && at.length === 0) break;
      const id = freeId(taken, `${from.deviceId}-${to.deviceId}`);
      taken.add(id);
      const ref = (s: Socket, p: PortSpec): PortRef => ({ deviceId: s.deviceId, portId: p.id });
      cables.push({
        id,
        from: ref(from, output),
        to: ref(to, input),
        medium,
        lengthM: length,
        known: 'assumed',
        ...(next > 0 && { map: at.map((to, i) => ({ from: own[i]!, to })) }),
      });
      next += own.length;
    }
  }
  return cables;
}

export function freeId(taken: ReadonlySet<string>, wanted: string): string {
  const short = wanted.slice(0, 60).replace(/-+$/, '');
  let id = short;
  for (let n = 2; taken.has(id); n++) id = `${short}-${n}`;
  return id;
}
