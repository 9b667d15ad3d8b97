import type { DeviceType, PortSpec, SettingSpec, Way } from '#core/model/rig/schema-type.ts';
import {
  both,
  ceiling,
  fromUsb,
  gain,
  gainSetting,
  grouped,
  input,
  latency,
  mains,
  mono,
  noise,
  onOff,
  output,
  ownClock,
  rateSetting,
  soundNumbered,
  stereo,
  straight,
  switchSetting,
  toAnalogue,
  toDigital,
  typicalMs,
  way,
  when,
} from './parts.ts';

const EIGHT = soundNumbered(8);
const PHANTOM = { gives: { kind: 'phantom' as const, milliamps: 10, setting: 'phantom' } };
const numbers = (count: number): number[] => Array.from({ length: count }, (_, i) => i + 1);
const CONVERT = typicalMs('converter', 0.5, 1, 2);

/** Whose word clock a converter counts by: its own, or that of what it receives, as two devices on one digital link should. */
const clock = switchSetting('clock', 'Clock', { internal: 'its own', input: 'of its digital input' }, 'internal');

const coaxialIn = input('coaxial', 'coaxial S/PDIF in', 'phono', 'digital', stereo);
const coaxialOut = output('coaxial', 'coaxial S/PDIF out', 'phono', 'digital', stereo);
const opticalIn = input('optical', 'optical in', 'toslink', 'digital', stereo, { isolated: true });
const opticalOut = output('optical', 'optical out', 'toslink', 'digital', stereo, { isolated: true });

interface Converter {
  readonly id: string;
  readonly name: string;
  readonly summary: string;
  readonly from: PortSpec;
  readonly to: PortSpec;
  readonly stages: Way['stages'];
  readonly priceEur: [number, number];
}
const converter = ({ id, name, summary, from, to, stages, priceEur }: Converter): DeviceType => ({
  id,
  name,
  family: 'converters',
  summary,
  power: fromUsb(200),
  priceEur,
  needs: ['two-channel PCM from what feeds it'],
  ports: [from, to],
  settings: [],
  figures: { convert: CONVERT },
  inside: both(from.id, to.id, ...stages, latency('convert')),
});

/** Eight microphones to one optical cable, in step with what receives it or leading it. */
function eightPreamps(): DeviceType {
  const clocked = ownClock;
  const mics = numbers(8);
  return {
    id: 'preamp-8-optical',
    name: 'Preamp, eight mics, eight-channel optical',
    family: 'converters',
    shows: { levels: 'on-it' },
    summary:
      'Adds eight mic inputs to an audio interface over one optical cable. It is the clock source; the interface follows.',
    power: mains,
    priceEur: [180, 600],
    ports: [
      ...mics.map((n) => input(`in-${n}`, `Input ${n}`, 'combo-xlr', 'microphone', mono, PHANTOM)),
      output('optical-8', 'optical out, eight channels', 'toslink', 'digital', EIGHT, {
        isolated: true,
        format: 'eight-channel',
      }),
    ],
    settings: [
      ...mics.map((n) => gainSetting(`gain-${n}`, `Input ${n}, gain`, [0, 35, 60])),
      onOff('phantom', 'Phantom power', 'off'),
      rateSetting,
    ],
    figures: { convert: CONVERT },
    inside: mics.map((n) =>
      way(
        `in-${n}.mono`,
        `optical-8.${EIGHT[n - 1]!.id}`,
        noise(-127),
        gain(`gain-${n}`),
        toDigital([10, 14, 18]),
        ceiling(0),
        latency('convert'),
        clocked,
      ),
    ),
  };
}

