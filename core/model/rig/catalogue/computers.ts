import type { DeviceType, PortSpec, Way } from '#core/model/rig/schema-type.ts';
import {
  battery,
  both,
  ceiling,
  earthedMains,
  gain,
  hands,
  hears,
  input,
  latency,
  levelSetting,
  mono,
  noise,
  output,
  ownClock,
  picture,
  pictureAndStereo,
  soundNumbered,
  sounds,
  stereo,
  straight,
  switchSetting,
  takes,
  toAnalogue,
  toDigital,
  typicalMs,
  usbChannels,
  way,
} from './parts.ts';

const sounding = soundNumbered(8);
/** What each further device behind a hub is given. */
const LANES = [2, 3, 4];

interface UsbSocket {
  readonly n: number;
  readonly connector: 'usb-a' | 'usb-c';
  readonly link: 'usb-2' | 'usb-5' | 'usb-10';
  readonly milliamps: number;
  /** Whether a hub may stand on it. */
  readonly hub: boolean;
}

/** A USB socket with its ends in software: what comes in goes to programs, what programs play goes out. */
function usbSocket({ n, connector, link, milliamps, hub }: UsbSocket): { ports: PortSpec[]; ways: Way[] } {
  const socket = `usb-${n}`;
  const at = { socket, gives: { kind: 'usb' as const, milliamps }, picture: { link } };
  const lane = (k: number) => ({ id: `${socket}-hub-${k}`, name: `USB ${n}, device ${k} of a hub` });
  return {
    ports: [
      input(socket, `USB ${n}`, connector, 'digital', usbChannels, at),
      output(`${socket}-out`, `USB ${n}, outwards`, connector, 'digital', sounding, { socket }),
      hands(`from-${socket}`, `what USB ${n} brings`, usbChannels),
      takes(`to-${socket}`, `played to USB ${n}`, sounding),
      ...(hub
        ? LANES.flatMap((k) => [
            input(lane(k).id, lane(k).name, connector, 'digital', pictureAndStereo, {
              socket,
              soundDevice: lane(k).id,
            }),
            output(`${lane(k).id}-out`, `${lane(k).name}, outwards`, connector, 'digital', stereo, {
              socket,
              soundDevice: lane(k).id,
            }),
            hands(`from-${lane(k).id}`, `what ${lane(k).name} brings`, pictureAndStereo),
            takes(`to-${lane(k).id}`, `played to ${lane(k).name}`, stereo),
          ])
        : []),
    ],
    ways: [
      ...straight(socket, `from-${socket}`, usbChannels),
      ...straight(`to-${socket}`, `${socket}-out`, sounding),
      ...(hub
        ? LANES.flatMap((k) => [
            ...straight(lane(k).id, `from-${lane(k).id}`, pictureAndStereo),
            ...straight(`to-${lane(k).id}`, `${lane(k).id}-out`, stereo),
          ])
        : []),
    ],
  };
}

/** A screen output: what a program shows and plays there. */
const screenOut = (n: number, link: 'tmds-340' | 'tmds-600'): { ports: PortSpec[]; ways: Way[] } => ({
  ports: [
    takes(`to-screen-${n}`, `shown on display ${n}`, pictureAndStereo),
    output(`hdmi-${n}`, `HDMI ${n}`, 'hdmi', 'digital', pictureAndStereo, {
      picture: { link, sends: { mode: 'picture-mode' } },
    }),
  ],
  ways: straight(`to-screen-${n}`, `hdmi-${n}`, pictureAndStereo),
});

const pictureMode = switchSetting(
  'picture-mode',
  'Video mode of its displays',
  {
    '1920x1080-60': '1080p, 60 Hz',
    '2560x1440-60': '1440p, 60 Hz',
    '3840x2160-30': '2160p, 30 Hz',
    '3840x2160-60': '2160p, 60 Hz',
  },
  '1920x1080-60',
);
const figures: DeviceType['figures'] = {
  record: typicalMs('converter of the jack, inwards', 1, 3, 8),
  play: typicalMs('converter of the jack, outwards', 1, 3, 8),
};
const phones = levelSetting('volume', 'Volume of the headphone jack', -12, 0);

