import type { DeviceType, PortSpec } from '#core/model/rig/schema-type.ts';
import {
  battery,
  fromUsb,
  hears,
  input,
  latency,
  mono,
  muteSetting,
  needsUsb,
  noise,
  output,
  ownClock,
  picture,
  pictureAndStereo,
  sounds,
  stereo,
  toAnalogue,
  typicalMs,
  unmuted,
  unpowered,
  way,
} from './parts.ts';

const SIDES = ['left', 'right'] as const;
/** Levels of earphones are stated at the ear. */
const AT_THE_EAR_M = 0.01;
const ears: PortSpec = { ...sounds('ears', 'earphones', stereo, AT_THE_EAR_M), does: 'ears' };
const boom = hears('boom', 'boom microphone');
const microphoneMute = muteSetting('microphone-mute', 'Microphone mute', false);
const RADIATE = { do: 'radiate' as const, splAt0Dbu: [98, 104, 110] as [number, number, number] };

/** Earphones and a boom behind converters of their own: USB or a radio. */
function digitalHeadset(
  id: string,
  name: string,
  summary: string,
  [inId, outId]: [string, string],
  ends: [PortSpec, PortSpec],
  [playMs, recordMs]: [[number, number, number], [number, number, number]],
  more: Pick<DeviceType, 'power' | 'priceEur' | 'exclusive' | 'needs'>,
  telephone = false,
): DeviceType {
  const source = telephone ? 'typical of Bluetooth' : 'typical of USB audio devices';
  const figure = (label: string, range: [number, number, number]): DeviceType['figures'][string] => ({
    label,
    unit: 'ms',
    range,
    kind: 'typical',
    source,
  });
  return {
    id,
    name,
    family: 'headphones',
    summary,
    ...more,
    ports: [ends[0], ears, boom, ends[1]],
    settings: [microphoneMute],
    figures: {
      earphones: figure('earphones and their converter', playMs),
      microphone: figure('boom microphone and its converter', recordMs),
    },
    inside: [
      ...SIDES.map((side) =>
        way(`${inId}.${side}`, `ears.${side}`, latency('earphones'), toAnalogue([-3.8, 0, 2.2]), RADIATE),
      ),
      way(
        'boom.mono',
        `${outId}.mono`,
        unmuted('microphone-mute'),
        { do: 'hear', sensitivityDbvPerPa: [-48, -42, -36] },
        noise(-112),
        { do: 'convert', to: 'digital', fullScaleDbu: [-30, -24, -18] },
        latency('microphone'),
        ...(telephone ? [{ do: 'band' as const, lowHz: 100, highHz: 7000 }] : []),
        ownClock,
      ),
    ],
  };
}

/** Earphones and a boom on plugs. */
function wiredHeadset(
  id: string,
  name: string,
  summary: string,
  connector: string,
  onePlug: boolean,
  priceEur: [number, number],
): DeviceType {
  return {
    id,
    name,
    family: 'headphones',
    summary,
    power: { by: ['plug-in'] },
    priceEur,
    ports: [
      input('plug', 'plug, earphones', connector, 'headphone', stereo, onePlug ? { socket: 'plug' } : {}),
      ears,
      boom,
      output('plug-microphone', 'plug, microphone', connector, 'microphone', mono, {
        ...(onePlug && { socket: 'plug' }),
        takes: { kind: 'plug-in', milliamps: 0.5 },
        harmedBy: ['phantom'],
      }),
    ],
    settings: [microphoneMute],
    figures: {},
    inside: [
      ...SIDES.map((side) => way(`plug.${side}`, `ears.${side}`, RADIATE)),
      way(
        'boom.mono',
        'plug-microphone.mono',
        unmuted('microphone-mute'),
        { do: 'hear', sensitivityDbvPerPa: [-48, -42, -36] },
        noise(-116),
      ),
    ],
  };
}

const usbEnds: [PortSpec, PortSpec] = [
  input('usb-in', 'USB, audio to the ears', 'plug-usb-a', 'digital', stereo, { socket: 'usb', ...needsUsb(150) }),
  output('usb-out', 'USB, microphone', 'plug-usb-a', 'digital', mono, { socket: 'usb' }),
];
const radioEnds: [PortSpec, PortSpec] = [
  input('bluetooth-in', 'Bluetooth, audio to the ears', 'bluetooth', 'digital', stereo, { socket: 'bluetooth' }),
  output('bluetooth-out', 'Bluetooth, microphone', 'bluetooth', 'digital', mono, { socket: 'bluetooth' }),
];