/** A USB interface with two mics and every two-channel digital link, and eight channels more over optical. */
function digitalInterface(): DeviceType {
  const USB = soundNumbered(14);
  const usb = (n: number) => `usb.${USB[n - 1]!.id}`;
  const side = (n: number) => (n === 0 ? 'left' : 'right');
  const preamp = (n: number): Way['stages'] => [noise(-127), gain(`gain-${n}`)];
  /** What comes in by bits: in step when it is followed, and otherwise by a clock of its own. */
  const digital = (from: string, to: string): Way[] => [
    way(from, to, when('clock', 'input'), latency('record')),
    way(from, to, when('clock', 'internal'), latency('record'), ownClock),
  ];
  const settings: SettingSpec[] = [
    ...[1, 2].flatMap((n) => grouped(`Input ${n}`, [gainSetting(`gain-${n}`, `Input ${n}, gain`, [0, 35, 60])])),
    onOff('phantom', 'Phantom power', 'off'),
    clock,
    rateSetting,
    gainSetting('volume', 'Headphones level', [-60, -20, 0]),
  ];
  return {
    id: 'interface-digital',
    name: 'Audio interface, two mics, with digital inputs',
    family: 'interfaces',
    shows: { levels: 'on-it' },
    summary:
      'Two mics, S/PDIF by coaxial and by AES3 on XLR, and eight channels more by optical from a preamp with eight inputs.',
    power: mains,
    priceEur: [250, 800],
    needs: ['a driver where the computer has none for it'],
    ports: [
      ...[1, 2].map((n) => input(`in-${n}`, `Input ${n}`, 'combo-xlr', 'microphone', mono, PHANTOM)),
      coaxialIn,
      input('aes3', 'AES3 in', 'xlr-female', 'digital', stereo),
      input('optical-8', 'optical in, eight channels', 'toslink', 'digital', EIGHT, {
        isolated: true,
        format: 'eight-channel',
      }),
      output('usb', 'USB, to the computer', 'usb-c', 'digital', USB, { socket: 'usb' }),
      input('usb-in', 'USB, from the computer', 'usb-c', 'digital', stereo, { socket: 'usb' }),
      output('coaxial-out', 'coaxial S/PDIF out', 'phono', 'digital', stereo),
      output('line-out', 'line out', 'jack-635-pair', 'line', stereo),
      output('phones', 'headphones', 'jack-635-trs', 'headphone', stereo),
    ],
    settings,
    figures: {
      record: typicalMs('audio interface, to the computer', 3, 8, 15),
      play: typicalMs('audio interface, from the computer', 3, 8, 15),
    },
    inside: [
      ...[1, 2].map((n) =>
        way(`in-${n}.mono`, usb(n), ...preamp(n), toDigital([10, 12, 16]), latency('record'), ownClock),
      ),
      ...[0, 1].flatMap((i) => [
        ...digital(`coaxial.${side(i)}`, usb(3 + i)),
        ...digital(`aes3.${side(i)}`, usb(5 + i)),
      ]),
      ...EIGHT.flatMap(({ id }, i) => digital(`optical-8.${id}`, usb(7 + i))),
      ...both('usb-in', 'coaxial-out', latency('play')),
      ...both('usb-in', 'line-out', latency('play'), toAnalogue([10, 12, 16]), noise(-92)),
      ...both('usb-in', 'phones', latency('play'), toAnalogue([6, 9, 12]), noise(-95), gain('volume')),
      ...[1, 2].flatMap((n) =>
        (['left', 'right'] as const).map((to) =>
          way(`in-${n}.mono`, `phones.${to}`, ...preamp(n), gain('volume'), { do: 'fixed-gain', db: -6 }),
        ),
      ),
    ],
  };
}

const NETWORK = typicalMs('audio over the network, fixed by its setting', 0.25, 1, 5);

