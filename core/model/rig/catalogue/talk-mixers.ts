import type { DeviceType, SettingSpec, Way } from '#core/model/rig/schema-type.ts';
import {
  both,
  ceiling,
  faderSetting,
  gain,
  gainSetting,
  grouped,
  input,
  latency,
  levelSetting,
  lowCutButton,
  mains,
  mono,
  muteSetting,
  noise,
  onOff,
  output,
  ownClock,
  point,
  rateSetting,
  soundNumbered,
  stereo,
  straight,
  switchSetting,
  toAnalogue,
  toBothSides,
  toDigital,
  typicalMs,
  unmuted,
  way,
} from './parts.ts';

const numbered = (count: number): number[] => Array.from({ length: count }, (_, i) => i + 1);
const PHANTOM = { gives: { kind: 'phantom' as const, milliamps: 10, setting: 'phantom' } };

interface Channel {
  readonly id: string;
  readonly name: string;
}
const micChannels = (count: number): Channel[] => numbered(count).map((n) => ({ id: `mic-${n}`, name: `Mic ${n}` }));

const micSettings = ({ id, name }: Channel): SettingSpec[] =>
  grouped(name, [
    gainSetting(`${id}-gain`, `${name}, gain`, [0, 35, 60]),
    lowCutButton(`${id}-low-cut`, name),
    muteSetting(`${id}-mute`, `${name}, mute`, false),
    faderSetting(`${id}-fader`, `${name}, fader`),
  ]);
const lineSettings = ({ id, name }: Channel): SettingSpec[] =>
  grouped(name, [muteSetting(`${id}-mute`, `${name}, mute`, false), faderSetting(`${id}-fader`, `${name}, fader`)]);

const micSockets = (mics: readonly Channel[]) =>
  mics.flatMap(({ id, name }) => [
    input(id, name, 'combo-xlr', 'microphone', mono, PHANTOM),
    point(`${id}-before`, `${name}, pre-fader`, mono),
    point(`${id}-after`, `${name}, post-fader`, mono),
  ]);
/** A microphone up to its point after the fader. */
const micWays = ({ id }: Channel): Way[] => [
  way(
    `${id}.mono`,
    `${id}-before.mono`,
    noise(-127),
    gain(`${id}-gain`),
    toDigital([14, 18, 22]),
    ceiling(0),
    latency('inside'),
    ownClock,
  ),
  way(`${id}-before.mono`, `${id}-after.mono`, unmuted(`${id}-mute`), gain(`${id}-fader`)),
];

const FIGURES: DeviceType['figures'] = {
  inside: typicalMs('mixer, converters and processing', 0.8, 2, 4),
  'usb-out': typicalMs('mixer, USB to the computer', 3, 8, 15),
  'usb-in': typicalMs('mixer, USB from the computer', 3, 8, 15),
};

/**
 * A mixer for people who talk: what comes by phone, by Bluetooth or from the computer's call goes to everybody but back
 * to where it came from, by itself.
 */
