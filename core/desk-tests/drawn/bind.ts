import type { ScanRead } from '#core/desk-tests/scan/index.ts';
import {
  computerOf,
  endName,
  endsBehind,
  findDevice,
  findTypes,
  type PortRef,
  portsOf,
  type Rig,
  sameEnd,
  soundDeviceName,
  soundDevicesOf,
  type Types,
} from '#core/model/rig/index.ts';

/** Which sound device of the drawing each device of a scan is, by its id; null for none of them. */
export interface Bindings {
  readonly outputs: Readonly<Record<string, PortRef | null>>;
  readonly inputs: Readonly<Record<string, PortRef | null>>;
}

/** A sound device of the drawing with what a browser may call it. */
export interface DrawnDevice {
  readonly ref: PortRef;
  readonly name: string;
  readonly names: readonly string[];
}

/** What systems call what is in the computer itself. */
const BUILT_IN = ['built-in', 'internal', 'integrated'];

/** The devices of the rig that programs and browsers run on. */
export const computersIn = (rig: Rig): readonly string[] => {
  const types = findTypes(rig);
  return rig.devices.filter((d) => types.get(d.typeId)!.hosts === true).map((d) => d.id);
};

/** The sound devices that a computer lists as drawn: sockets that nothing is plugged into are left out. */
export function drawnDevices(rig: Rig, computerId: string, use: 'play' | 'record'): DrawnDevice[] {
  const types = findTypes(rig);
  return soundDevicesOf(rig, computerId, use).flatMap((ref) => {
    const device = findDevice(rig, ref.deviceId)!;
    const type = types.get(device.typeId)!;
    const sockets = endsBehind(type, ref.portId).filter((p) => p.connector !== 'software');
    const isOwn = sockets.every((p) => p.level === 'air');
    const box = boxBehind(rig, types, ref);
    if (!isOwn && !box) return [];
    const name = soundDeviceName(rig, types, ref);
    const typeName = box ? types.get(findDevice(rig, box)!.typeId)!.name : portsOf(type).get(ref.portId)!.name;
    const names = [
      name,
      endName(rig, types, ref),
      typeName,
      ...(type.hosts ? [] : [device.name]),
      ...(type.hosts && isOwn ? BUILT_IN : []),
    ];
    return [{ ref, name, names }];
  });
}

/** The device that is plugged into the socket behind a sound device; null where none is. */
export function boxBehind(rig: Rig, types: Types, ref: PortRef): string | null {
  const type = types.get(findDevice(rig, ref.deviceId)!.typeId)!;
  const sockets = endsBehind(type, ref.portId).filter((p) => p.connector !== 'software' && p.level !== 'air');
  const isBehind = (end: PortRef) => end.deviceId === ref.deviceId && sockets.some((p) => p.id === end.portId);
  for (const { from, to } of rig.cables) {
    if (isBehind(from)) return to.deviceId;
    if (isBehind(to)) return from.deviceId;
  }
  return null;
}

/** Words that any device may have in its name: they count only where nothing else is said. */
const GENERIC = new Set([
  'audio',
  'device',
  'analog',
  'analogue',
  'stereo',
  'mono',
  'digital',
  'default',
  'usb',
  'output',
  'input',
  'sound',
  'played',
  'to',
  'what',
  'brings',
  'the',
  'its',
  'own',
]);
/** USB numbers that browsers put behind a name. */
const NUMBERS = /\s*\([0-9a-f]{4}:[0-9a-f]{4}\)\s*$/i;
/** Names alike by this share of their words are taken for one. */
const MIN_LIKENESS = 0.5;

function wordsOf(name: string): ReadonlySet<string> {
  const all =
    name
      .replace(NUMBERS, '')
      .toLowerCase()
      .normalize('NFKD')
      .match(/[\p{L}\p{N}]+/gu) ?? [];
  const telling = all.filter((w) => !GENERIC.has(w));
  return new Set(telling.length > 0 ? telling : all);
}

/**
 * Sørensen–Dice coefficient of the words of two names, 0 to 1. One word in common is none, unless it is the whole of a name:
 * any two microphones have that.
 */
export function likenessOf(a: string, b: string): number {
  const [own, other] = [wordsOf(a), wordsOf(b)];
  const shared = [...own].filter((w) => other.has(w)).length;
  if (shared === 0 || (shared === 1 && Math.min(own.size, other.size) > 1)) return 0;
  return (2 * shared) / (own.size + other.size);
}

export const isAlike = (a: string, b: string): boolean => likenessOf(a, b) >= MIN_LIKENESS;

interface Named {
  readonly id: string;
  readonly name: string;
  readonly groupId?: string | undefined;
}

