import type {
  DeviceType,
  LevelClass,
  PortSpec,
  Purpose,
  Range,
  SettingSpec,
  Stage,
  Way,
} from '#core/model/rig/schema-type.ts';

/** Shorthand for writing device types. All of it yields plain data; nothing here is known to the rest of the program. */

type Channels = PortSpec['channels'];
const SOUND = (id: string): Channels[number] => ({ id, carries: 'sound' });

export const mono: Channels = [SOUND('mono')];
export const stereo: Channels = [SOUND('left'), SOUND('right')];
export const picture: Channels = [{ id: 'picture', carries: 'picture' }];
export const pictureAndStereo: Channels = [...picture, ...stereo];

export const soundNumbered = (count: number): Channels =>
  Array.from({ length: count }, (_, i) => SOUND(['left', 'right'][i] ?? `ch-${i + 1}`));
/** What a USB socket of a computer takes in: a picture, and sound in pairs. */
export const usbChannels: Channels = [...picture, ...soundNumbered(16)];

type More = Partial<Omit<PortSpec, 'id' | 'name' | 'direction' | 'connector' | 'level' | 'channels'>>;
type Port = (
  id: string,
  name: string,
  connector: string,
  level: LevelClass,
  channels: Channels,
  more?: More,
) => PortSpec;
const port =
  (direction: 'in' | 'out'): Port =>
  (id, name, connector, level, channels, more = {}) => ({ id, name, direction, connector, level, channels, ...more });
export const input: Port = port('in');
export const output: Port = port('out');
/** Ends that are no sockets. */
export const hears = (id: string, name: string, channels: Channels = mono): PortSpec =>
  input(id, name, 'air', 'air', channels);
export const sounds = (id: string, name: string, channels: Channels, referenceM: number): PortSpec =>
  output(id, name, 'air', 'air', channels, { referenceM });
export const takes = (id: string, name: string, channels: Channels): PortSpec =>
  input(id, name, 'software', 'software', channels);
export const hands = (id: string, name: string, channels: Channels): PortSpec =>
  output(id, name, 'software', 'software', channels);
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

/** Every channel of one end to the channel of the same name at the other. */
export const straight = (from: string, to: string, channels: Channels, ...stages: Stage[]): Way[] =>
  channels.map((c) => way(`${from}.${c.id}`, `${to}.${c.id}`, ...stages));

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

type Together = NonNullable<DeviceType['together']>[number];
/** Two figures that are uncertain together: the first less the second. */
export const together = (first: string, second: string, differs: Range, source: string): Together => ({
  figures: [first, second],
  differs,
  source,
});

export const switchSetting = (
  id: string,
  name: string,
  options: Record<string, string>,
  preset: string,
  purpose?: Purpose,
): SettingSpec => ({
  id,
  name,
  kind: 'switch',
  ...(purpose && { purpose }),
  options: Object.entries(options).map(([value, label]) => ({ value, label })),
  default: preset,
});
export const onOff = (id: string, name: string, preset: 'on' | 'off', purpose?: Purpose): SettingSpec =>
  switchSetting(id, name, { off: 'off', on: 'on' }, preset, purpose);

/** How often a second it counts samples; one clock and one rate for all its ends. */
export const rateSetting: SettingSpec = switchSetting(
  'sample-rate',
  'Sample rate',
  { '44100': '44.1 kHz', '48000': '48 kHz', '96000': '96 kHz' },
  '48000',
  'sample-rate',
);

/** A gain that has no shut position. */
export const gainSetting = (id: string, name: string, [min, preset, max]: Range): SettingSpec => ({
  id,
  name,
  kind: 'gain',
  min,
  max,
  step: 1,
  default: preset,
  offAtMin: false,
});

export const muteSetting = (id: string, name: string, muted: boolean, purpose?: Purpose): SettingSpec => ({
  id,
  name,
  kind: 'mute',
  ...(purpose && { purpose }),
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

type Value = Extract<SettingSpec, { kind: 'value' }>;
export const valueSetting = (
  id: string,
  name: string,
  treats: Value['treats'],
  unit: string,
  [min, preset, max]: Range,
  step: number,
  off?: number,
): SettingSpec => ({
  id,
  name,
  kind: 'value',
  unit,
  min,
  max,
  step,
  default: preset,
  treats,
  ...(off !== undefined && { off }),
});
/** Controls that belong together on the device: one strip's, one input's. */
export const grouped = (group: string, settings: readonly SettingSpec[]): SettingSpec[] =>
  settings.map((s) => ({ ...s, group }));

/** A button of a strip that cuts below 80 Hz, or nothing. */
export const lowCutButton = (id: string, strip: string): SettingSpec => ({
  ...valueSetting(id, `${strip}, low cut`, 'lowCut.hz', 'Hz', [20, 20, 80], 60, 20),
  group: strip,
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
export const faderSetting = (id: string, name: string): SettingSpec => ({
  ...levelSetting(id, name, 0),
  purpose: 'fader',
});
/** What of a strip goes to a mix beside the main one: nothing, until someone turns it up. */
export const sendSetting = (id: string, name: string): SettingSpec => ({
  ...levelSetting(id, name, OFF_DB),
  purpose: 'send',
});

type Power = NonNullable<DeviceType['power']>;
export const unpowered: Power = { by: [] };
/** Class I: its plug has an ground. */
export const earthedMains: Power = { by: ['mains'], earthed: true };
/** Class II, or an outside supply without an ground. */
export const mains: Power = { by: ['mains'] };
export const battery = (hours: number): Power => ({ by: ['battery'], hours });
export const fromUsb = (milliamps: number): Power => ({ by: ['usb'], milliamps });
export const needsUsb = (milliamps: number): More => ({ takes: { kind: 'usb', milliamps } });