const jackOut = (from: string, to: string): Way[] =>
  both(from, to, ceiling(0), latency('play'), toAnalogue([-3.8, 0, 2.2]), noise(-88), gain('volume'));

/** A headset jack: earphones out and a microphone in behind one socket. */
const headsetJack = {
  ports: [
    output('jack', 'headset jack, earphones', 'jack-35-trrs', 'headphone', stereo, {
      socket: 'jack',
      soundDevice: 'own',
    }),
    input('jack-microphone', 'headset jack, microphone', 'jack-35-trrs', 'microphone', mono, {
      socket: 'jack',
      soundDevice: 'own',
      gives: { kind: 'plug-in', milliamps: 1 },
    }),
    takes('to-jack', 'played to the jack', stereo),
    hands('from-jack', 'the jack’s microphone', mono),
  ] satisfies PortSpec[],
  ways: [
    ...jackOut('to-jack', 'jack'),
    way(
      'jack-microphone.mono',
      'from-jack.mono',
      noise(-105),
      gain('jack-gain'),
      toDigital([0, 2, 4]),
      latency('record'),
      ownClock,
    ),
  ],
};
/** A computer's radio: one device at a time here; each way has ends in software. */
const bluetooth = {
  ports: [
    input('bluetooth', 'Bluetooth', 'bluetooth', 'digital', stereo, { socket: 'bluetooth' }),
    output('bluetooth-out', 'Bluetooth, outwards', 'bluetooth', 'digital', stereo, { socket: 'bluetooth' }),
    hands('from-bluetooth', 'what Bluetooth brings', stereo),
    takes('to-bluetooth', 'played to Bluetooth', stereo),
  ] satisfies PortSpec[],
  ways: [...straight('bluetooth', 'from-bluetooth', stereo), ...straight('to-bluetooth', 'bluetooth-out', stereo)],
};

/** The one USB socket of what is held in the hand: for an interface, a mic or an adapter. */
const pocketUsb = usbSocket({ n: 1, connector: 'usb-c', link: 'usb-2', milliamps: 500, hub: true });

/** Speakers that are built in. */
const ownSpeakers = {
  ports: [
    takes('to-speakers', 'played to its own speakers', stereo),
    { ...sounds('front', 'own speakers', stereo, 0.5), soundDevice: 'own-speakers' },
  ] satisfies PortSpec[],
  ways: both('to-speakers', 'front', latency('play'), toAnalogue([0, 0, 0]), gain('speakers'), {
    do: 'radiate',
    splAt0Dbu: [76, 82, 88],
  }),
  setting: levelSetting('speakers', 'Volume of its own speakers', -20, 0),
};
const jackGain = levelSetting('jack-gain', 'Microphone gain of the jack', 30, 50);