/** The pairs most alike first; a device that is as much like another one is left open. */
function byName(devices: readonly Named[], drawn: readonly DrawnDevice[]): Map<string, PortRef> {
  const scored = devices
    .flatMap(({ id, name }) =>
      drawn.map((d) => ({ id, ref: d.ref, score: Math.max(...d.names.map((n) => likenessOf(name, n))) })),
    )
    .filter((s) => s.score >= MIN_LIKENESS)
    .sort((a, b) => b.score - a.score);
  const bound = new Map<string, PortRef>();
  /** Devices that could be two: what is less like them is not them either. */
  const open = new Set<string>();
  const isTaken = (ref: PortRef) => [...bound.values()].some((r) => sameEnd(r, ref));
  for (const { id, ref, score } of scored) {
    if (bound.has(id) || open.has(id) || isTaken(ref)) continue;
    const rivals = scored.filter(
      (o) => o.score === score && (o.id === id) !== sameEnd(o.ref, ref) && !bound.has(o.id) && !isTaken(o.ref),
    );
    if (rivals.length === 0) bound.set(id, ref);
    else open.add(id);
  }
  return bound;
}

/** What both directions of one device have in common: the box that is plugged in, or the device of the drawing itself. */
const boxOf = (rig: Rig, types: Types, ref: PortRef): string => boxBehind(rig, types, ref) ?? ref.deviceId;

/** Where one direction of a device is known, the other one is the same device's. */
function byGroup(
  rig: Rig,
  devices: readonly Named[],
  bound: Map<string, PortRef>,
  drawn: readonly DrawnDevice[],
  others: readonly Named[],
  othersBound: ReadonlyMap<string, PortRef>,
): void {
  const types = findTypes(rig);
  for (const { id, groupId } of devices) {
    if (bound.has(id) || !groupId) continue;
    const twin = others.find((o) => o.groupId === groupId && othersBound.has(o.id));
    if (!twin) continue;
    const box = boxOf(rig, types, othersBound.get(twin.id)!);
    const own = drawn.filter(
      (d) => boxOf(rig, types, d.ref) === box && ![...bound.values()].some((r) => sameEnd(r, d.ref)),
    );
    if (own.length === 1) bound.set(id, own[0]!.ref);
  }
}

/**
 * Which device of the drawing each device of a scan most likely is: by the words of its name, then by what the browser says
 * belongs together. What could be two of them is left open.
 */
function bindByName(rig: Rig, computerId: string, scan: Pick<ScanRead, 'outputs' | 'inputs'>): Bindings {
  const [plays, records] = [drawnDevices(rig, computerId, 'play'), drawnDevices(rig, computerId, 'record')];
  const [outputs, inputs] = [byName(scan.outputs, plays), byName(scan.inputs, records)];
  byGroup(rig, scan.inputs, inputs, records, scan.outputs, outputs);
  byGroup(rig, scan.outputs, outputs, plays, scan.inputs, inputs);
  return { outputs: Object.fromEntries(outputs), inputs: Object.fromEntries(inputs) };
}

/** The computer of the drawing whose devices the scan names most of; the first where it names none. */
export function computerOfScan(rig: Rig, scan: Pick<ScanRead, 'outputs' | 'inputs'>): string | null {
  const scored = computersIn(rig).map((id) => {
    const { outputs, inputs } = bindByName(rig, id, scan);
    return { id, known: Object.keys(outputs).length + Object.keys(inputs).length };
  });
  return scored.sort((a, b) => b.known - a.known)[0]?.id ?? null;
}

/** Bindings that someone chose, over those by name; what is no longer in the drawing is none. */
export function bindingsOf(rig: Rig, computerId: string, scan: ScanRead, chosen: Bindings): Bindings {
  const types = findTypes(rig);
  const proposed = bindByName(rig, computerId, scan);
  const isThere = (ref: PortRef): boolean => {
    const device = findDevice(rig, ref.deviceId);
    const type = device && types.get(device.typeId);
    return !!type && portsOf(type).has(ref.portId) && computerOf(device, type) === computerId;
  };
  const merged = (own: Bindings['outputs'], names: Bindings['outputs'], ids: readonly Named[]) => {
    const kept = ids.flatMap(({ id }) => {
      const ref = own[id];
      return ref === null || (ref && isThere(ref)) ? [[id, ref] as const] : [];
    });
    const taken = kept.flatMap(([, ref]) => (ref ? [ref] : []));
    const open = Object.entries(names).filter(
      ([id, ref]) => !kept.some(([k]) => k === id) && ref && !taken.some((t) => sameEnd(t, ref)),
    );
    return Object.fromEntries([...kept, ...open]);
  };
  return {
    outputs: merged(chosen.outputs, proposed.outputs, scan.outputs),
    inputs: merged(chosen.inputs, proposed.inputs, scan.inputs),
  };
}
