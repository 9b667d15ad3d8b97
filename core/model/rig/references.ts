import { RigError } from './errors.ts';
import { settingKey } from './keys.ts';
import { findDevice, isSettingTask, portsOf, refuseValue, settingsOf, type Types } from './lookup.ts';
import { say } from './sayings.ts';
import type { Moment, PortRef, Rig } from './schema.ts';
import type { DeviceType } from './schema-type.ts';

/** Everything in a well-shaped rig that points to nothing, twice, or the wrong way. Empty when it holds together. */
export function checkReferences(rig: Rig, types: Types): RigError[] {
  return [
    ...duplicates(rig),
    ...rig.types.flatMap((type, i) => (sound.has(type) ? [] : soundOr(type, typeTroubles(type, `types/${i}`)))),
    ...rig.devices.flatMap((device, i) => {
      const type = types.get(device.typeId);
      if (!type) return [unknown(`devices/${i}/typeId`, 'type', device.typeId)];
      const ends = Object.keys(device.ends ?? {}).filter((id) => !portsOf(type).has(id));
      if (ends.length > 0) return [unknown(`devices/${i}/ends/${ends[0]}`, 'socket', ends[0]!, device.name)];
      return Object.entries(device.settings).flatMap(([id, setting]) => {
        const spec = settingsOf(type).get(id);
        const path = `devices/${i}/settings/${id}`;
        if (!spec) return [unknown(path, 'setting', id, device.name)];
        const why = refuseValue(spec, setting.value);
        return why
          ? [new RigError('setting-value', path, say.documentSays({ why, value: String(setting.value) }))]
          : [];
      });
    }),
    ...rig.cables.flatMap((cable, i) => [
      ...portTrouble(rig, types, cable.from, `cables/${i}/from`, 'out'),
      ...portTrouble(rig, types, cable.to, `cables/${i}/to`, 'in'),
      ...(cable.map ?? []).flatMap((pair, j) => [
        ...channelTrouble(rig, types, cable.from, pair.from, `cables/${i}/map/${j}/from`),
        ...channelTrouble(rig, types, cable.to, pair.to, `cables/${i}/map/${j}/to`),
      ]),
    ]),
    ...rig.sources.flatMap((source, i) => [
      ...portTrouble(rig, types, source.sound, `sources/${i}/sound`, 'out'),
      ...(source.picture ? portTrouble(rig, types, source.picture, `sources/${i}/picture`, 'out') : []),
    ]),
    ...rig.listeners.flatMap((listener, i) => [
      ...portTrouble(rig, types, listener.sound, `listeners/${i}/sound`),
      ...(listener.picture ? portTrouble(rig, types, listener.picture, `listeners/${i}/picture`) : []),
    ]),
    ...planTroubles(rig, rig.plan, 'plan'),
    ...rig.moments.flatMap((moment, i) => [
      ...planTroubles(rig, moment.plan, `moments/${i}/plan`),
      ...momentTroubles(rig, types, moment, `moments/${i}/settings`),
    ]),
    ...rig.devices.flatMap((device, i) =>
      (['on', 'fedBy'] as const).flatMap((link) => {
        const other = device[link];
        return other === undefined || findDevice(rig, other) ? [] : [unknown(`devices/${i}/${link}`, 'device', other)];
      }),
    ),
    ...rig.tasks.flatMap((task, i) => {
      if (!isSettingTask(task)) return [];
      const device = findDevice(rig, task.deviceId);
      if (!device) return [unknown(`tasks/${i}/deviceId`, 'device', task.deviceId)];
      const known = types.get(device.typeId)?.settings.some((s) => s.id === task.settingId);
      return known ? [] : [unknown(`tasks/${i}/settingId`, 'setting', task.settingId, device.name)];
    }),
  ];
}

/** Types that held together when they were looked at: a type is never changed, only replaced. */
const sound = new WeakSet<DeviceType>();
function soundOr(type: DeviceType, troubles: RigError[]): RigError[] {
  if (troubles.length === 0) sound.add(type);
  return troubles;
}

type Kind = 'type' | 'device' | 'source' | 'listener' | 'figure' | 'socket' | 'channel' | 'setting';

/** `of`: the name of what should have it. */
const unknown = (path: string, what: Kind, id: string, of?: string): RigError =>
  new RigError('unknown-reference', path, of === undefined ? say.noSuch({ what, id }) : say.noSuchOf({ what, of, id }));

const LISTS = [
  'types',
  'devices',
  'cables',
  'sources',
  'listeners',
  'measurements',
  'tasks',
  'dismissed',
  'moments',
] as const;

function duplicates(rig: Rig): RigError[] {
  return LISTS.flatMap((list) => {
    const seen = new Set<string>();
    return rig[list].flatMap(({ id }, i) => {
      if (!seen.has(id)) {
        seen.add(id);
        return [];
      }
      return [new RigError('duplicate-id', `${list}/${i}/id`, say.duplicateIdChangeOne({ id }))];
    });
  });
}

