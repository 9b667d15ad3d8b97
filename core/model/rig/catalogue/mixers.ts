import type { DeviceType, SettingSpec, Way } from '#core/model/rig/schema-type.ts';
import {
  both,
  ceiling,
  delay,
  delaySetting,
  earthedMains,
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
  OFF_DB,
  onOff,
  output,
  ownClock,
  point,
  rateSetting,
  sendSetting,
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

const LINE_MIX = toAnalogue([18, 20, 24]);
const SENDS = [1, 2, 3];
/** Sends 1 and 3 are taken before the fader (they feed ears), send 2 after it (it feeds the call). */
const sendPoint = (n: number) => (n === 2 ? 'after' : 'before');

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
      name: `Channel ${n}`,
      wide: false,
      gainDb: [0, 40, 60] as [number, number, number],
      usbReturn: false,
    })),
    { id: 'strip-5-6', name: 'Channels 5 and 6', wide: true, gainDb: [-20, 0, 20], usbReturn: false },
    { id: 'strip-7-8', name: 'Channels 7 and 8', wide: true, gainDb: [-20, 0, 20], usbReturn: false },
    { id: 'strip-9-10', name: 'Channels 9 and 10', wide: true, gainDb: [-20, 0, 20], usbReturn: true },
  ];
  return {
    id: 'mixer-usb-10',
    name: 'Mixer, digital, ten channels, USB',
    family: 'mixers',
    shows: { levels: 'on-it' },
    power: earthedMains,
    priceEur: [350, 700],
    needs: ['a driver where the computer has none for it'],
    summary:
      'Three sends, delay on every channel; main and send 2 go to the computer over USB, and one USB return comes back to channels 9 and 10.',
    ports: [
      ...strips.map((s) =>
        s.wide
          ? input(s.id, s.name, 'jack-635-pair', 'line', stereo)
          : input(s.id, s.name, 'combo-xlr', 'microphone', mono, {
              gives: { kind: 'phantom', milliamps: 10, setting: 'phantom' },
            }),
      ),
      input('usb-return', 'USB return', 'usb-b', 'digital', stereo, { socket: 'usb' }),
      ...strips.flatMap((s) => [
        point(`${s.id}-before`, `${s.name}, pre-fader`, s.wide ? stereo : mono),
        point(`${s.id}-after`, `${s.name}, post-fader`, s.wide ? stereo : mono),
      ]),
      point('main', 'main bus', stereo),
      ...SENDS.map((n) => point(`send-${n}`, `send ${n} bus`, stereo)),
      output('main-out', 'main out', 'xlr-male-pair', 'line', stereo),
      output('send-1-out', 'send 1 out', 'jack-635-pair', 'line', stereo),
      output('send-3-out', 'send 3, headphones', 'jack-635-trs', 'headphone', stereo),
      output('usb-main', 'USB 1 and 2, main', 'usb-b', 'digital', stereo, { socket: 'usb' }),
      output('usb-send-2', 'USB 3 and 4, send 2', 'usb-b', 'digital', stereo, { socket: 'usb' }),
    ],
    settings: [
      ...strips.flatMap(stripSettings),
      onOff('phantom', 'Phantom power, channels 1 to 4', 'off'),
      rateSetting,
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
  return grouped(s.name, [
    { id: `${s.id}-gain`, name: `${s.name}, gain`, kind: 'gain', min, max, step: 1, default: preset, offAtMin: false },
    delaySetting(`${s.id}-delay`, `${s.name}, delay`, 500),
    muteSetting(`${s.id}-mute`, `${s.name}, mute`, false),
    ...(s.wide ? [] : [lowCutButton(`${s.id}-low-cut`, `${s.name}`)]),
    faderSetting(`${s.id}-fader`, `${s.name}, fader`),
    ...SENDS.map((n) => sendSetting(`${s.id}-send-${n}`, `${s.name}, send ${n}`)),
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
  ]);
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

/** A small analog mixer: two microphone strips, two stereo ones, one send, no converters. */
function analogue(): DeviceType {
  const strips = [1, 2].map((n) => ({ id: `strip-${n}`, name: `Channel ${n}` }));
  const wide = ['3-4', '5-6'].map((n) => ({ id: `strip-${n}`, name: `Channels ${n.replace('-', ' and ')}` }));
  return {
    id: 'mixer-analogue',
    name: 'Mixer, analog, six channels',
    family: 'mixers',
    shows: { levels: 'on-it' },
    summary: 'Two microphones, two stereo lines, one send after the faders; no delay of its own.',
    power: mains,
    priceEur: [60, 200],
    ports: [
      ...strips.map((s) =>
        input(s.id, s.name, 'combo-xlr', 'microphone', mono, {
          gives: { kind: 'phantom', milliamps: 10, setting: 'phantom' },
        }),
      ),
      ...strips.map((s) => output(`${s.id}-insert`, `${s.name}, insert`, 'jack-635-insert', 'line', mono)),
      ...wide.map((s) => input(s.id, s.name, 'jack-635-pair', 'line', stereo)),
      { ...point('main', 'main bus', stereo), level: 'line' },
      output('main-out', 'main out', 'xlr-male-pair', 'line', stereo),
      output('send-out', 'send out', 'jack-635-trs', 'line', mono),
      output('phones', 'headphones', 'jack-635-trs', 'headphone', stereo),
      output('tape-out', 'recording out', 'phono-pair', 'line', stereo),
    ],
    settings: [
      ...strips.flatMap((s) =>
        grouped(s.name, [
          gainSetting(`${s.id}-gain`, `${s.name}, gain`, [0, 30, 60]),
          faderSetting(`${s.id}-fader`, `${s.name}, fader`),
          sendSetting(`${s.id}-send`, `${s.name}, send`),
        ]),
      ),
      ...wide.flatMap((s) =>
        grouped(s.name, [
          faderSetting(`${s.id}-fader`, `${s.name}, fader`),
          sendSetting(`${s.id}-send`, `${s.name}, send`),
        ]),
      ),
      onOff('phantom', 'Phantom power', 'off'),
      levelSetting('main-level', 'Main level', 0),
      levelSetting('phones-level', 'Headphones level', -20, 0),
    ],
    figures: {},
    inside: [
      ...strips.flatMap((s) => [
        way(`${s.id}.mono`, `${s.id}-insert.mono`, noise(-127), gain(`${s.id}-gain`)),
        ...toBothSides(s.id, 'main', noise(-127), gain(`${s.id}-gain`), ceiling(20), gain(`${s.id}-fader`)),
        way(
          `${s.id}.mono`,
          'send-out.mono',
          noise(-127),
          gain(`${s.id}-gain`),
          gain(`${s.id}-fader`),
          gain(`${s.id}-send`),
        ),
      ]),
      ...wide.flatMap((s) => [
        ...both(s.id, 'main', noise(-95), gain(`${s.id}-fader`)),
        ...(['left', 'right'] as const).map((side) =>
          way(`${s.id}.${side}`, 'send-out.mono', noise(-95), gain(`${s.id}-fader`), gain(`${s.id}-send`), {
            do: 'fixed-gain',
            db: -3,
          }),
        ),
      ]),
      ...both('main', 'main-out', gain('main-level'), ceiling(20), noise(-88)),
      ...both('main', 'phones', gain('phones-level'), ceiling(12), noise(-90)),
      ...both('main', 'tape-out', { do: 'fixed-gain', db: -12 }, noise(-95)),
    ],
  };
}

/** A desk mixer whose USB takes the main mix or the send, and comes back on the last strips when a switch says so. */
function usbMixer(): DeviceType {
  const strips = [1, 2].map((n) => ({ id: `strip-${n}`, name: `Channel ${n}` }));
  return {
    id: 'mixer-usb-send',
    name: 'Mixer, analog with USB, send to USB and inserts',
    family: 'mixers',
    shows: { levels: 'on-it' },
    summary:
      'What USB records is chosen by a switch, main or send; its USB return comes up on channels 5 and 6 when the switch says so.',
    power: mains,
    priceEur: [100, 260],
    ports: [
      ...strips.map((s) =>
        input(s.id, s.name, 'combo-xlr', 'microphone', mono, {
          gives: { kind: 'phantom', milliamps: 10, setting: 'phantom' },
        }),
      ),
      ...strips.map((s) => output(`${s.id}-insert`, `${s.name}, insert`, 'jack-635-insert', 'line', mono)),
      input('strip-3-4', 'Channels 3 and 4', 'jack-635-pair', 'line', stereo),
      input('strip-5-6', 'Channels 5 and 6', 'jack-635-pair', 'line', stereo),
      input('usb-return', 'USB return', 'usb-b', 'digital', stereo, { socket: 'usb' }),
      { ...point('last', 'channels 5 and 6, chosen', stereo), level: 'line' },
      { ...point('main', 'main bus', stereo), level: 'line' },
      { ...point('send', 'send bus', stereo), level: 'line' },
      output('main-out', 'main out', 'xlr-male-pair', 'line', stereo),
      output('send-out', 'send out', 'jack-635-pair', 'line', stereo),
      output('phones', 'headphones', 'jack-635-trs', 'headphone', stereo),
      output('usb', 'USB', 'usb-b', 'digital', stereo, { socket: 'usb' }),
    ],
    settings: [
      ...strips.flatMap((s) =>
        grouped(s.name, [
          gainSetting(`${s.id}-gain`, `${s.name}, gain`, [0, 30, 60]),
          faderSetting(`${s.id}-fader`, `${s.name}, fader`),
          sendSetting(`${s.id}-send`, `${s.name}, send`),
        ]),
      ),
      ...grouped('Channels 3 and 4', [
        faderSetting('strip-3-4-fader', 'Channels 3 and 4, fader'),
        sendSetting('strip-3-4-send', 'Channels 3 and 4, send'),
      ]),
      ...grouped('Channels 5 and 6', [
        faderSetting('strip-5-6-fader', 'Channels 5 and 6, fader'),
        sendSetting('strip-5-6-send', 'Channels 5 and 6, send'),
        switchSetting('strip-5-6-input', 'Channels 5 and 6, input', { jacks: 'jacks', usb: 'USB return' }, 'jacks'),
      ]),
      switchSetting('usb-source', 'USB records', { main: 'main', send: 'send' }, 'main'),
      onOff('phantom', 'Phantom power', 'off'),
      levelSetting('main-level', 'Main level', 0),
      levelSetting('phones-level', 'Headphones level', -20, 0),
    ],
    figures: {
      record: typicalMs('mixer, USB to the computer', 3, 8, 15),
      play: typicalMs('mixer, USB from the computer', 3, 8, 15),
    },
    inside: [
      ...strips.flatMap((s) => [
        way(`${s.id}.mono`, `${s.id}-insert.mono`, noise(-127), gain(`${s.id}-gain`)),
        ...toBothSides(s.id, 'main', noise(-127), gain(`${s.id}-gain`), ceiling(20), gain(`${s.id}-fader`)),
        ...toBothSides(s.id, 'send', noise(-127), gain(`${s.id}-gain`), ceiling(20), gain(`${s.id}-send`)),
      ]),
      ...both('strip-5-6', 'last', when('strip-5-6-input', 'jacks'), noise(-95)),
      ...both('usb-return', 'last', when('strip-5-6-input', 'usb'), latency('play'), LINE_MIX, noise(-90)),
      ...both('strip-3-4', 'main', noise(-95), gain('strip-3-4-fader')),
      ...both('strip-3-4', 'send', noise(-95), gain('strip-3-4-send')),
      ...both('last', 'main', gain('strip-5-6-fader')),
      ...both('last', 'send', gain('strip-5-6-send')),
      ...both('main', 'main-out', gain('main-level'), ceiling(20), noise(-88)),
      ...both('main', 'phones', gain('phones-level'), ceiling(12), noise(-90)),
      ...both('send', 'send-out', noise(-90)),
      ...both(
        'main',
        'usb',
        when('usb-source', 'main'),
        gain('main-level'),
        toDigital([18, 20, 24]),
        latency('record'),
        ownClock,
      ),
      ...both('send', 'usb', when('usb-source', 'send'), toDigital([18, 20, 24]), latency('record'), ownClock),
    ],
  };
}

/** Every input to every output by a level of its own: a matrix used as a router. */
function matrixMixer(): DeviceType {
  const ins = [1, 2, 3, 4, 5, 6, 7, 8];
  const outs = [1, 2, 3, 4];
  return {
    id: 'mixer-matrix',
    name: 'Matrix mixer, digital, eight in, four out',
    family: 'mixers',
    shows: { levels: 'on-it' },
    summary: 'Each output has its own mix of all inputs: guest returns come by themselves when one send is left down.',
    power: earthedMains,
    priceEur: [250, 900],
    ports: [
      ...ins.map((n) =>
        input(
          `in-${n}`,
          `Input ${n}`,
          'combo-xlr',
          n <= 4 ? 'microphone' : 'line',
          mono,
          n <= 4 ? { gives: { kind: 'phantom', milliamps: 10, setting: 'phantom' } } : {},
        ),
      ),
      ...ins.map((n) => point(`in-${n}-after`, `input ${n}, after its settings`, mono)),
      ...outs.map((n) => output(`out-${n}`, `Output ${n}`, 'xlr-male', 'line', mono)),
    ],
    settings: [
      ...ins.flatMap((n) =>
        grouped(`Input ${n}`, [
          gainSetting(`in-${n}-gain`, `Input ${n}, gain`, n <= 4 ? [0, 40, 60] : [-20, 0, 20]),
          delaySetting(`in-${n}-delay`, `Input ${n}, delay`, 500),
          muteSetting(`in-${n}-mute`, `Input ${n}, mute`, false),
          ...outs.map((o) => levelSetting(`in-${n}-to-${o}`, `Input ${n} to output ${o}`, OFF_DB)),
        ]),
      ),
      onOff('phantom', 'Phantom power, inputs 1 to 4', 'off'),
    ],
    figures: { inside: typicalMs('matrix, converters and processing', 0.5, 1, 2) },
    inside: [
      ...ins.map((n) =>
        way(
          `in-${n}.mono`,
          `in-${n}-after.mono`,
          noise(n <= 4 ? -127 : -100),
          gain(`in-${n}-gain`),
          toDigital([20, 22, 24]),
          latency('inside'),
          ownClock,
          delay(`in-${n}-delay`),
          unmuted(`in-${n}-mute`),
        ),
      ),
      ...ins.flatMap((n) =>
        outs.map((o) =>
          way(`in-${n}-after.mono`, `out-${o}.mono`, gain(`in-${n}-to-${o}`), toAnalogue([20, 22, 24]), noise(-90)),
        ),
      ),
    ],
  };
}

/** A device with resistors and a knob for each: everything but the guest, made by hand. */
function guestReturn(): DeviceType {
  const ins = [1, 2, 3];
  return {
    id: 'guest-return',
    name: 'Guest return, self-made',
    family: 'mixers',
    shows: { levels: 'on-it' },
    summary:
      'Sums up to three lines through resistors of 1 kohm each into one line that the guest hears. The guest’s own line is left out.',
    power: unpowered,
    priceEur: [8, 25],
    ports: [
      ...ins.map((n) => input(`in-${n}`, `Line ${n}`, 'jack-35-trs', 'line', stereo)),
      output('out', 'to the guest', 'jack-35-trs', 'line', stereo),
    ],
    settings: ins.map((n) => levelSetting(`level-${n}`, `Line ${n}, level`, -10, -6)),
    figures: {},
    inside: ins.flatMap((n) => both(`in-${n}`, 'out', gain(`level-${n}`), noise(-118))),
  };
}

export const mixers: DeviceType[] = [mixer(), analogue(), usbMixer(), matrixMixer(), guestReturn()];
