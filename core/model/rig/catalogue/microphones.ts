import type { DeviceType, PortSpec, Range } from '#core/model/rig/schema-type.ts';
import {
  battery,
  both,
  fromUsb,
  gain,
  gainSetting,
  hears,
  input,
  latency,
  levelSetting,
  mains,
  mono,
  muteSetting,
  needsUsb,
  noise,
  onOff,
  output,
  ownClock,
  stereo,
  switchSetting,
  toAnalogue,
  toBothSides,
  toDigital,
  typicalMs,
  unmuted,
  unpowered,
  way,
  when,
} from './parts.ts';

const capsule = hears('capsule', 'capsule');
const xlr = (more: Partial<PortSpec> = {}): PortSpec => ({
  ...output('xlr', 'XLR', 'xlr-male', 'microphone', mono),
  ...more,
});
const PHANTOM: Partial<PortSpec> = { takes: { kind: 'phantom', milliamps: 4 } };
const PLUG_IN: Partial<PortSpec> = { takes: { kind: 'plug-in', milliamps: 0.5 }, harmedBy: ['phantom'] };

/** A capsule straight to a socket, without anything to set. */
function wired(
  id: string,
  name: string,
  summary: string,
  out: PortSpec,
  sensitivityDbvPerPa: Range,
  ownNoiseDbu: number,
  more: Pick<DeviceType, 'power' | 'priceEur' | 'needs'>,
): DeviceType {
  return {
    id,
    name,
    family: 'microphones',
    summary,
    ...more,
    ports: [capsule, out],
    settings: [],
    figures: {},
    inside: [
      way('capsule.mono', `${out.id}.mono`, { do: 'hear', sensitivityDbvPerPa }, noise(ownNoiseDbu), {
        do: 'band',
        lowHz: 50,
        highHz: 16000,
      }),
    ],
  };
}

const MOVING_COIL: Range = [-58, -55, -52];
const CONDENSER: Range = [-42, -36, -30];
const LAPEL: Range = [-48, -42, -36];

/** A microphone with its own converter. */
function usbMicrophone(
  id: string,
  name: string,
  summary: string,
  monitor: boolean,
  priceEur: [number, number],
): DeviceType {
  return {
    id,
    name,
    family: 'microphones',
    summary,
    power: fromUsb(monitor ? 250 : 100),
    priceEur,
    ports: [
      capsule,
      output('usb', 'USB', monitor ? 'usb-c' : 'plug-usb-a', 'digital', mono, {
        socket: 'usb',
        ...needsUsb(monitor ? 250 : 100),
      }),
      ...(monitor
        ? [
            input('usb-in', 'USB, audio to its jack', 'usb-c', 'digital' as const, stereo, { socket: 'usb' }),
            output('jack', 'headphone jack', 'jack-35-trs', 'headphone' as const, stereo),
          ]
        : []),
    ],
    settings: [
      gainSetting('gain', 'Gain', [0, 20, 40]),
      muteSetting('mute', 'Mute', false),
      ...(monitor
        ? [
            levelSetting('direct', 'Own voice in the jack', -12, 0),
            levelSetting('volume', 'Volume of the jack', -12, 0),
          ]
        : []),
    ],
    figures: {
      record: typicalMs('microphone, converter and USB', 3, 8, 15),
      ...(monitor && { play: typicalMs('USB to the jack', 3, 8, 15) }),
    },
    inside: [
      way(
        'capsule.mono',
        'usb.mono',
        { do: 'hear', sensitivityDbvPerPa: LAPEL },
        noise(-112),
        unmuted('mute'),
        gain('gain'),
        toDigital([-10, -4, 2]),
        latency('record'),
        ownClock,
      ),
      ...(monitor
        ? [
            ...(['left', 'right'] as const).map((side) =>
              way(
                'capsule.mono',
                `jack.${side}`,
                { do: 'hear', sensitivityDbvPerPa: LAPEL },
                noise(-112),
                unmuted('mute'),
                gain('gain'),
                gain('direct'),
                gain('volume'),
              ),
            ),
            ...both('usb-in', 'jack', latency('play'), toAnalogue([-3.8, 0, 2.2]), noise(-88), gain('volume')),
          ]
        : []),
    ],
  };
}

