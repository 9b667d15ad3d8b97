import {
  applyEdit,
  type Cable,
  type Device,
  type DeviceType,
  type Edit,
  findTypes,
  isSettingTask,
  type PortSpec,
  type Rig,
} from '#core/rig/index.ts';
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
const beginsAt = (type: DeviceType, port: PortSpec): boolean =>
  port.direction === 'out' && !type.inside.some((w) => w.to.startsWith(`${port.id}.`));

/** The source that begins in a device, where one does: what nothing within leads to. */
function sourceOf(rig: Rig, device: Device, type: DeviceType): Source | null {
  const sound = type.ports.find((p) => beginsAt(type, p) && has(p, 'sound'));
  if (!sound) return null;
  const picture = has(sound, 'picture') ? sound : type.ports.find((p) => beginsAt(type, p) && has(p, 'picture'));
  const taken = new Set(rig.sources.map((s) => s.letter));
  const letters = [...device.name.toUpperCase().replace(/[^A-Z0-9]/g, ''), ...'ABCDEFGHIJKLMNOPQRSTUVWXYZ0123456789'];
  const letter = letters.find((l) => !taken.has(l)) ?? 'X';
  const at = (port: PortSpec) => ({ deviceId: device.id, portId: port.id });
  return {
    id: freeId(new Set(rig.sources.map((s) => s.id)), device.id),
    name: device.name,
    letter,
    hue: (rig.sources.length % 8) + 1,
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
        p.id === 'stream' ||
        (p.id === 'ears' &&
          (type.family === 'headphones' || type.family === 'two-way' || device.typeId === 'audience'))),
  );
  const view = type.ports.find((p) => p.id === 'view' || p.id === 'eyes');
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

const idFrom = (name: string): string =>
  name
    .toLowerCase()
    .normalize('NFKD')
    .replace(/[^a-z0-9]+/g, '-')
    .replace(/^-+|-+$/g, '')
    .slice(0, 56) || 'device';

/** 'Screen with headphone jack' is called 'Screen'; a second one 'Screen 2'. */
export function nameFor(rig: Rig, type: DeviceType): string {
  const short = type.name.split(/,| with | without | over | for | in the /)[0]!.trim();
  const names = new Set(rig.devices.map((d) => d.name));
  let name = short;
  for (let n = 2; names.has(name); n++) name = `${short} ${n}`;
  return name;
}

