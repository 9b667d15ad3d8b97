import type { DeviceType, LevelClass, PortSpec, Range, SettingSpec, Stage, Way } from '../schema.ts';

/** Shorthand for writing device types. All of it yields plain data; nothing here is known to the rest of the program. */

type Channels = PortSpec['channels'];
const SOUND = (id: string) => ({ id, carries: 'sound' as const });

export const mono: Channels = [SOUND('mono')];
export const stereo: Channels = [SOUND('left'), SOUND('right')];
export const picture: Channels = [{ id: 'picture', carries: 'picture' }];
export const pictureAndStereo: Channels = [...picture, ...stereo];

type Port = (id: string, name: string, connector: string, level: LevelClass, channels: Channels) => PortSpec;
export const input: Port = (id, name, connector, level, channels) => ({
  id,
  name,
  direction: 'in',
  connector,
  level,
  channels,
});
export const output: Port = (id, name, connector, level, channels) => ({
  id,
  name,
  direction: 'out',
  connector,
  level,
  channels,
});
export const point = (id: string, name: string, channels: Channels): PortSpec => ({
  id,
  name,
  direction: 'inside',
  connector: 'inside',
  level: 'digital',
  channels,
});

export const way = (from: string, to: string, ...stages: Stage[]): Way => ({ from, to, stages });

/** Left to left and right to right through the same stages. */
export const both = (from: string, to: string, ...stages: Stage[]): Way[] => [
  way(`${from}.left`, `${to}.left`, ...stages),
  way(`${from}.right`, `${to}.right`, ...stages),
];

/** One channel to the middle: 3 dB less on each side, so that the sum stays as loud. */
export const toBothSides = (from: string, to: string, ...stages: Stage[]): Way[] => [
  way(`${from}.mono`, `${to}.left`, ...stages, { do: 'fixed-gain', db: -3 }),
  way(`${from}.mono`, `${to}.right`, ...stages, { do: 'fixed-gain', db: -3 }),
];

export const latency = (figure: string): Stage => ({ do: 'latency', figure });
export const delay = (setting: string): Stage => ({ do: 'delay', setting });
export const gain = (setting: string): Stage => ({ do: 'gain', setting });
export const unmuted = (setting: string): Stage => ({ do: 'door', setting, openWhen: false });
export const when = (setting: string, openWhen: string): Stage => ({ do: 'door', setting, openWhen });
export const noise = (db: number): Stage => ({ do: 'noise', db });
export const ceiling = (db: number): Stage => ({ do: 'ceiling', db });
export const ownClock: Stage = { do: 'clock' };
export const toDigital = (fullScaleDbu: Range): Stage => ({ do: 'convert', to: 'digital', fullScaleDbu });
export const toAnalogue = (fullScaleDbu: Range): Stage => ({ do: 'convert', to: 'analogue', fullScaleDbu });

export const typicalMs = (label: string, ...range: Range): DeviceType['figures'][string] => ({
  label,
  unit: 'ms',
  range,
  kind: 'typical',
  source: 'typical of its kind, until a take measures it',
});

export const muteSetting = (id: string, name: string, muted: boolean): SettingSpec => ({
  id,
  name,
  kind: 'mute',
  default: muted,
});
export const delaySetting = (id: string, name: string, maxMs: number): SettingSpec => ({
  id,
  name,
  kind: 'delay',
  unit: 'ms',
  min: 0,
  max: maxMs,
  step: 1,
  default: 0,
});

/** A level control that shuts at its lowest mark. */
export const levelSetting = (id: string, name: string, defaultDb: number, maxDb = 10): SettingSpec => ({
  id,
  name,
  kind: 'gain',
  min: -90,
  max: maxDb,
  step: 0.5,
  default: defaultDb,
  offAtMin: true,
});
export const OFF_DB = -90;