export const computers: DeviceType[] = [
  desktop(),
  laptop(),
  {
    id: 'phone',
    name: 'Phone with headphone jack',
    family: 'computers',
    shows: { levels: 'in-programs' },
    summary: 'Plays music or jingles from its headphone jack.',
    power: battery(10),
    priceEur: [100, 300],
    ports: [output('jack', 'headphone jack', 'jack-35-trrs', 'headphone', stereo, { does: 'music' })],
    settings: [],
    figures: {},
    inside: [],
  },
  {
    id: 'phone-usb-c',
    name: 'Phone without a headphone jack',
    family: 'computers',
    shows: { levels: 'in-programs' },
    summary: 'Its audio leaves by USB C: a small converter is needed, or Bluetooth.',
    power: battery(12),
    priceEur: [150, 600],
    needs: ['a USB C audio converter for wired audio'],
    ports: [
      output('usb', 'USB C, audio', 'usb-c', 'digital', stereo, { does: 'music', usb: 'either' }),
      output('bluetooth', 'Bluetooth', 'bluetooth', 'digital', stereo, { does: 'music' }),
    ],
    settings: [],
    figures: {},
    inside: [],
  },
  callingPhone(),
  {
    id: 'tablet',
    name: 'Tablet',
    family: 'computers',
    hosts: true,
    shows: { levels: 'in-programs' },
    summary:
      'Takes part in a call by itself: it sees, hears, and plays; USB C takes a mic, an interface or an adapter.',
    power: battery(8),
    priceEur: [150, 700],
    ports: [
      ...pocketUsb.ports,
      ...bluetooth.ports,
      input('lens', 'lens', 'light', 'light', picture),
      hears('microphone', 'own microphone'),
      takes('play', 'played', stereo),
      hands('seen', 'its camera', picture),
      hands('heard', 'its microphone', mono),
      sounds('front', 'loudspeakers', stereo, 0.3),
    ],
    settings: [levelSetting('volume', 'Volume', -20, 0)],
    figures: {
      picture: typicalMs('tablet, lens to app', 40, 80, 140),
      record: typicalMs('tablet, microphone', 10, 20, 40),
      play: typicalMs('tablet, speakers', 10, 20, 40),
    },
    inside: [
      ...pocketUsb.ways,
      ...bluetooth.ways,
      way('lens.picture', 'seen.picture', latency('picture')),
      way(
        'microphone.mono',
        'heard.mono',
        { do: 'hear', sensitivityDbvPerPa: [-48, -42, -36] },
        noise(-110),
        toDigital([-30, -24, -18]),
        latency('record'),
        ownClock,
      ),
      ...both('play', 'front', latency('play'), toAnalogue([0, 0, 0]), gain('volume'), {
        do: 'radiate',
        splAt0Dbu: [78, 84, 88],
      }),
    ],
  },
];

/** A phone that is one end of a call itself: its earpiece or a headset, a lead to the mixer, or a converter at its USB socket. */
function callingPhone(): DeviceType {
  return {
    id: 'phone-call',
    name: 'Phone, on a call',
    family: 'computers',
    hosts: true,
    shows: { levels: 'in-programs' },
    summary:
      'Takes part in a call by itself: by its own microphone and speaker, a headset, or cables to a mixer; by its jack, or the adapter that stands for one.',
    power: battery(8),
    priceEur: [150, 700],
    ports: [
      ...headsetJack.ports,
      ...pocketUsb.ports,
      ...bluetooth.ports,
      ...ownSpeakers.ports,
      { ...hears('microphone', 'own microphone'), soundDevice: 'own-microphone' },
      hands('from-microphone', 'its own microphone', mono),
      input('lens', 'own camera', 'light', 'light', picture),
      hands('from-lens', 'its own camera', picture),
    ],
    settings: [phones, jackGain, ownSpeakers.setting],
    figures: { ...figures, camera: typicalMs('own camera, lens to app', 40, 80, 140) },
    inside: [
      ...headsetJack.ways,
      ...pocketUsb.ways,
      ...bluetooth.ways,
      ...ownSpeakers.ways,
      way(
        'microphone.mono',
        'from-microphone.mono',
        { do: 'hear', sensitivityDbvPerPa: [-48, -42, -36] },
        noise(-108),
        toDigital([-30, -24, -18]),
        latency('record'),
        ownClock,
      ),
      way('lens.picture', 'from-lens.picture', latency('camera')),
    ],
  };
}