function talkMixer(): DeviceType {
  const mics = micChannels(4);
  const guests: readonly (Channel & { readonly returnDoes: string })[] = [
    { id: 'phone', name: 'Phone', returnDoes: 'mix-minus to the phone' },
    { id: 'bluetooth', name: 'Bluetooth', returnDoes: 'mix-minus to Bluetooth' },
    { id: 'usb-guest', name: 'USB guest', returnDoes: 'mix-minus to the USB guest' },
  ];
  const music: Channel = { id: 'usb-music', name: 'USB music' };
  const phones = numbered(4);
  const after = ({ id }: Channel) => `${id}-after`;
  const buses = ['main', ...guests.map(({ id }) => `${id}-minus`)];
  return {
    id: 'mixer-talk',
    name: 'Mixer for talk, four mics, mix-minus built in',
    family: 'mixers',
    shows: { levels: 'on-it' },
    summary:
      'Guests by phone, Bluetooth or the computer’s call hear everybody but themselves, without a send to set; four headphone outputs.',
    power: mains,
    priceEur: [250, 700],
    needs: ['a driver where the computer has none for it'],
    ports: [
      ...micSockets(mics),
      input('phone', 'phone in', 'jack-35-trrs', 'headphone', stereo, { socket: 'phone' }),
      output('phone-return', 'mix-minus to the phone', 'jack-35-trrs', 'microphone', mono, { socket: 'phone' }),
      input('bluetooth', 'Bluetooth', 'bluetooth', 'digital', stereo, { socket: 'bluetooth' }),
      output('bluetooth-return', 'Bluetooth, mix-minus', 'bluetooth', 'digital', stereo, { socket: 'bluetooth' }),
      input('usb-music', 'USB 1 and 2, from the computer', 'usb-c', 'digital', stereo, { socket: 'usb' }),
      input('usb-guest', 'USB 3 and 4, a guest from the computer', 'usb-c', 'digital', stereo, {
        socket: 'usb',
        soundDevice: 'usb-guest',
      }),
      output('usb-main', 'USB 1 and 2, main', 'usb-c', 'digital', stereo, { socket: 'usb' }),
      output('usb-return', 'USB 3 and 4, mix-minus', 'usb-c', 'digital', stereo, {
        socket: 'usb',
        soundDevice: 'usb-guest',
      }),
      ...[...guests, music].map(({ id, name }) => point(`${id}-after`, `${name}, post-fader`, stereo)),
      point('main', 'main mix', stereo),
      ...guests.map(({ id, returnDoes }) => point(`${id}-minus`, returnDoes, stereo)),
      output('main-out', 'main out', 'jack-635-pair', 'line', stereo),
      ...phones.map((n) => output(`phones-${n}`, `headphones ${n}`, 'jack-635-trs', 'headphone', stereo)),
    ],
    settings: [
      ...mics.flatMap(micSettings),
      ...[...guests, music].flatMap(lineSettings),
      onOff('phantom', 'Phantom power, mics 1 to 4', 'off'),
      rateSetting,
      ...phones.map((n) => levelSetting(`phones-${n}-level`, `Headphones ${n}, level`, -20, 0)),
    ],
    figures: { ...FIGURES, link: typicalMs('Bluetooth', 40, 180, 300) },
    inside: [
      ...mics.flatMap(micWays),
      ...both(
        'phone',
        'phone-after',
        noise(-95),
        toDigital([4, 8, 12]),
        ceiling(0),
        latency('inside'),
        ownClock,
        unmuted('phone-mute'),
        gain('phone-fader'),
      ),
      ...both(
        'bluetooth',
        'bluetooth-after',
        latency('link'),
        ownClock,
        unmuted('bluetooth-mute'),
        gain('bluetooth-fader'),
      ),
      ...[guests[2]!, music].flatMap(({ id }) =>
        both(id, `${id}-after`, latency('usb-in'), ownClock, unmuted(`${id}-mute`), gain(`${id}-fader`)),
      ),
      ...mics.flatMap((mic) => buses.flatMap((bus) => toBothSides(after(mic), bus))),
      ...[...guests, music].flatMap((from) =>
        buses.filter((bus) => bus !== `${from.id}-minus`).flatMap((bus) => both(after(from), bus)),
      ),
      ...both('main', 'main-out', toAnalogue([14, 18, 22]), noise(-90)),
      ...phones.flatMap((n) =>
        both('main', `phones-${n}`, toAnalogue([8, 12, 16]), gain(`phones-${n}-level`), noise(-92)),
      ),
      ...both('main', 'usb-main', ceiling(0), latency('usb-out')),
      ...both('usb-guest-minus', 'usb-return', ceiling(0), latency('usb-out')),
      ...both('bluetooth-minus', 'bluetooth-return', ceiling(0), latency('link')),
      ...(['left', 'right'] as const).map((side) =>
        way(
          `phone-minus.${side}`,
          'phone-return.mono',
          { do: 'fixed-gain', db: -6 },
          toAnalogue([-32, -26, -20]),
          noise(-110),
        ),
      ),
    ],
  };
}

/** So many channels a computer takes from one device. */
const MAX_USB = 16;

