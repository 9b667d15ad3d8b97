import type { DeviceType, SettingSpec, Way } from '../schema.ts';
import {
  both,
  ceiling,
  delay,
  delaySetting,
  gain,
  input,
  latency,
  levelSetting,
  mono,
  muteSetting,
  noise,
  OFF_DB,
  output,
  ownClock,
  point,
  stereo,
  toAnalogue,
  toBothSides,
  toDigital,
  typicalMs,
  unmuted,
  way,
  when,
} from './parts.ts';

const SENDS = [1, 2, 3];
/** Sends 1 and 3 are taken before the fader (they feed ears), send 2 after it (it feeds the call). */
const sendPoint = (n: number) => (n === 2 ? 'after' : 'before');

export const soundGear: DeviceType[] = [
  {
    id: 'microphone-dynamic',
    name: 'Microphone, moving coil, XLR',
    family: 'microphones',
    summary: 'Needs no power; needs much gain.',
    ports: [input('capsule', 'capsule', 'air', 'air', mono), output('xlr', 'XLR', 'xlr-male', 'microphone', mono)],
    settings: [],
    figures: {},
    inside: [
      way('capsule.mono', 'xlr.mono', { do: 'hear', sensitivityDbvPerPa: [-58, -55, -52] }, noise(-131), {
        do: 'band',
        lowHz: 50,
        highHz: 16000,
      }),
    ],
  },
  {
    id: 'phone',
    name: 'Phone with headphone jack',
    family: 'computers',
    summary: 'Plays music or jingles from its headphone jack.',
    ports: [output('jack', 'headphone jack', 'jack-35-trrs', 'headphone', stereo)],
    settings: [],
    figures: {},
    inside: [],
  },
  {
    id: 'loudspeakers-active',
    name: 'Loudspeakers, a pair, active',
    family: 'loudspeakers',
    summary: 'Two small loudspeakers with amplifiers inside.',
    ports: [
      input('line', 'line in', 'xlr-female-pair', 'line', stereo),
      { ...output('front', 'front', 'air', 'air', stereo), referenceM: 1 },
    ],
    settings: [levelSetting('volume', 'Volume', -10, 0)],
    figures: {},
    inside: both(
      'line',
      'front',
      gain('volume'),
      ceiling(18),
      { do: 'radiate', splAt0Dbu: [92, 96, 100] },
      { do: 'band', lowHz: 70, highHz: 20000 },
    ),
  },
  {
    id: 'recorder-stereo',
    name: 'Recorder, two channels, line in',
    family: 'recorders',
    summary: 'Records two channels to a card, on a clock of its own.',
    ports: [
      input('line', 'line in', 'jack-635-pair', 'line', stereo),
      output('file', 'recording', 'file', 'digital', stereo),
    ],
    settings: [],
    figures: { converter: typicalMs('recorder, converter', 0.5, 1, 2) },
    inside: both('line', 'file', noise(-92), ceiling(20), toDigital([18, 20, 24]), latency('converter'), ownClock),
  },
  mixer(),
];

interface Strip {
  id: string;
  name: string;
  wide: boolean;
  /** Range of the input gain, dB. */
  gainDb: [number, number, number];
  usbReturn: boolean;
}