function desktop(): DeviceType {
  const sockets = [
    usbSocket({ n: 1, connector: 'usb-a', link: 'usb-5', milliamps: 900, hub: true }),
    usbSocket({ n: 2, connector: 'usb-a', link: 'usb-5', milliamps: 900, hub: false }),
    usbSocket({ n: 3, connector: 'usb-a', link: 'usb-2', milliamps: 500, hub: false }),
    usbSocket({ n: 4, connector: 'usb-a', link: 'usb-2', milliamps: 500, hub: false }),
    screenOut(1, 'tmds-600'),
    screenOut(2, 'tmds-600'),
  ];
  return {
    id: 'computer-desktop',
    name: 'Computer, desktop',
    family: 'computers',
    hosts: true,
    shows: { levels: 'in-programs' },
    summary: 'Four USB sockets, two displays, and three jacks: line in, line out, microphone.',
    power: { ...earthedMains, feeds: { kind: 'usb', outlets: 4 } },
    priceEur: [600, 2000],
    ports: [
      ...sockets.flatMap((s) => s.ports),
      input('line-in', 'line in, blue', 'jack-35-trs', 'line', stereo, { soundDevice: 'own' }),
      input('microphone', 'microphone, pink', 'jack-35-trs', 'microphone', mono, {
        soundDevice: 'own',
        gives: { kind: 'plug-in', milliamps: 1 },
      }),
      output('line-out', 'line out, green', 'jack-35-trs', 'headphone', stereo, { soundDevice: 'own' }),
      hands('from-line-in', 'what line in brings', stereo),
      hands('from-microphone', 'what the microphone jack brings', mono),
      takes('to-line-out', 'played to line out', stereo),
      ...bluetooth.ports,
    ],
    settings: [pictureMode, phones, jackGain],
    figures,
    inside: [
      ...sockets.flatMap((s) => s.ways),
      ...both('line-in', 'from-line-in', noise(-82), toDigital([2, 8.2, 10]), latency('record'), ownClock),
      way(
        'microphone.mono',
        'from-microphone.mono',
        noise(-105),
        gain('jack-gain'),
        toDigital([0, 2, 4]),
        latency('record'),
        ownClock,
      ),
      ...jackOut('to-line-out', 'line-out'),
      ...bluetooth.ways,
    ],
  };
}

function laptop(): DeviceType {
  const sockets = [
    usbSocket({ n: 1, connector: 'usb-a', link: 'usb-5', milliamps: 900, hub: true }),
    usbSocket({ n: 2, connector: 'usb-c', link: 'usb-10', milliamps: 1500, hub: true }),
    screenOut(1, 'tmds-600'),
  ];
  return {
    id: 'computer-laptop',
    name: 'Computer, laptop with a headset jack',
    family: 'computers',
    hosts: true,
    shows: { levels: 'in-programs' },
    summary:
      'Two USB sockets, one display output, and one jack with four poles (TRRS) for earphones and microphone together.',
    power: { by: ['mains', 'battery'], earthed: true, supply: 'supply', hours: 5, feeds: { kind: 'usb', outlets: 2 } },
    priceEur: [500, 1800],
    ports: [
      ...sockets.flatMap((s) => s.ports),
      ...headsetJack.ports,
      { ...hears('microphone', 'own microphone'), soundDevice: 'own' },
      input('lens', 'own camera', 'light', 'light', picture),
      hands('from-microphone', 'its own microphone', mono),
      hands('from-lens', 'its own camera', picture),
      output('view', 'its own display', 'light', 'light', picture, { does: 'view' }),
      takes('to-view', 'shown on its own display', picture),
      ...bluetooth.ports,
      ...ownSpeakers.ports,
    ],
    settings: [
      pictureMode,
      phones,
      jackGain,
      ownSpeakers.setting,
      switchSetting('supply', 'Runs from', { mains: 'AC power', battery: 'its battery' }, 'mains'),
    ],
    figures: {
      ...figures,
      camera: typicalMs('own camera, lens to app', 60, 100, 160),
      screen: typicalMs('own display', 10, 20, 40),
    },
    inside: [
      ...sockets.flatMap((s) => s.ways),
      ...headsetJack.ways,
      way(
        'microphone.mono',
        'from-microphone.mono',
        { do: 'hear', sensitivityDbvPerPa: [-48, -42, -36] },
        noise(-108),
        toDigital([-30, -24, -18]),
        latency('record'),
        ownClock,
      ),
      way('lens.picture', 'from-lens.picture', latency('camera')),
      way('to-view.picture', 'view.picture', latency('screen')),
      ...bluetooth.ways,
      ...ownSpeakers.ways,
    ],
  };
}