/** A device of a type, with the source that begins in it and who hears at it; a program on the one computer there is. */
export function addDevice(rig: Rig, type: DeviceType, name = nameFor(rig, type)): { edit: Edit; device: Device } {
  const types = findTypes(rig);
  const computers = rig.devices.filter((d) => {
    const t = types.get(d.typeId)!;
    return t.family === 'computers' && t.power?.feeds !== undefined;
  });
  const device: Device = {
    id: freeId(new Set(rig.devices.map((d) => d.id)), idFrom(name)),
    typeId: type.id,
    name,
    settings: {},
    ...(type.family === 'programs' && computers.length === 1 && { on: computers[0]!.id }),
  };
  const source = sourceOf(rig, device, type);
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

/** So many devices of each type, one after another. */
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

/** Everything that hangs on a device, taken out with it. */
export function removeDevice(rig: Rig, deviceId: string): Edit {
  const here = (ref: { deviceId: string } | undefined) => ref?.deviceId === deviceId;
  const cables = rig.cables.filter((c) => here(c.from) || here(c.to));
  const sources = rig.sources.filter((s) => here(s.sound));
  const listeners = rig.listeners.filter((l) => here(l.sound));
  return {
    kind: 'batch',
    edits: [
      ...dependents(rig, sources, listeners),
      ...lookingHere(rig, deviceId),
      ...rig.tasks
        .filter((t) => (isSettingTask(t) ? t.deviceId === deviceId : cables.some((c) => c.id === t.cableId)))
        .map((t): Edit => ({ kind: 'close-task', taskId: t.id })),
      ...cables.map((c): Edit => ({ kind: 'unplug', cableId: c.id })),
      ...linked(rig, deviceId),
      { kind: 'remove-device', deviceId },
    ],
  };
}

/** Plan cells, sources and listeners that go. */
const dependents = (rig: Rig, sources: readonly Source[], listeners: readonly Listener[]): Edit[] => {
  const gone = (c: Rig['plan'][number]) =>
    sources.some((s) => s.id === c.sourceId || s.id === c.inTimeWith) || listeners.some((l) => l.id === c.listenerId);
  return [
    ...rig.plan
      .filter(gone)
      .map((c): Edit => ({ kind: 'set-plan', sourceId: c.sourceId, listenerId: c.listenerId, cell: null })),
    ...sources.map((s): Edit => ({ kind: 'remove-source', sourceId: s.id })),
    ...listeners.map((l): Edit => ({ kind: 'remove-listener', listenerId: l.id })),
  ];
};

/** Every source and listener that the change touches, taken out and put back changed in its place. */
function changed(rig: Rig, change: <T extends Source | Listener>(x: T) => T): Edit[] {
  const sources = rig.sources.flatMap((source, at): Edit[] => {
    const next = change(source);
    return next === source
      ? []
      : [
          { kind: 'remove-source', sourceId: source.id },
          { kind: 'add-source', source: next, at },
        ];
  });
  const listeners = rig.listeners.flatMap((listener, at): Edit[] => {
    const next = change(listener);
    return next === listener
      ? []
      : [
          { kind: 'remove-listener', listenerId: listener.id },
          { kind: 'add-listener', listener: next, at },
        ];
  });
  return [...sources, ...listeners];
}

/** Sources and listeners elsewhere whose picture was here lose it. */
const lookingHere = (rig: Rig, deviceId: string): Edit[] =>
  changed(rig, (x) => {
    if (x.picture?.deviceId !== deviceId || x.sound.deviceId === deviceId) return x;
    const { picture: _gone, ...rest } = x;
    return rest as typeof x;
  });

/** Programs on it, and what it feeds, stand for themselves again. */
const linked = (rig: Rig, deviceId: string): Edit[] =>
  rig.devices
    .filter((d) => d.on === deviceId || d.fedBy === deviceId)
    .map((d): Edit => {
      const { on, fedBy, ...rest } = d;
      return {
        kind: 'set-device',
        device: {
          ...rest,
          ...(on && on !== deviceId ? { on } : {}),
          ...(fedBy && fedBy !== deviceId ? { fedBy } : {}),
        },
      };
    });

export interface Replaced {
  readonly edit: Edit;
  /** Leads that fit no socket of the new type and are taken out. */
  readonly lost: readonly Cable[];
}

/** Another type in a device's place: name, leads, settings, sources and listeners stay as far as they fit. */
export function replaceDevice(rig: Rig, deviceId: string, type: DeviceType): Replaced | null {
  const device = rig.devices.find((d) => d.id === deviceId);
  const old = device && findTypes(rig).get(device.typeId);
  if (!device || !old) return null;
  const used = new Map<string, string>();
  const portFor = (portId: string): string | null => {
    const known = used.get(portId);
    if (known) return known;
    const port = old.ports.find((p) => p.id === portId)!;
    const free = type.ports.filter((p) => p.direction === port.direction && ![...used.values()].includes(p.id));
    const same = (p: PortSpec) => p.level === port.level && p.channels.length === port.channels.length;
    const found =
      free.find((p) => p.id === port.id) ??
      free.find((p) => p.connector === port.connector && same(p)) ??
      free.find(same) ??
      free.find((p) => p.level === port.level);
    if (found) used.set(portId, found.id);
    return found?.id ?? null;
  };
  const move = <T extends { deviceId: string; portId: string }>(ref: T): T | null => {
    if (ref.deviceId !== deviceId) return ref;
    const portId = portFor(ref.portId);
    return portId ? { ...ref, portId } : null;
  };
  const lost: Cable[] = [];
  const plugs = rig.cables
    .filter((c) => c.from.deviceId === deviceId || c.to.deviceId === deviceId)
    .flatMap((c): Edit[] => {
      const [from, to] = [move(c.from), move(c.to)];
      const { map: _map, ...plain } = c;
      if (!from || !to) lost.push(c);
      return from && to ? [{ kind: 'plug', cable: { ...plain, from, to, known: 'assumed' } }] : [];
    });
  const here = (ref: { deviceId: string } | undefined) => ref?.deviceId === deviceId;
  const gone = <T extends Source | Listener>(list: readonly T[]): T[] =>
    list.filter((x) => here(x.sound) && move(x.sound) === null);
  const goneSources = gone(rig.sources);
  const goneListeners = gone(rig.listeners);
  const without: Rig = {
    ...rig,
    sources: rig.sources.filter((s) => !goneSources.includes(s)),
    listeners: rig.listeners.filter((l) => !goneListeners.includes(l)),
  };
  /** All ends that were here, at the new type's sockets; a picture that has none is left out. */
  const moved = changed(without, (x) => {
    if (!here(x.sound) && !here(x.picture)) return x;
    const { picture: old, ...rest } = x;
    const picture = old && move(old);
    return { ...rest, sound: move(x.sound)!, ...(picture && { picture }) } as typeof x;
  });
  const [taken, put] = [
    moved.filter((e) => e.kind.startsWith('remove')),
    moved.filter((e) => e.kind.startsWith('add')),
  ];
  const settings = Object.fromEntries(
    Object.entries(device.settings).filter(([id]) =>
      type.settings.some(
        (s) => s.id === id && old.settings.some((o) => o.id === id && JSON.stringify(o) === JSON.stringify(s)),
      ),
    ),
  );
  const edit: Edit = {
    kind: 'batch',
    edits: [
      ...dependents(rig, goneSources, goneListeners),
      ...rig.tasks
        .filter((t) => (isSettingTask(t) ? t.deviceId === deviceId : lost.some((c) => c.id === t.cableId)))
        .map((t): Edit => ({ kind: 'close-task', taskId: t.id })),
      ...rig.cables
        .filter((c) => c.from.deviceId === deviceId || c.to.deviceId === deviceId)
        .map((c): Edit => ({ kind: 'unplug', cableId: c.id })),
      ...taken,
      { kind: 'set-device', device: { ...device, typeId: type.id, settings } },
      ...put,
      ...plugs,
    ],
  };
  return { edit, lost };
}