/** Every input goes to the computer by itself, as it is before the fader, beside the main mix. */
function multitrackMixer(count: 8 | 12): DeviceType {
  const mics = micChannels(count);
  const lines: readonly Channel[] = [1, 3].map((n) => ({
    id: `line-${count + n}-${count + n + 1}`,
    name: `Line ${count + n}/${count + n + 1}`,
  }));
  const channels = Math.min(count + 6, MAX_USB);
  const USB_CHANNELS = soundNumbered(channels);
  // The last of a large one do not fit any more.
  const sent = lines.slice(0, (channels - count - 2) / 2);
  const usb = (n: number) => `usb.${USB_CHANNELS[n - 1]!.id}`;
  return {
    id: count === 8 ? 'mixer-usb-multitrack' : `mixer-usb-multitrack-${count}`,
    name: `Mixer, ${count === 8 ? 'eight' : 'twelve'} mics, USB multitrack`,
    family: 'mixers',
    shows: { levels: 'on-it' },
    summary: `Sends its main mix on USB 1 and 2 and each input by itself, pre-fader, on USB 3 to ${channels}; a stereo return comes back on a channel of its own.`,
    power: mains,
    priceEur: count === 8 ? [300, 900] : [450, 1500],
    needs: ['a driver where the computer has none for it'],
    ports: [
      ...micSockets(mics),
      ...lines.flatMap(({ id, name }) => [
        input(id, name, 'jack-635-pair', 'line', stereo),
        point(`${id}-before`, `${name}, pre-fader`, stereo),
      ]),
      output('usb', 'USB, to the computer', 'usb-b', 'digital', USB_CHANNELS, { socket: 'usb' }),
      input('usb-return', 'USB return', 'usb-b', 'digital', stereo, { socket: 'usb' }),
      point('main', 'main mix', stereo),
      point('send', 'send mix', stereo),
      output('main-out', 'main out', 'xlr-male-pair', 'line', stereo),
      output('send-out', 'send out', 'jack-635-pair', 'line', stereo),
      output('phones', 'headphones', 'jack-635-trs', 'headphone', stereo),
    ],
    settings: [
      ...mics.flatMap((mic) => [
        ...micSettings(mic),
        ...grouped(mic.name, [levelSetting(`${mic.id}-send`, `${mic.name}, send`, 0)]),
      ]),
      ...lines.flatMap((line) => [
        ...lineSettings(line),
        ...grouped(line.name, [levelSetting(`${line.id}-send`, `${line.name}, send`, 0)]),
      ]),
      ...grouped('USB return', [
        faderSetting('usb-return-fader', 'USB return, fader'),
        levelSetting('usb-return-send', 'USB return, send', -90),
      ]),
      onOff('phantom', `Phantom power, mics 1 to ${count}`, 'off'),
      rateSetting,
      levelSetting('main-level', 'Main level', 0),
      levelSetting('phones-level', 'Headphones level', -20, 0),
    ],
    figures: FIGURES,
    inside: [
      ...mics.flatMap((mic, i) => [
        ...micWays(mic),
        ...toBothSides(`${mic.id}-after`, 'main'),
        ...toBothSides(`${mic.id}-before`, 'send', gain(`${mic.id}-send`)),
        way(`${mic.id}-before.mono`, usb(3 + i), latency('usb-out')),
      ]),
      ...lines.flatMap(({ id }) => [
        ...both(id, `${id}-before`, noise(-95), toDigital([14, 18, 22]), ceiling(0), latency('inside'), ownClock),
        ...both(`${id}-before`, 'main', unmuted(`${id}-mute`), gain(`${id}-fader`)),
        ...both(`${id}-before`, 'send', gain(`${id}-send`)),
      ]),
      ...sent.flatMap(({ id }, i) => [
        way(`${id}-before.left`, usb(count + 3 + 2 * i), latency('usb-out')),
        way(`${id}-before.right`, usb(count + 4 + 2 * i), latency('usb-out')),
      ]),
      ...both('usb-return', 'main', latency('usb-in'), ownClock, gain('usb-return-fader')),
      ...both('usb-return', 'send', latency('usb-in'), ownClock, gain('usb-return-send')),
      way('main.left', usb(1), gain('main-level'), ceiling(0), latency('usb-out')),
      way('main.right', usb(2), gain('main-level'), ceiling(0), latency('usb-out')),
      ...both('main', 'main-out', gain('main-level'), toAnalogue([14, 18, 22]), noise(-90)),
      ...both('send', 'send-out', toAnalogue([14, 18, 22]), noise(-90)),
      ...both('main', 'phones', toAnalogue([8, 12, 16]), gain('phones-level'), noise(-92)),
    ],
  };
}

