import type { DeviceType } from '#core/model/rig/schema-type.ts';
import {
  battery,
  both,
  ceiling,
  gain,
  gainSetting,
  hears,
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
  rateSetting,
  soundNumbered,
  stereo,
  switchSetting,
  toDigital,
  typicalMs,
  unmuted,
  way,
  when,
} from './parts.ts';

const EIGHT = [1, 2, 3, 4, 5, 6, 7, 8];

export const recorders: DeviceType[] = [
  {
    id: 'recorder-stereo',
    name: 'Recorder, two channels, line in',
    family: 'recorders',
    shows: { levels: 'on-it' },
    summary: 'Records two channels to a card, on a clock of its own.',
    power: mains,
    priceEur: [120, 350],
    ports: [
      input('line', 'line in', 'jack-635-pair', 'line', stereo),
      output('file', 'recording', 'file', 'digital', stereo),
    ],
    settings: [rateSetting],
    figures: { converter: typicalMs('recorder, converter', 0.5, 1, 2) },
    inside: both('line', 'file', noise(-92), ceiling(20), toDigital([18, 20, 24]), latency('converter'), ownClock),
  },
  {
    id: 'recorder-handheld',
    name: 'Recorder, in the hand, also a USB interface',
    family: 'recorders',
    shows: { levels: 'on-it' },
    summary:
      'Two microphones of its own, two XLR inputs. It records, or it is a audio interface of the computer: not both.',
    power: { ...battery(10), by: ['battery', 'usb'], milliamps: 450 },
    priceEur: [90, 300],
    exclusive: [
      {
        ports: ['file', 'usb'],
        severity: 'fix',
        says: 'While it is an interface of the computer it records nothing on its card.',
      },
    ],
    ports: [
      hears('own', 'own microphones', stereo),
      ...[1, 2].map((n) =>
        input(`in-${n}`, `Input ${n}`, 'combo-xlr', 'microphone', mono, {
          gives: { kind: 'phantom', milliamps: 10, setting: 'phantom' },
        }),
      ),
      output('file', 'recording', 'file', 'digital', soundNumbered(4)),
      output('usb', 'USB', 'usb-micro', 'digital', soundNumbered(4), { takes: { kind: 'usb', milliamps: 450 } }),
      output('line-out', 'line and headphones', 'jack-35-trs', 'headphone', stereo),
    ],
    settings: [
      gainSetting('own-gain', 'Own microphones, gain', [0, 30, 50]),
      gainSetting('gain-1', 'Input 1, gain', [0, 40, 60]),
      gainSetting('gain-2', 'Input 2, gain', [0, 40, 60]),
      lowCutButton('low-cut', 'Low cut'),
      muteSetting('own-mute', 'Own microphones off', false),
      onOff('phantom', 'Phantom power', 'off'),
      rateSetting,
      switchSetting('use', 'Used as', { record: 'recorder', interface: 'interface of the computer' }, 'record'),
      levelSetting('volume', 'Volume of the jack', -12, 0),
    ],
    figures: { converter: typicalMs('recorder, converter', 0.5, 1, 2), usb: typicalMs('recorder, USB', 3, 8, 15) },
    inside: handheldWays(),
  },
  {
    id: 'recorder-multitrack',
    name: 'Recorder, eight tracks',
    family: 'recorders',
    shows: { levels: 'on-it' },
    summary: 'Eight inputs, each on its own track, all on one clock.',
    power: mains,
    priceEur: [300, 900],
    ports: [
      ...EIGHT.map((n) =>
        input(`in-${n}`, `Input ${n}`, 'combo-xlr', 'microphone', mono, {
          gives: { kind: 'phantom', milliamps: 10, setting: 'phantom' },
        }),
      ),
      ...EIGHT.map((n) => output(`track-${n}`, `track ${n}`, 'file', 'digital', mono)),
    ],
    settings: [
      ...EIGHT.flatMap((n) => [
        gainSetting(`gain-${n}`, `Input ${n}, gain`, [0, 30, 60]),
        muteSetting(`mute-${n}`, `Track ${n}, mute`, false),
      ]),
      onOff('phantom', 'Phantom power', 'off'),
      rateSetting,
    ],
    figures: { converter: typicalMs('recorder, converter', 0.5, 1, 2) },
    inside: EIGHT.map((n) =>
      way(
        `in-${n}.mono`,
        `track-${n}.mono`,
        noise(-127),
        gain(`gain-${n}`),
        toDigital([18, 20, 24]),
        latency('converter'),
        ownClock,
        unmuted(`mute-${n}`),
      ),
    ),
  },
];

function handheldWays(): DeviceType['inside'] {
  const own: DeviceType['inside'][number]['stages'] = [
    unmuted('own-mute'),
    { do: 'hear', sensitivityDbvPerPa: [-42, -38, -34] },
    noise(-118),
    gain('own-gain'),
  ];
  const jack = (n: number): DeviceType['inside'][number]['stages'] => [noise(-122), gain(`gain-${n}`)];
  const convert: DeviceType['inside'][number]['stages'] = [toDigital([2, 4, 8]), latency('converter'), ownClock];
  const listen: DeviceType['inside'][number]['stages'] = [gain('volume'), noise(-95)];
  return [
    ...both('own', 'file', when('use', 'record'), ...own, ...convert),
    ...both('own', 'usb', when('use', 'interface'), ...own, ...convert, latency('usb')),
    ...both('own', 'line-out', ...own, ...listen),
    ...[1, 2].flatMap((n) => [
      way(`in-${n}.mono`, `file.ch-${n + 2}`, when('use', 'record'), ...jack(n), ...convert),
      way(`in-${n}.mono`, `usb.ch-${n + 2}`, when('use', 'interface'), ...jack(n), ...convert, latency('usb')),
      ...(['left', 'right'] as const).map((side) => way(`in-${n}.mono`, `line-out.${side}`, ...jack(n), ...listen)),
    ]),
  ];
}