export const digitalLinks: DeviceType[] = [
  converter({
    id: 'coaxial-to-line',
    name: 'Coaxial digital to line converter',
    summary: 'Gives an S/PDIF output that comes on one phono socket to a line input.',
    from: coaxialIn,
    to: output('line', 'line out', 'phono-pair', 'line', stereo),
    stages: [toAnalogue([8.2, 8.2, 8.2]), noise(-85)],
    priceEur: [10, 40],
  }),
  {
    ...converter({
      id: 'line-to-digital',
      name: 'Line to optical and coaxial converter',
      summary: 'Gives a line to an S/PDIF input, by light or by coaxial cable.',
      from: input('line', 'line in', 'phono-pair', 'line', stereo),
      to: opticalOut,
      stages: [noise(-90), toDigital([6, 8.2, 10]), ceiling(0), ownClock],
      priceEur: [15, 50],
    }),
    needs: [],
    ports: [input('line', 'line in', 'phono-pair', 'line', stereo), opticalOut, coaxialOut],
    inside: ['optical', 'coaxial'].flatMap((to) =>
      both('line', to, noise(-90), toDigital([6, 8.2, 10]), ceiling(0), ownClock, latency('convert')),
    ),
  },
  converter({
    id: 'coaxial-to-optical',
    name: 'Coaxial to optical converter',
    summary: 'The same S/PDIF bits from wire to light, which joins no grounds.',
    from: coaxialIn,
    to: opticalOut,
    stages: [],
    priceEur: [8, 25],
  }),
  converter({
    id: 'optical-to-coaxial',
    name: 'Optical to coaxial converter',
    summary: 'The same S/PDIF bits from light to wire.',
    from: opticalIn,
    to: coaxialOut,
    stages: [],
    priceEur: [8, 25],
  }),
  eightPreamps(),
  digitalInterface(),
  {
    id: 'network-stage-box',
    name: 'Stage box, eight mics over the network',
    family: 'converters',
    shows: { levels: 'on-it' },
    summary:
      'Eight mic inputs to one network cable, with a fixed delay; another device of the same network format receives it.',
    power: { by: ['mains'], earthed: true },
    priceEur: [500, 1500],
    needs: ['a network switch that keeps audio first, where others share it'],
    ports: [
      ...numbers(8).map((n) => input(`in-${n}`, `Input ${n}`, 'xlr-female', 'microphone', mono, PHANTOM)),
      output('network', 'network', 'rj45', 'digital', EIGHT, { isolated: true }),
    ],
    settings: [
      ...numbers(8).map((n) => gainSetting(`gain-${n}`, `Input ${n}, gain`, [0, 35, 60])),
      onOff('phantom', 'Phantom power', 'off'),
    ],
    figures: { network: NETWORK },
    inside: numbers(8).map((n) =>
      way(
        `in-${n}.mono`,
        `network.${EIGHT[n - 1]!.id}`,
        noise(-127),
        gain(`gain-${n}`),
        toDigital([10, 14, 18]),
        ceiling(0),
        latency('network'),
        ownClock,
      ),
    ),
  },
  {
    id: 'network-to-line',
    name: 'Network audio to line, two channels',
    family: 'converters',
    summary: 'Takes two channels of audio from the network to two XLR outputs.',
    power: mains,
    priceEur: [100, 300],
    ports: [
      input('network', 'network', 'rj45', 'digital', stereo, { isolated: true }),
      output('line', 'line out', 'xlr-male-pair', 'line', stereo),
    ],
    settings: [],
    figures: { convert: CONVERT },
    inside: both('network', 'line', latency('convert'), toAnalogue([14, 18, 22]), noise(-90)),
  },
  {
    id: 'line-to-network',
    name: 'Line to network audio, two channels',
    family: 'converters',
    summary: 'Gives two channels to the network, with a fixed delay.',
    power: mains,
    priceEur: [100, 300],
    ports: [
      input('line', 'line in', 'xlr-female-pair', 'line', stereo),
      output('network', 'network', 'rj45', 'digital', stereo, { isolated: true }),
    ],
    settings: [],
    figures: { network: NETWORK },
    inside: both('line', 'network', noise(-95), toDigital([14, 18, 22]), ceiling(0), latency('network'), ownClock),
  },
  {
    id: 'network-to-usb',
    name: 'Network audio to USB, eight channels',
    family: 'converters',
    summary: 'Brings eight channels of audio from the network into a computer over USB.',
    power: fromUsb(300),
    priceEur: [100, 350],
    ports: [
      input('network', 'network', 'rj45', 'digital', EIGHT, { isolated: true }),
      output('usb', 'USB', 'usb-c', 'digital', EIGHT, { takes: { kind: 'usb', milliamps: 300 } }),
    ],
    settings: [],
    figures: { record: typicalMs('converter over USB', 3, 8, 15) },
    inside: straight('network', 'usb', EIGHT, latency('record')),
  },
];
