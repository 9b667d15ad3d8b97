import type { DeviceType } from '#core/model/rig/schema-type.ts';
import {
  battery,
  gain,
  gainSetting,
  hears,
  input,
  latency,
  levelSetting,
  mains,
  mono,
  muteSetting,
  noise,
  output,
  ownClock,
  switchSetting,
  toAnalogue,
  toDigital,
  typicalMs,
  unmuted,
  way,
  when,
} from './parts.ts';

/** What people at work call each other by, off the program: talkback to the studio, and an intercom both ways. */
export const talkback: DeviceType[] = [
  {
    id: 'talkback-box',
    name: 'Talkback mic with a talk key',
    family: 'two-way',
    summary: 'A mic that reaches its line output only while its key is held: a word to whoever wears headphones.',
    power: mains,
    priceEur: [60, 250],
    ports: [hears('capsule', 'own microphone'), output('line', 'line out', 'xlr-male', 'line', mono)],
    settings: [
      switchSetting('key', 'Talk key', { shut: 'not held', open: 'held' }, 'shut', 'keying'),
      gainSetting('level', 'Level', [-20, 0, 10]),
    ],
    figures: {},
    inside: [
      way(
        'capsule.mono',
        'line.mono',
        { do: 'hear', sensitivityDbvPerPa: [-48, -42, -36] },
        when('key', 'open'),
        noise(-110),
        { do: 'fixed-gain', db: 40 },
        gain('level'),
      ),
    ],
  },
  {
    id: 'intercom-pack',
    name: 'Intercom pack, wireless, both ways at once',
    family: 'two-way',
    summary: 'Worn on the belt with a headset; all packs of the group hear each other without a key.',
    power: battery(10),
    priceEur: [150, 600],
    ports: [
      output('phones', 'headset jack, earphones', 'jack-35-trrs', 'headphone', mono, { socket: 'headset' }),
      input('microphone', 'headset jack, microphone', 'jack-35-trrs', 'microphone', mono, {
        socket: 'headset',
        gives: { kind: 'plug-in', milliamps: 1 },
      }),
      input('air-in', 'received', 'radio', 'digital', mono),
      output('air-out', 'sent', 'radio', 'digital', mono),
    ],
    settings: [
      muteSetting('mute', 'Microphone, mute', false),
      gainSetting('microphone-gain', 'Microphone gain', [0, 25, 40]),
      levelSetting('volume', 'Volume', -20, 0),
    ],
    figures: { link: typicalMs('intercom, pack to pack', 10, 25, 60) },
    inside: [
      way(
        'microphone.mono',
        'air-out.mono',
        unmuted('mute'),
        noise(-112),
        gain('microphone-gain'),
        toDigital([-8, -4, 0]),
        latency('link'),
        ownClock,
      ),
      way('air-in.mono', 'phones.mono', toAnalogue([-4, 0, 4]), gain('volume'), noise(-80)),
    ],
  },
];