function portTrouble(rig: Rig, types: Types, ref: PortRef, path: string, direction?: 'in' | 'out'): RigError[] {
  const device = findDevice(rig, ref.deviceId);
  if (!device) return [unknown(path, 'device', ref.deviceId)];
  const type = types.get(device.typeId);
  const port = type && portsOf(type).get(ref.portId);
  if (!port) return [unknown(path, 'socket', ref.portId, device.name)];
  if (direction && port.direction !== direction) {
    return [
      new RigError(
        'wrong-direction',
        path,
        say.isInputOtherInput({ device: device.name, port: port.name, is: port.direction, direction }),
      ),
    ];
  }
  return [];
}

function channelTrouble(rig: Rig, types: Types, ref: PortRef, channelId: string, path: string): RigError[] {
  const type = types.get(findDevice(rig, ref.deviceId)?.typeId ?? '');
  const port = type && portsOf(type).get(ref.portId);
  return !port || port.channels.some((c) => c.id === channelId) ? [] : [unknown(path, 'channel', channelId, port.name)];
}

function planTroubles(rig: Rig, plan: Rig['plan'], path: string): RigError[] {
  const sources = new Set(rig.sources.map((s) => s.id));
  const listeners = new Set(rig.listeners.map((l) => l.id));
  const pairs = new Set<string>();
  return plan.flatMap((cell, i) => {
    if (!sources.has(cell.sourceId)) return [unknown(`${path}/${i}/sourceId`, 'source', cell.sourceId)];
    if (!listeners.has(cell.listenerId)) return [unknown(`${path}/${i}/listenerId`, 'listener', cell.listenerId)];
    if (cell.inTimeWith !== undefined && !sources.has(cell.inTimeWith)) {
      return [unknown(`${path}/${i}/inTimeWith`, 'source', cell.inTimeWith)];
    }
    const pair = `${cell.sourceId} ${cell.listenerId}`;
    if (pairs.has(pair)) return [new RigError('duplicate-id', `${path}/${i}`, say.pairIsThereTwice({ pair }))];
    pairs.add(pair);
    return [];
  });
}

function momentTroubles(rig: Rig, types: Types, { settings, name }: Moment, path: string): RigError[] {
  const seen = new Set<string>();
  return settings.flatMap(({ deviceId, settingId, value }, i) => {
    const device = findDevice(rig, deviceId);
    if (!device) return [unknown(`${path}/${i}/deviceId`, 'device', deviceId)];
    const type = types.get(device.typeId);
    const spec = type && settingsOf(type).get(settingId);
    if (!spec) return [unknown(`${path}/${i}/settingId`, 'setting', settingId, device.name)];
    const key = settingKey(deviceId, settingId);
    if (seen.has(key)) return [new RigError('duplicate-id', `${path}/${i}`, say.isThereTwiceIn({ key, name }))];
    seen.add(key);
    const why = refuseValue(spec, value);
    return why
      ? [new RigError('setting-value', `${path}/${i}/value`, say.says({ why, name, value: String(value) }))]
      : [];
  });
}

/** A type must not point outside itself: every way ends at its own channels, every stage names its own settings and figures. */
export function typeTroubles(type: DeviceType, path: string): RigError[] {
  const places = new Set(type.ports.flatMap((p) => p.channels.map((c) => `${p.id}.${c.id}`)));
  const settings = new Map(type.settings.map((s) => [s.id, s]));
  return [
    ...type.settings.flatMap((spec, i) => {
      const why = refuseValue(spec, spec.default);
      return why ? [new RigError('setting-value', `${path}/settings/${i}/default`, say.sentence({ says: why }))] : [];
    }),
    ...(type.together ?? []).flatMap(({ figures }, i) =>
      figures.filter((f) => !type.figures[f]).map((f) => unknown(`${path}/together/${i}`, 'figure', f)),
    ),
    ...type.inside.flatMap((way, i) => [
      ...[way.from, way.to].filter((p) => !places.has(p)).map((p) => unknown(`${path}/inside/${i}`, 'channel', p)),
      ...way.stages.flatMap((stage, j) => {
        const at = `${path}/inside/${i}/stages/${j}`;
        if (stage.do === 'latency') return type.figures[stage.figure] ? [] : [unknown(at, 'figure', stage.figure)];
        if (!('setting' in stage)) return [];
        const spec = settings.get(stage.setting);
        if (!spec) return [unknown(at, 'setting', stage.setting)];
        const fits = stage.do === 'door' ? spec.kind === 'mute' || spec.kind === 'switch' : spec.kind === stage.do;
        return fits
          ? []
          : [new RigError('shape', at, say.isNotSettingChoose({ setting: stage.setting, does: stage.do }))];
      }),
    ]),
  ];
}
