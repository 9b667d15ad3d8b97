import {
  type Cable,
  type Device,
  type DeviceType,
  type Edit,
  findDevice,
  findTypes,
  isSettingTask,
  type PortSpec,
  type Rig,
  refuseValue,
  type SettingSpec,
  type SettingValue,
} from '#core/model/rig/index.ts';
import { changed, dependents, type Listener, type Source } from './remove.ts';

export interface Replaced {
  readonly edit: Edit;
  /** Cables that fit no socket of the new type and are taken out. */
  readonly lost: readonly Cable[];
  /** What someone had set, and the new type cannot be set to. */
  readonly lostSettings: readonly SettingSpec[];
}

/** Another type in a device's place: name, leads, settings, sources and listeners stay as far as they fit. */
export function replaceDevice(rig: Rig, deviceId: string, type: DeviceType): Replaced | null {
  const device = findDevice(rig, deviceId);
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
  /** The setting of the new type that is the same: by its id, else the only one for the same purpose. */
  const specFor = (id: string): SettingSpec | undefined => {
    const before = old.settings.find((s) => s.id === id);
    const alike = type.settings.filter((s) => before?.purpose !== undefined && s.purpose === before.purpose);
    return type.settings.find((s) => s.id === id) ?? (alike.length === 1 ? alike[0] : undefined);
  };
  const kept = Object.entries(device.settings).flatMap(([id, setting]) => {
    const spec = specFor(id);
    return spec && refuseValue(spec, setting.value) === undefined ? [[id, spec.id, setting] as const] : [];
  });
  const keptIds = new Set(kept.map(([id]) => id));
  const stays = (id: string, value: SettingValue): boolean => {
    const spec = specFor(id);
    return spec?.id === id && refuseValue(spec, value) === undefined;
  };
  const settings = Object.fromEntries(kept.map(([, id, setting]) => [id, setting]));
  const lostSettings = old.settings.filter((s) => s.id in device.settings && !keptIds.has(s.id));
  const edit: Edit = {
    kind: 'batch',
    edits: [
      ...dependents(rig, goneSources, goneListeners, (s) => s.deviceId === deviceId && !stays(s.settingId, s.value)),
      ...rig.tasks
        .filter((t) => (isSettingTask(t) ? t.deviceId === deviceId : lost.some((c) => c.id === t.cableId)))
        .map((t): Edit => ({ kind: 'close-task', taskId: t.id })),
      ...rig.cables
        .filter((c) => c.from.deviceId === deviceId || c.to.deviceId === deviceId)
        .map((c): Edit => ({ kind: 'unplug', cableId: c.id })),
      ...taken,
      { kind: 'set-device', device: { ...withoutEnds(device, type), typeId: type.id, settings } },
      ...put,
      ...plugs,
    ],
  };
  return { edit, lost, lostSettings };
}

/** What someone has named goes with the ends that the new type does not have. */
function withoutEnds(device: Device, type: DeviceType): Device {
  const { ends, ...rest } = device;
  if (!ends) return device;
  const kept = Object.entries(ends).filter(([id]) => type.ports.some((p) => p.id === id));
  return kept.length > 0 ? { ...rest, ends: Object.fromEntries(kept) } : rest;
}