const RADIO = typicalMs('wireless link, 2.4 GHz', 4, 10, 25);

export const microphones: DeviceType[] = [
  wired('microphone-dynamic', 'Dynamic microphone, XLR', 'Needs no power; needs much gain.', xlr(), MOVING_COIL, -131, {
    power: unpowered,
    priceEur: [30, 120],
  }),
  wired(
    'microphone-condenser',
    'Microphone, condenser, XLR',
    'Hears far and wide; needs phantom power.',
    xlr(PHANTOM),
    CONDENSER,
    -121,
    { power: { by: ['phantom'] }, priceEur: [60, 300] },
  ),
  wired(
    'microphone-ribbon',
    'Microphone, ribbon, XLR',
    'Needs much gain; phantom power can tear its ribbon.',
    xlr({ harmedBy: ['phantom'] }),
    [-60, -56, -52],
    -131,
    { power: unpowered, priceEur: [120, 500] },
  ),
  wired(
    'lapel-wired',
    'Lavalier (lapel) mic, 3-pole plug (TRS)',
    'Clips on; its plug has three poles (TRS) and needs a few volts from the jack.',
    { ...output('plug', 'plug', 'plug-35-trs', 'microphone', mono), ...PLUG_IN },
    LAPEL,
    -118,
    { power: { by: ['plug-in'] }, priceEur: [10, 60] },
  ),
  wired(
    'lapel-phone',
    'Lavalier (lapel) mic, 4-pole plug (TRRS)',
    'Clips on; made for the headset jack of phones and laptops.',
    { ...output('plug', 'plug', 'plug-35-trrs', 'microphone', mono), ...PLUG_IN },
    LAPEL,
    -118,
    { power: { by: ['plug-in'] }, priceEur: [10, 50] },
  ),
  wired(
    'microphone-camera-top',
    'Microphone for the top of a camera',
    'Looks where the camera looks; its plug has three poles (TRS).',
    { ...output('jack', 'jack', 'jack-35-trs', 'microphone', mono), ...PLUG_IN },
    [-40, -36, -32],
    -116,
    { power: { by: ['plug-in'] }, priceEur: [30, 200] },
  ),
  wired(
    'microphone-head-worn',
    'Headworn microphone, for a wireless bodypack',
    'A boom on the cheek: close, and out of the way of the hands.',
    { ...output('plug', 'plug', 'plug-35-trs', 'microphone', mono), ...PLUG_IN },
    LAPEL,
    -116,
    { power: { by: ['plug-in'] }, priceEur: [25, 200] },
  ),
  usbMicrophone(
    'microphone-usb',
    'Microphone, USB, with headphone jack',
    'Converter and headphone jack of its own.',
    true,
    [50, 180],
  ),
  usbMicrophone(
    'lapel-usb',
    'Lavalier (lapel) mic, USB',
    'Clips on and goes straight into the computer.',
    false,
    [15, 60],
  ),
  {
    id: 'radio-pack',
    name: 'Wireless microphone, bodypack transmitter',
    family: 'microphones',
    summary: 'Worn on the belt; sends what its small microphone hears.',
    power: battery(6),
    priceEur: [60, 300],
    ports: [
      input('jack', 'microphone jack', 'jack-35-trs', 'microphone', mono, { gives: { kind: 'plug-in', milliamps: 1 } }),
      output('radio', 'radio', 'radio', 'digital', mono),
    ],
    settings: [gainSetting('gain', 'Gain', [0, 30, 50]), muteSetting('mute', 'Mute', false)],
    figures: { link: RADIO },
    inside: [
      way(
        'jack.mono',
        'radio.mono',
        unmuted('mute'),
        noise(-112),
        gain('gain'),
        toDigital([0, 2, 4]),
        latency('link'),
        ownClock,
      ),
    ],
  },
  {
    id: 'radio-plug-on',
    name: 'Plug-on transmitter for a microphone',
    family: 'microphones',
    summary:
      'Goes onto the XLR plug of any microphone and sends what it gives; feeds a condenser where its switch says so.',
    power: battery(6),
    priceEur: [70, 350],
    ports: [
      input('xlr', 'XLR, the microphone', 'xlr-female', 'microphone', mono, {
        gives: { kind: 'phantom', milliamps: 7, setting: 'phantom' },
      }),
      output('radio', 'radio', 'radio', 'digital', mono),
    ],
    settings: [
      gainSetting('gain', 'Gain', [0, 30, 50]),
      onOff('phantom', 'Phantom power', 'off'),
      muteSetting('mute', 'Mute', false),
    ],
    figures: { link: RADIO },
    inside: [
      way(
        'xlr.mono',
        'radio.mono',
        unmuted('mute'),
        noise(-120),
        gain('gain'),
        toDigital([0, 2, 4]),
        latency('link'),
        ownClock,
      ),
    ],
  },
  {
    id: 'radio-handheld',
    name: 'Wireless microphone, handheld',
    family: 'microphones',
    summary: 'Goes from hand to hand for questions.',
    power: battery(8),
    priceEur: [60, 300],
    ports: [capsule, output('radio', 'radio', 'radio', 'digital', mono)],
    settings: [gainSetting('gain', 'Gain', [0, 40, 50]), muteSetting('mute', 'Mute', false)],
    figures: { link: RADIO },
    inside: [
      way(
        'capsule.mono',
        'radio.mono',
        { do: 'hear', sensitivityDbvPerPa: MOVING_COIL },
        unmuted('mute'),
        noise(-125),
        gain('gain'),
        toDigital([0, 2, 4]),
        latency('link'),
        ownClock,
      ),
    ],
  },
  {
    id: 'radio-base',
    name: 'Wireless microphone, receiver',
    family: 'microphones',
    summary: 'Receives one pack; its output stands at line or at microphone level by a switch.',
    power: { by: ['mains', 'usb'], milliamps: 300 },
    priceEur: [60, 300],
    ports: [input('radio', 'radio', 'radio', 'digital', mono), output('out', 'line out', 'jack-635-trs', 'line', mono)],
    settings: [switchSetting('level', 'Output level', { line: 'line', microphone: 'microphone, 30 dB less' }, 'line')],
    figures: {},
    inside: [
      way('radio.mono', 'out.mono', when('level', 'line'), toAnalogue([4, 8, 12]), noise(-85)),
      way('radio.mono', 'out.mono', when('level', 'microphone'), toAnalogue([-26, -22, -18]), noise(-110)),
    ],
  },
  {
    id: 'radio-base-camera',
    name: 'Wireless microphone, camera receiver',
    family: 'microphones',
    summary: 'A small receiver in the camera’s shoe: one pack, at the level of a microphone jack.',
    power: battery(6),
    priceEur: [70, 350],
    ports: [
      input('radio', 'radio', 'radio', 'digital', mono),
      output('out', 'out', 'jack-35-trs', 'microphone', stereo),
    ],
    settings: [gainSetting('gain', 'Output gain', [-18, 0, 12])],
    figures: {},
    inside: toBothSides('radio', 'out', gain('gain'), toAnalogue([-24, -20, -16]), noise(-105)),
  },
  receiver(2),
  receiver(4),
  receiver(8),
  {
    id: 'radio-set-camera',
    name: 'Wireless microphone set for a camera, two packs',
    family: 'microphones',
    summary: 'A small receiver on the camera takes two packs; each pack has a microphone of its own.',
    power: battery(6),
    priceEur: [120, 350],
    ports: [
      hears('pack-1', 'pack 1, own microphone'),
      hears('pack-2', 'pack 2, own microphone'),
      output('out', 'receiver, jack', 'jack-35-trs', 'microphone', stereo),
      output('usb', 'receiver, USB', 'usb-c', 'digital', stereo),
    ],
    settings: [
      gainSetting('gain', 'Output gain', [-12, 0, 12]),
      switchSetting('sides', 'Packs', { apart: 'one on each side', both: 'both on both sides' }, 'apart'),
    ],
    figures: { link: RADIO },
    inside: radioSetWays(),
  },
  {
    id: 'microphone-table-radio',
    name: 'Wireless table microphones, set of two',
    family: 'microphones',
    summary: 'Two goosenecks with talk buttons, one receiver with an output for each.',
    power: battery(10),
    priceEur: [150, 500],
    ports: [
      hears('capsule-1', 'microphone 1'),
      hears('capsule-2', 'microphone 2'),
      output('out-1', 'receiver, out 1', 'xlr-male', 'microphone', mono),
      output('out-2', 'receiver, out 2', 'xlr-male', 'microphone', mono),
    ],
    settings: [muteSetting('mute-1', 'Microphone 1, mute', false), muteSetting('mute-2', 'Microphone 2, mute', false)],
    figures: { link: RADIO },
    inside: [1, 2].map((n) =>
      way(
        `capsule-${n}.mono`,
        `out-${n}.mono`,
        unmuted(`mute-${n}`),
        { do: 'hear', sensitivityDbvPerPa: CONDENSER },
        noise(-112),
        { do: 'fixed-gain', db: 30 },
        toDigital([2, 4, 6]),
        latency('link'),
        ownClock,
        toAnalogue([-30, -26, -22]),
      ),
    ),
  },
];

