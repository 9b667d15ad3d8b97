import {
  type Device,
  type DeviceType,
  type Known,
  type PortSpec,
  portsOf,
  type SettingSpec,
  type SettingValue,
  settingOf,
  settingsOf,
} from '#core/model/rig/index.ts';

export interface SettingSeen {
  readonly value: SettingValue;
  readonly known: Known;
  readonly spec: SettingSpec;
}
/** A device with its type and its settings. */
export interface Box {
  readonly device: Device;
  readonly type: DeviceType;
  port(id: string): PortSpec | undefined;
  /** Null where the type has no such setting. */
  setting(id: string): SettingSeen | null;
}

/** A setting of a device as it is now; null where its type has none. */
export function settingSeen(device: Device, type: DeviceType, id: string): SettingSeen | null {
  const spec = settingsOf(type).get(id);
  return spec ? { ...settingOf(device, spec), spec } : null;
}

const kept = new WeakMap<Device, Box>();

/** The same device as long as the device and its type are the same. */
export function boxOf(device: Device, type: DeviceType): Box {
  const before = kept.get(device);
  if (before?.type === type) return before;
  const box: Box = {
    device,
    type,
    port: (id) => portsOf(type).get(id),
    setting: (id) => settingSeen(device, type, id),
  };
  kept.set(device, box);
  return box;
}
