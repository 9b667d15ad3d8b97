import { memoized } from '#core/base/memo/index.ts';
import type { Text } from '#core/base/said/index.ts';
import { catalogue } from './catalogue/index.ts';
import { say } from './sayings.ts';
import type { Cable, Device, PortRef, Rig, SettingTask, Task } from './schema.ts';
import type { DeviceType, PortSpec, SettingSpec, SettingValue } from './schema-type.ts';

/** Every type that a rig may use: its own first, then the built-in ones. */
export type Types = ReadonlyMap<string, DeviceType>;

const builtIn: Types = new Map(catalogue.map((type) => [type.id, type]));

const withOwn = memoized(
  (types: Rig['types']): Types => new Map([...builtIn, ...types.map((type) => [type.id, type] as const)]),
);

export const findTypes = ({ types }: Pick<Rig, 'types'>): Types => (types.length === 0 ? builtIn : withOwn(types));

/** What has an id, by it. A list of the document is never changed, only replaced, so it is indexed once. */
const byId = memoized(
  <T extends { readonly id: string }>(all: readonly T[]): ReadonlyMap<string, T> =>
    new Map(all.map((one) => [one.id, one])),
) as <T extends { readonly id: string }>(all: readonly T[]) => ReadonlyMap<string, T>;

type With<K extends keyof Rig> = Pick<Rig, K>;
/** An id that may lead nowhere, or be none. */
type Id = string | null | undefined;
export const findDevice = ({ devices }: With<'devices'>, id: Id): Device | undefined => byId(devices).get(id ?? '');
export const findCable = ({ cables }: With<'cables'>, id: Id): Cable | undefined => byId(cables).get(id ?? '');
export const findSource = ({ sources }: With<'sources'>, id: Id): Rig['sources'][number] | undefined =>
  byId(sources).get(id ?? '');
export const findListener = ({ listeners }: With<'listeners'>, id: Id): Rig['listeners'][number] | undefined =>
  byId(listeners).get(id ?? '');

/** What the document says is there: ids of a rig that was read always lead somewhere. */
function there<T>(found: T | undefined, what: string, id: string): T {
  if (found === undefined) throw new Error(`The rig has no ${what} ${id}.`);
  return found;
}
export const deviceIn = (rig: With<'devices'>, id: string): Device => there(findDevice(rig, id), 'device', id);
export const cableIn = (rig: With<'cables'>, id: string): Cable => there(findCable(rig, id), 'cable', id);
export const sourceIn = (rig: With<'sources'>, id: string) => there(findSource(rig, id), 'source', id);
export const listenerIn = (rig: With<'listeners'>, id: string) => there(findListener(rig, id), 'destination', id);

export function findPort(rig: Rig, types: Types, ref: PortRef): PortSpec | undefined {
  const device = findDevice(rig, ref.deviceId);
  const type = device && types.get(device.typeId);
  return type && portsOf(type).get(ref.portId);
}

/** The ports of a type by their ids. */
export const portsOf = (type: DeviceType): ReadonlyMap<string, PortSpec> => byId(type.ports);

/** The settings of a type by their ids. */
export const settingsOf = (type: DeviceType): ReadonlyMap<string, SettingSpec> => byId(type.settings);

export function findSetting(rig: Rig, types: Types, deviceId: string, settingId: string): SettingSpec | undefined {
  const device = findDevice(rig, deviceId);
  const type = device && types.get(device.typeId);
  return type && settingsOf(type).get(settingId);
}

/** A setting as it is in the rig; the default of its type, assumed, where the rig has none. */
export const settingOf = (device: Device, spec: SettingSpec): Device['settings'][string] =>
  device.settings[spec.id] ?? { value: spec.default, known: 'assumed' };

/** The unit of its numbers; '' for none. */
export const unitOf = (spec: SettingSpec | undefined): string =>
  spec?.kind === 'gain' ? 'dB' : spec?.kind === 'delay' || spec?.kind === 'value' ? spec.unit : '';

/** Why a value cannot be set, in words; undefined when it can. */
export function refuseValue(spec: SettingSpec, value: SettingValue): Text | undefined {
  switch (spec.kind) {
    case 'mute':
      return typeof value === 'boolean' ? undefined : say.isOnOrOff({ setting: spec.name });
    case 'switch':
      return spec.options.some((o) => o.value === value)
        ? undefined
        : say.hasPositions({ setting: spec.name, names: spec.options.map((o) => o.label).join(', ') });
    case 'delay':
    case 'value':
    case 'gain': {
      const unit = unitOf(spec);
      if (typeof value !== 'number' || !Number.isFinite(value)) return say.needsNumber({ setting: spec.name, unit });
      if (value < spec.min || value > spec.max)
        return say.goesFromTo({ setting: spec.name, min: spec.min, max: spec.max, unit });
      const steps = (value - spec.min) / spec.step;
      return Math.abs(steps - Math.round(steps)) < 1e-6
        ? undefined
        : say.changesInSteps({ setting: spec.name, step: spec.step, unit });
    }
  }
}

/** A task about a setting; tasks about leads have none. */
export const isSettingTask = (task: Task): task is SettingTask => 'settingId' in task;