/** One receiver for several radio microphones: an output for each, and one with all of them. */
function receiver(count: number): DeviceType {
  const numbers = Array.from({ length: count }, (_, i) => i + 1);
  const words = { 2: 'two', 4: 'four', 8: 'eight' }[count]!;
  return {
    id: `radio-base-${count}`,
    name: `Wireless microphone, ${words}-channel receiver`,
    family: 'microphones',
    summary: `Receives ${words} bodypack or handheld transmitters: one output for each, and one jack with all of them.`,
    power: mains,
    priceEur: [50 * count, 220 * count],
    ports: [
      ...numbers.map((n) => input(`radio-${n}`, `radio ${n}`, 'radio', 'digital', mono)),
      ...numbers.map((n) => output(`out-${n}`, `out ${n}`, 'xlr-male', 'microphone', mono)),
      output('mix', 'mix out', 'jack-635-ts', 'line', mono),
    ],
    settings: numbers.map((n) => levelSetting(`level-${n}`, `Microphone ${n}, level in the mix`, 0, 0)),
    figures: {},
    inside: numbers.flatMap((n) => [
      way(`radio-${n}.mono`, `out-${n}.mono`, toAnalogue([-26, -22, -18]), noise(-110)),
      way(`radio-${n}.mono`, 'mix.mono', gain(`level-${n}`), toAnalogue([0, 4, 8]), noise(-85)),
    ]),
  };
}

function radioSetWays(): DeviceType['inside'] {
  const stages = (out: 'out' | 'usb'): DeviceType['inside'][number]['stages'] => [
    { do: 'hear', sensitivityDbvPerPa: LAPEL },
    noise(-112),
    { do: 'fixed-gain', db: 30 },
    toDigital([0, 2, 4]),
    latency('link'),
    ownClock,
    gain('gain'),
    ...(out === 'out' ? [toAnalogue([-24, -20, -16]), noise(-100)] : []),
  ];
  return (['out', 'usb'] as const).flatMap((out) => [
    way('pack-1.mono', `${out}.left`, ...stages(out)),
    way('pack-2.mono', `${out}.right`, ...stages(out)),
    way('pack-1.mono', `${out}.right`, when('sides', 'both'), ...stages(out)),
    way('pack-2.mono', `${out}.left`, when('sides', 'both'), ...stages(out)),
  ]);
}
