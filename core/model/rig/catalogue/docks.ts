import type { DeviceType, PortSpec, Way } from '#core/model/rig/schema-type.ts';
import {
  both,
  gain,
  gainSetting,
  input,
  latency,
  levelSetting,
  mains,
  mono,
  noise,
  output,
  ownClock,
  pictureAndStereo,
  stereo,
  straight,
  switchSetting,
  toAnalogue,
  toDigital,
  typicalMs,
  way,
  when,
} from './parts.ts';

interface Lanes {
  readonly ports: PortSpec[];
  readonly inside: Way[];
}

const down = (n: number): PortSpec[] => [
  input(`down-${n}`, `USB ${n}`, 'usb-a', 'digital', pictureAndStereo, {
    socket: `down-${n}`,
    gives: { kind: 'usb', milliamps: 900 },
    picture: { link: 'usb-5' },
  }),
  output(`down-${n}-out`, `USB ${n}, outwards`, 'usb-a', 'digital', stereo, { socket: `down-${n}` }),
];
/** The end of one device's way on the cable to a computer. */
const up = (socket: string, name: string, n: number, connector: string): PortSpec[] => [
  output(`${socket}-${n}`, `${name}, device ${n}`, connector, 'digital', pictureAndStereo, {
    socket,
    soundDevice: `${socket}-${n}`,
    picture: { link: 'usb-5' },
  }),
  input(`${socket}-${n}-in`, `from ${name}, device ${n}`, connector, 'digital', stereo, {
    socket,
    soundDevice: `${socket}-${n}`,
  }),
];
const lane = (n: number, socket: string, ...stages: Way['stages']): Way[] => [
  ...straight(`down-${n}`, `${socket}-${n}`, pictureAndStereo, ...stages),
  ...straight(`${socket}-${n}-in`, `down-${n}-out`, stereo, ...stages),
];

/** Three USB sockets and a headset jack on one cable of a laptop. */
function dock(): DeviceType {
  const lanes: Lanes = {
    ports: [1, 2, 3].flatMap((n) => [...down(n), ...up('up', 'the computer', n, 'plug-usb-c')]),
    inside: [1, 2, 3].flatMap((n) => lane(n, 'up')),
  };
  return {
    id: 'dock',
    name: 'Dock for a laptop, USB C',
    family: 'power',
    summary:
      'Three USB sockets and a headset jack with an audio device of its own, on one cable. Displays at the dock are drawn at the computer’s own display outputs.',
    power: { ...mains, feeds: { kind: 'usb', outlets: 3, milliamps: 2700 } },
    priceEur: [60, 250],
    ports: [
      ...lanes.ports,
      ...up('up', 'the computer', 4, 'plug-usb-c'),
      output('jack', 'headset jack, earphones', 'jack-35-trrs', 'headphone', stereo, { socket: 'jack' }),
      input('jack-microphone', 'headset jack, microphone', 'jack-35-trrs', 'microphone', mono, {
        socket: 'jack',
        gives: { kind: 'plug-in', milliamps: 1 },
      }),
    ],
    settings: [
      levelSetting('volume', 'Volume of the jack', -12, 0),
      gainSetting('gain', 'Microphone gain', [0, 30, 50]),
    ],
    figures: {
      record: typicalMs('dock, jack to USB', 3, 8, 15),
      play: typicalMs('dock, USB to jack', 3, 8, 15),
    },
    inside: [
      ...lanes.inside,
      ...both('up-4-in', 'jack', latency('play'), toAnalogue([-3.8, 0, 2.2]), noise(-88), gain('volume')),
      ...(['left', 'right'] as const).map((side) =>
        way(
          'jack-microphone.mono',
          `up-4.${side}`,
          noise(-105),
          gain('gain'),
          toDigital([0, 2, 4]),
          latency('record'),
          ownClock,
        ),
      ),
    ],
  };
}

/** One screen and two USB devices, taken from one of two computers to the other by a button. */
function kvm(): DeviceType {
  const hosts = ['a', 'b'] as const;
  const link = { link: 'tmds-600' as const, protection: '2.2' as const };
  return {
    id: 'kvm',
    name: 'KVM switch, two computers, one display',
    family: 'hdmi',
    summary:
      'Gives one of two computers the display and both USB devices; the other one loses them until it is switched back.',
    power: { ...mains, feeds: { kind: 'usb', outlets: 2, milliamps: 1800 } },
    priceEur: [40, 250],
    ports: [
      ...hosts.map((h) =>
        input(`in-${h}`, `HDMI in ${h.toUpperCase()}`, 'hdmi', 'digital', pictureAndStereo, { picture: link }),
      ),
      output('out', 'HDMI out', 'hdmi', 'digital', pictureAndStereo, { picture: link }),
      ...[1, 2].flatMap((n) => [
        ...down(n),
        ...hosts.flatMap((h) => up(`up-${h}`, `computer ${h.toUpperCase()}`, n, 'usb-b3')),
      ]),
    ],
    settings: [switchSetting('computer', 'Computer', { a: 'A', b: 'B' }, 'a')],
    figures: { through: typicalMs('through the switch', 0, 0, 1) },
    inside: hosts.flatMap((h) => [
      ...straight(`in-${h}`, 'out', pictureAndStereo, when('computer', h), latency('through')),
      ...[1, 2].flatMap((n) => lane(n, `up-${h}`, when('computer', h))),
    ]),
  };
}

/** What joins several devices to a computer by one cable, or to one of two computers. */
export const docks: DeviceType[] = [dock(), kvm()];
