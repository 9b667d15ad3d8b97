import { computerOf, type Device, findTypes, isHardware, isPerson, placesOf, type Rig } from '#core/model/rig/index.ts';
import type { Walk } from './order.ts';

/** Where one stands for something, and how far apart such places are. */
export interface Places {
  /** The device that one stands at: a program is at its computer, what someone wears at itself. */
  readonly at: (deviceId: string) => string;
  /** It is at the far side of a call: someone there has to do it. */
  readonly isFar: (deviceId: string) => boolean;
  readonly walk: Walk;
  /** Where one begins: the computer with the most programs. */
  readonly start: string;
}

/** A person at a desk, typical. */
const WALK_M_S = 1;
const TURN_S = 2;
/** Nothing tells how far apart two places are. */
const UNKNOWN_M = 3;
const MAX_M = 30;
/** Someone at the far side has to be told, and has to answer. */
const TELL_S = 20;

/** The places of a rig. How far apart they are is read from the cables between them: no one walks farther than these are long. */
export function placesIn(rig: Rig): Places {
  const types = findTypes(rig);
  const device = new Map(rig.devices.map((d) => [d.id, d]));
  const at = (deviceId: string): string => {
    const here = device.get(deviceId);
    return (here && computerOf(here, types.get(here.typeId)!)) ?? deviceId;
  };
  const ids = [...new Set(rig.devices.map((d) => at(d.id)))];
  const meters = distances(rig, at, ids);
  const placeOf = placesOf(rig);
  const isFar = (deviceId: string): boolean => {
    const type = types.get(device.get(at(deviceId))?.typeId ?? '');
    const [port] = type?.ports ?? [];
    const place = port ? placeOf({ deviceId: at(deviceId), portId: port.id }) : 'here';
    return place !== null && place !== 'here';
  };
  return {
    at,
    isFar,
    walk: (from, to) => (from === to ? 0 : isFar(to) ? TELL_S : isFar(from) ? 0 : TURN_S + meters(from, to) / WALK_M_S),
    start: startOf(rig.devices, at, (d) => {
      const type = types.get(d.typeId)!;
      return isHardware(type) && !isPerson(type) && !isFar(d.id);
    }),
  };
}

function startOf(devices: readonly Device[], at: Places['at'], isHere: (device: Device) => boolean): string {
  const programs = new Map<string, number>();
  for (const d of devices) if (at(d.id) !== d.id) programs.set(at(d.id), (programs.get(at(d.id)) ?? 0) + 1);
  const here = devices.filter(isHere).sort((a, b) => (programs.get(b.id) ?? 0) - (programs.get(a.id) ?? 0));
  return (here[0] ?? devices[0])?.id ?? '';
}

/** How far it is from one place to another, m: along the cables that lead from the one to the other. */
function distances(rig: Rig, at: Places['at'], ids: readonly string[]): (from: string, to: string) => number {
  const index = new Map(ids.map((id, i) => [id, i]));
  const n = ids.length;
  const between = new Map<number, { readonly to: number; readonly lengthM: number }[]>();
  for (const { from, to, medium, lengthM } of rig.cables) {
    if (medium === 'software' || medium === 'radio') continue;
    const [a, b] = [index.get(at(from.deviceId))!, index.get(at(to.deviceId))!];
    if (a === b) continue;
    between.set(a, [...(between.get(a) ?? []), { to: b, lengthM }]);
    between.set(b, [...(between.get(b) ?? []), { to: a, lengthM }]);
  }
  const known = new Map<number, Float64Array>();
  return (from, to) => {
    const [a, b] = [index.get(from), index.get(to)];
    if (a === undefined || b === undefined) return UNKNOWN_M;
    const row = known.get(a) ?? shortest(a, n, (i) => between.get(i) ?? []);
    known.set(a, row);
    return row[b] === Number.POSITIVE_INFINITY ? UNKNOWN_M : Math.min(MAX_M, row[b]!);
  };
}

/** Shortest paths from one place to all others (Dijkstra 1959), m; Infinity where no cable leads. */
function shortest(
  start: number,
  n: number,
  next: (i: number) => readonly { readonly to: number; readonly lengthM: number }[],
): Float64Array {
  const meters = new Float64Array(n).fill(Number.POSITIVE_INFINITY);
  meters[start] = 0;
  const open = new Set([start]);
  while (open.size > 0) {
    const nearest = [...open].reduce((a, b) => (meters[b]! < meters[a]! ? b : a));
    open.delete(nearest);
    for (const { to, lengthM } of next(nearest)) {
      if (meters[nearest]! + lengthM >= meters[to]!) continue;
      meters[to] = meters[nearest]! + lengthM;
      open.add(to);
    }
  }
  return meters;
}