/** Two computers, or a computer and a console, each over a USB cable of its own; none is sent what it plays itself. */
function twoUsbMixer(): DeviceType {
  const mics = micChannels(2);
  const line: Channel = { id: 'line', name: 'Line' };
  const links: readonly Channel[] = [
    { id: 'usb-a', name: 'USB A' },
    { id: 'usb-b', name: 'USB B' },
  ];
  const own = switchSetting(
    'own-return',
    'A computer is sent what it plays',
    { no: 'no (mix-minus)', yes: 'yes' },
    'no',
  );
  return {
    id: 'mixer-usb-two',
    name: 'Mixer with two USB links',
    family: 'mixers',
    shows: { levels: 'on-it' },
    summary:
      'Two mics, a line, and two computers that hear the mics and each other; what a computer plays is kept from its own input until a switch says otherwise.',
    power: mains,
    priceEur: [120, 400],
    ports: [
      ...micSockets(mics),
      input('line', 'line in', 'jack-35-trs', 'line', stereo),
      ...[line, ...links].map(({ id, name }) => point(`${id}-after`, `${name}, post-fader`, stereo)),
      ...links.flatMap(({ id, name }) => [
        input(`${id}-in`, `${name}, from the computer`, 'usb-c', 'digital', stereo, { socket: id }),
        output(id, `${name}, to the computer`, 'usb-c', 'digital', stereo, { socket: id }),
      ]),
      point('main', 'main mix', stereo),
      output('main-out', 'main out', 'jack-635-pair', 'line', stereo),
      output('phones', 'headphones', 'jack-635-trs', 'headphone', stereo),
    ],
    settings: [
      ...mics.flatMap(micSettings),
      ...[line, ...links].flatMap(lineSettings),
      onOff('phantom', 'Phantom power, mics 1 and 2', 'off'),
      own,
      rateSetting,
      levelSetting('phones-level', 'Headphones level', -20, 0),
    ],
    figures: FIGURES,
    inside: [
      ...mics.flatMap(micWays),
      ...both(
        'line',
        'line-after',
        noise(-95),
        toDigital([4, 8, 12]),
        ceiling(0),
        latency('inside'),
        ownClock,
        unmuted('line-mute'),
        gain('line-fader'),
      ),
      ...links.flatMap(({ id }) =>
        both(`${id}-in`, `${id}-after`, latency('usb-in'), ownClock, unmuted(`${id}-mute`), gain(`${id}-fader`)),
      ),
      ...mics.flatMap((mic) => toBothSides(`${mic.id}-after`, 'main')),
      ...[line, ...links].flatMap(({ id }) => both(`${id}-after`, 'main')),
      ...links.flatMap((link) => [
        ...mics.flatMap((mic) => toBothSides(`${mic.id}-after`, link.id, ceiling(0), latency('usb-out'))),
        ...[line, ...links].flatMap(({ id }) =>
          straight(
            `${id}-after`,
            link.id,
            stereo,
            ...(id === link.id ? [{ do: 'door' as const, setting: own.id, openWhen: 'yes' }] : []),
            ceiling(0),
            latency('usb-out'),
          ),
        ),
      ]),
      ...both('main', 'main-out', toAnalogue([14, 18, 22]), noise(-90)),
      ...both('main', 'phones', toAnalogue([8, 12, 16]), gain('phones-level'), noise(-92)),
    ],
  };
}

/** Mixers with what people who talk to others over a computer or a phone need. */
export const talkMixers: DeviceType[] = [talkMixer(), multitrackMixer(8), multitrackMixer(12), twoUsbMixer()];
