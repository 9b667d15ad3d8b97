/** Where a setting is, as a key of a map: `device.setting`. Ids hold no dot. */
export type SettingKey = `${string}.${string}`;
/** Where a port is, as a key of a map and in addresses: `device.port`. */
export type PortKey = `${string}.${string}`;

export const settingKey = (deviceId: string, settingId: string): SettingKey => `${deviceId}.${settingId}`;
export const portKey = (deviceId: string, portId: string): PortKey => `${deviceId}.${portId}`;

/** Whether a text is such a key: ids of cable tasks, `lead:cable`, and plain words are none. */
export const isKey = (text: string): text is SettingKey => text.includes('.');

/** What a key of a setting says. */
export function settingAt(key: string): { readonly deviceId: string; readonly settingId: string } {
  const [deviceId = '', settingId = ''] = key.split('.');
  return { deviceId, settingId };
}

/** What a key of a port says. */
export function portAt(key: string): { readonly deviceId: string; readonly portId: string } {
  const [deviceId = '', portId = ''] = key.split('.');
  return { deviceId, portId };
}

/** The port of a place inside a device, `port` or `port.channel`. */
export const portOf = (place: string): string => place.split('.', 1)[0]!;