/** A digital desk mixer: ten strips, three sends, main and send two as its own USB interface, delay on every strip. */
function mixer(): DeviceType {
  const strips: Strip[] = [
    ...[1, 2, 3, 4].map((n) => ({
      id: `strip-${n}`,
      name: `Strip ${n}`,
      wide: false,
      gainDb: [0, 40, 60] as [number, number, number],
      usbReturn: false,
    })),
    { id: 'strip-5-6', name: 'Strips 5 and 6', wide: true, gainDb: [-20, 0, 20], usbReturn: false },
    { id: 'strip-7-8', name: 'Strips 7 and 8', wide: true, gainDb: [-20, 0, 20], usbReturn: false },
    { id: 'strip-9-10', name: 'Strips 9 and 10', wide: true, gainDb: [-20, 0, 20], usbReturn: true },
  ];
  return {
    id: 'mixer-usb-10',
    name: 'Mixer, digital, ten strips, USB',
    family: 'mixers',
    summary:
      'Three sends, delay on every strip; main and send 2 go to the computer over USB, and one USB return comes back to strips 9 and 10.',
    ports: [
      ...strips.map((s) =>
        s.wide
          ? input(s.id, s.name, 'jack-635-pair', 'line', stereo)
          : input(s.id, s.name, 'combo-xlr', 'microphone', mono),
      ),
      input('usb-return', 'USB return', 'usb-b', 'digital', stereo),
      ...strips.flatMap((s) => [
        point(`${s.id}-before`, `${s.name}, before the fader`, s.wide ? stereo : mono),
        point(`${s.id}-after`, `${s.name}, after the fader`, s.wide ? stereo : mono),
      ]),
      point('main', 'main bus', stereo),
      ...SENDS.map((n) => point(`send-${n}`, `send ${n} bus`, stereo)),
      output('main-out', 'main out', 'xlr-male-pair', 'line', stereo),
      output('send-1-out', 'send 1 out', 'jack-635-pair', 'line', stereo),
      output('send-3-out', 'send 3, headphones', 'jack-635-trs', 'headphone', stereo),
      output('usb-main', 'USB 1 and 2, main', 'usb-b', 'digital', stereo),
      output('usb-send-2', 'USB 3 and 4, send 2', 'usb-b', 'digital', stereo),
    ],
    settings: [
      ...strips.flatMap(stripSettings),
      levelSetting('main-level', 'Main level', 0),
      levelSetting('phones-level', 'Headphones level', -20, 0),
    ],
    figures: {
      inside: typicalMs('mixer, converters and processing', 0.5, 1, 2),
      'usb-out': typicalMs('mixer, USB to the computer', 3, 8, 15),
      'usb-in': typicalMs('mixer, USB from the computer', 3, 8, 15),
    },
    inside: [
      ...strips.flatMap(stripWays),
      ...both('main', 'main-out', gain('main-level'), toAnalogue([24, 24, 24]), noise(-90)),
      ...both('main', 'usb-main', gain('main-level'), ceiling(0), latency('usb-out')),
      ...both('send-1', 'send-1-out', toAnalogue([24, 24, 24]), noise(-90)),
      ...both('send-2', 'usb-send-2', ceiling(0), latency('usb-out')),
      ...both('send-3', 'send-3-out', gain('phones-level'), toAnalogue([12, 12, 12]), noise(-92)),
    ],
  };
}

function stripSettings(s: Strip): SettingSpec[] {
  const [min, preset, max] = s.gainDb;
  return [
    { id: `${s.id}-gain`, name: `${s.name}, gain`, kind: 'gain', min, max, step: 1, default: preset, offAtMin: false },
    delaySetting(`${s.id}-delay`, `${s.name}, delay`, 500),
    muteSetting(`${s.id}-mute`, `${s.name}, mute`, false),
    levelSetting(`${s.id}-fader`, `${s.name}, fader`, 0),
    ...SENDS.map((n) => levelSetting(`${s.id}-send-${n}`, `${s.name}, send ${n}`, OFF_DB)),
    ...(s.usbReturn
      ? [
          {
            id: `${s.id}-input`,
            name: `${s.name}, input`,
            kind: 'switch' as const,
            options: [
              { value: 'jacks', label: 'jacks' },
              { value: 'usb', label: 'USB return' },
            ],
            default: 'usb',
          },
        ]
      : []),
  ];
}

function stripWays(s: Strip): Way[] {
  const [before, after] = [`${s.id}-before`, `${s.id}-after`];
  const toSides = s.wide ? both : toBothSides;
  const pass = (from: string, to: string, ...stages: Way['stages']): Way[] =>
    s.wide ? both(from, to, ...stages) : [way(`${from}.mono`, `${to}.mono`, ...stages)];
  const strip = [delay(`${s.id}-delay`), unmuted(`${s.id}-mute`)];
  const preamp = [noise(-127), gain(`${s.id}-gain`), toDigital([24, 24, 24]), ceiling(0), latency('inside'), ownClock];
  return [
    ...pass(s.id, before, ...(s.usbReturn ? [when(`${s.id}-input`, 'jacks')] : []), ...preamp, ...strip),
    ...(s.usbReturn
      ? both('usb-return', before, when(`${s.id}-input`, 'usb'), latency('usb-in'), ownClock, ...strip)
      : []),
    ...pass(before, after, gain(`${s.id}-fader`)),
    ...toSides(after, 'main'),
    ...SENDS.flatMap((n) => toSides(`${s.id}-${sendPoint(n)}`, `send-${n}`, gain(`${s.id}-send-${n}`))),
  ];
}
