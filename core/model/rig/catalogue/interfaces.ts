import type { DeviceType } from '#core/model/rig/schema-type.ts';
import {
  fromUsb,
  gain,
  gainSetting,
  input,
  latency,
  levelSetting,
  mono,
  needsUsb,
  noise,
  onOff,
  output,
  ownClock,
  rateSetting,
  soundNumbered,
  stereo,
  switchSetting,
  toAnalogue,
  toDigital,
  typicalMs,
  way,
} from './parts.ts';

const PHANTOM_MILLIAMPS = 10;

interface Interface {
  readonly id: string;
  readonly name: string;
  readonly inputs: number;
  readonly milliamps: number;
  readonly priceEur: [number, number];
  readonly power: DeviceType['power'];
}

/** A USB sound interface: preamps, converters, one pair out, headphones, and its inputs heard without delay. */
function soundInterface({ id, name, inputs, milliamps, priceEur, power }: Interface): DeviceType {
  const numbers = Array.from({ length: inputs }, (_, i) => i + 1);
  const channels = inputs === 1 ? mono : soundNumbered(inputs);
  const channel = (n: number) => channels[n - 1]!.id;
  const preamp = (n: number): DeviceType['inside'][number]['stages'] => [noise(-127), gain(`gain-${n}`)];
  return {
    id,
    name,
    family: 'interfaces',
    shows: { levels: 'on-it' },
    summary: 'Preamps and converters for the computer; its inputs can be heard in its headphones without the computer.',
    power: power ?? fromUsb(milliamps),
    priceEur,
    needs: ['a driver where the computer has none for it'],
    ports: [
      ...numbers.map((n) =>
        input(`in-${n}`, `Input ${n}`, 'combo-xlr', 'microphone', mono, {
          gives: { kind: 'phantom', milliamps: PHANTOM_MILLIAMPS, setting: 'phantom' },
        }),
      ),
      output('usb', 'USB, to the computer', 'usb-c', 'digital', channels, {
        socket: 'usb',
        ...(power ? {} : needsUsb(milliamps)),
      }),
      input('usb-in', 'USB, from the computer', 'usb-c', 'digital', stereo, { socket: 'usb' }),
      output('line-out', 'line out', 'jack-635-pair', 'line', stereo),
      output('phones', 'headphones', 'jack-635-trs', 'headphone', stereo),
    ],
    settings: [
      ...numbers.map((n) => gainSetting(`gain-${n}`, `Input ${n}, gain`, [0, 30, 60])),
      onOff('phantom', 'Phantom power', 'off'),
      rateSetting,
      levelSetting('direct', 'Direct monitoring', -90, 0),
      levelSetting('volume', 'Headphones level', -20, 0),
      switchSetting('sides', 'Direct monitoring: sides', { apart: 'one on each side', both: 'both sides' }, 'both'),
    ],
    figures: {
      record: typicalMs('audio interface, inwards', 3, 8, 15),
      play: typicalMs('audio interface, outwards', 3, 8, 15),
    },
    inside: [
      ...numbers.map((n) =>
        way(`in-${n}.mono`, `usb.${channel(n)}`, ...preamp(n), toDigital([10, 12, 16]), latency('record'), ownClock),
      ),
      ...numbers.flatMap((n) =>
        (['left', 'right'] as const).flatMap((side, s) => [
          way(
            `in-${n}.mono`,
            `phones.${side}`,
            { do: 'door', setting: 'sides', openWhen: 'both' },
            ...preamp(n),
            gain('direct'),
            gain('volume'),
          ),
          ...(n % 2 === 1 - s
            ? [
                way(
                  `in-${n}.mono`,
                  `phones.${side}`,
                  { do: 'door' as const, setting: 'sides', openWhen: 'apart' },
                  ...preamp(n),
                  gain('direct'),
                  gain('volume'),
                ),
              ]
            : []),
        ]),
      ),
      ...(['left', 'right'] as const).flatMap((side) => [
        way(`usb-in.${side}`, `line-out.${side}`, latency('play'), toAnalogue([10, 12, 16]), noise(-92)),
        way(`usb-in.${side}`, `phones.${side}`, latency('play'), toAnalogue([6, 9, 12]), noise(-95), gain('volume')),
      ]),
    ],
  };
}

export const interfaces: DeviceType[] = [
  soundInterface({
    id: 'interface-1',
    name: 'Audio interface, 1 input',
    inputs: 1,
    milliamps: 400,
    priceEur: [45, 110],
    power: undefined,
  }),
  soundInterface({
    id: 'interface-2',
    name: 'Audio interface, 2 inputs',
    inputs: 2,
    milliamps: 480,
    priceEur: [80, 220],
    power: undefined,
  }),
  soundInterface({
    id: 'interface-4',
    name: 'Audio interface, 4 inputs',
    inputs: 4,
    milliamps: 900,
    priceEur: [170, 350],
    power: undefined,
  }),
  soundInterface({
    id: 'interface-8',
    name: 'Audio interface, 8 inputs',
    inputs: 8,
    milliamps: 0,
    priceEur: [280, 700],
    power: { by: ['mains'] },
  }),
  soundInterface({
    id: 'interface-16',
    name: 'Audio interface, 16 inputs',
    inputs: 16,
    milliamps: 0,
    priceEur: [500, 1400],
    power: { by: ['mains'] },
  }),
];