export const headphones: DeviceType[] = [
  digitalHeadset(
    'headset-usb',
    'Headset, USB',
    'Earphones and a boom microphone on one USB plug, with converters of its own.',
    ['usb-in', 'usb-out'],
    usbEnds,
    [
      [3, 8, 15],
      [3, 8, 15],
    ],
    { power: fromUsb(150), priceEur: [25, 120] },
  ),
  digitalHeadset(
    'headset-bluetooth',
    'Headset, Bluetooth',
    'Late; and while its microphone is in use, its audio falls to that of a telephone.',
    ['bluetooth-in', 'bluetooth-out'],
    radioEnds,
    [
      [40, 180, 300],
      [40, 180, 300],
    ],
    {
      power: battery(20),
      priceEur: [30, 250],
      exclusive: [
        {
          ports: ['bluetooth-in', 'bluetooth-out'],
          severity: 'watch',
          says: 'While its microphone is in use, both ways fall to telephone audio. Use another microphone, and its earphones alone.',
        },
      ],
    },
    true,
  ),
  digitalHeadset(
    'headset-radio',
    'Headset, wireless, with its own USB dongle',
    'Quick enough for games; the stick needs a free USB socket in sight.',
    ['usb-in', 'usb-out'],
    usbEnds,
    [
      [15, 25, 40],
      [15, 25, 40],
    ],
    { power: battery(15), priceEur: [60, 250] },
  ),
  wiredHeadset(
    'headset-four-contact',
    'Headset, wired, one plug with four poles (TRRS)',
    'Earphones and microphone on one 3.5 mm plug, for a headset jack.',
    'plug-35-trrs',
    true,
    [15, 90],
  ),
  wiredHeadset(
    'headset-two-plug',
    'Headset, wired, two plugs',
    'One 3.5 mm plug for the ears, one for the microphone.',
    'plug-35-trs',
    false,
    [15, 90],
  ),
  {
    id: 'headset-xlr',
    name: 'Headset with an XLR mic',
    family: 'headphones',
    summary: 'A boom of stage quality on an XLR plug, and a plug of its own for the ears: for a mixer or an interface.',
    power: unpowered,
    priceEur: [60, 350],
    ports: [
      input('plug', 'plug, earphones', 'plug-635-trs', 'headphone', stereo),
      ears,
      boom,
      output('xlr', 'XLR, microphone', 'xlr-male', 'microphone', mono),
    ],
    settings: [],
    figures: {},
    inside: [
      ...SIDES.map((side) => way(`plug.${side}`, `ears.${side}`, { do: 'radiate', splAt0Dbu: [98, 106, 114] })),
      way('boom.mono', 'xlr.mono', { do: 'hear', sensitivityDbvPerPa: [-58, -54, -50] }, noise(-125)),
    ],
  },
  {
    id: 'headphones',
    name: 'Headphones, wired',
    family: 'headphones',
    summary: 'Closed headphones on a 3.5 or 6.35 mm plug.',
    power: unpowered,
    priceEur: [25, 200],
    ports: [input('plug', 'plug', 'plug-635-trs', 'headphone', stereo), ears],
    settings: [],
    figures: {},
    inside: SIDES.map((side) => way(`plug.${side}`, `ears.${side}`, { do: 'radiate', splAt0Dbu: [98, 106, 114] })),
  },
  {
    id: 'earphones',
    name: 'Earphones, wired',
    family: 'headphones',
    summary: 'Small, seal the ear canal, on a 3.5 mm plug.',
    power: unpowered,
    priceEur: [10, 120],
    ports: [input('plug', 'plug', 'plug-35-trs', 'headphone', stereo), ears],
    settings: [],
    figures: {},
    inside: SIDES.map((side) => way(`plug.${side}`, `ears.${side}`, { do: 'radiate', splAt0Dbu: [104, 110, 116] })),
  },
  {
    id: 'head-worn-display',
    name: 'Head-worn display',
    family: 'headphones',
    summary: 'Shows the video before the eyes, with speakers by the ears, a poor microphone, and a spare USB socket.',
    power: { by: ['mains'] },
    priceEur: [350, 1100],
    ports: [
      input('display', 'display', 'plug-hdmi', 'digital', pictureAndStereo, { picture: { link: 'tmds-600' } }),
      output('view', 'video seen', 'light', 'light', picture, { does: 'view' }),
      ears,
      boom,
      output('usb', 'USB, microphone', 'plug-usb-a', 'digital', mono, {
        socket: 'usb',
        takes: { kind: 'usb', milliamps: 900 },
      }),
      input('spare', 'spare USB socket', 'usb-c', 'digital', mono, { gives: { kind: 'usb', milliamps: 100 } }),
      output('spare-through', 'USB, spare socket passed on', 'plug-usb-a', 'digital', mono, { socket: 'usb' }),
    ],
    settings: [microphoneMute],
    figures: {
      picture: typicalMs('head-worn display', 8, 15, 30),
      sound: typicalMs('its earphones', 5, 15, 30),
      microphone: typicalMs('its microphone', 10, 30, 60),
    },
    inside: [
      way('display.picture', 'view.picture', latency('picture')),
      ...SIDES.map((side) =>
        way(`display.${side}`, `ears.${side}`, latency('sound'), toAnalogue([-6, -3, 0]), {
          do: 'radiate',
          splAt0Dbu: [92, 98, 104],
        }),
      ),
      way(
        'boom.mono',
        'usb.mono',
        unmuted('microphone-mute'),
        { do: 'hear', sensitivityDbvPerPa: [-48, -42, -36] },
        noise(-100),
        { do: 'convert', to: 'digital', fullScaleDbu: [-30, -24, -18] },
        latency('microphone'),
        { do: 'band', lowHz: 200, highHz: 8000 },
        ownClock,
      ),
      way('spare.mono', 'spare-through.mono'),
    ],
  },
];
