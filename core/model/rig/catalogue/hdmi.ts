import type { DeviceType, PortSpec, Way } from '#core/model/rig/schema-type.ts';
import {
  both,
  input,
  latency,
  mains,
  noise,
  output,
  pictureAndStereo,
  stereo,
  straight,
  switchSetting,
  toAnalogue,
  typicalMs,
  unpowered,
  way,
  when,
} from './parts.ts';

type PictureEnd = NonNullable<PortSpec['picture']>;
const FROM_5_V: DeviceType['power'] = { by: ['hdmi'], milliamps: 55 };

const hdmiIn = (id: string, name: string, picture: PictureEnd): PortSpec =>
  input(id, name, 'hdmi', 'digital', pictureAndStereo, { picture });
const hdmiOut = (id: string, name: string, picture: PictureEnd): PortSpec =>
  output(id, name, 'hdmi', 'digital', pictureAndStereo, { picture });
const across = (from: string, to: string, ...stages: Way['stages']): Way[] =>
  straight(from, to, pictureAndStereo, ...stages);

/** One picture to two outputs. */
function splitter(
  id: string,
  name: string,
  summary: string,
  picture: PictureEnd,
  more: Pick<DeviceType, 'power' | 'priceEur'>,
): DeviceType {
  return {
    id,
    name,
    family: 'hdmi',
    summary,
    ...more,
    ports: [
      hdmiIn('in', 'HDMI in', picture),
      hdmiOut('out-1', 'HDMI out 1', picture),
      hdmiOut('out-2', 'HDMI out 2', picture),
    ],
    settings: [],
    figures: { through: typicalMs('through the splitter', 0, 0, 1) },
    inside: ['out-1', 'out-2'].flatMap((out) => across('in', out, latency('through'))),
  };
}

/** One of several pictures to one output, with its sound at a jack and an optical socket where it takes it out. */
function switchOf(inputs: number, extracts: boolean): DeviceType {
  const all = Array.from({ length: inputs }, (_, i) => String.fromCharCode(97 + i));
  const words = ['', '', 'two', 'three', 'four'][inputs]!;
  return {
    id: `hdmi-switch-${inputs}${extracts ? '-extractor' : ''}`,
    name: `HDMI switch, ${words} in, one out${extracts ? ', with extractor' : ''}`,
    family: 'hdmi',
    summary: `Passes one of ${words} inputs on${extracts ? ', and takes its sound out at a jack and an optical socket' : ''}.`,
    power: mains,
    priceEur: extracts ? [30, 90] : [15, 60],
    ports: [
      ...all.map((i) => hdmiIn(`in-${i}`, `HDMI in ${i.toUpperCase()}`, { link: 'tmds-600', protection: '2.2' })),
      hdmiOut('out', 'HDMI out', { link: 'tmds-600', protection: '2.2' }),
      ...(extracts
        ? [
            output('line-out', 'line out', 'jack-35-trs', 'line' as const, stereo),
            output('optical-out', 'optical out', 'toslink', 'digital' as const, stereo),
          ]
        : []),
    ],
    settings: [
      switchSetting('input', 'Input', Object.fromEntries(all.map((i) => [i, `input ${i.toUpperCase()}`])), 'a'),
    ],
    figures: { through: typicalMs('through the switch', 0, 0, 1) },
    inside: all.flatMap((i) => [
      ...across(`in-${i}`, 'out', when('input', i), latency('through')),
      ...(extracts
        ? [
            ...both(`in-${i}`, 'line-out', when('input', i), latency('through'), toAnalogue([2, 6, 8]), noise(-85)),
            ...both(`in-${i}`, 'optical-out', when('input', i), latency('through')),
          ]
        : []),
    ]),
  };
}

const OUTPUTS = ['out-1', 'out-2'];
const INPUTS = { a: 'input A', b: 'input B' };

export const hdmi: DeviceType[] = [
  splitter(
    'hdmi-splitter',
    'HDMI splitter, one in, two out',
    'Gives one video with its audio to two outputs. Fed from the 5 V of HDMI, and of the slower kind.',
    { link: 'tmds-340', protection: '1.4' },
    { power: FROM_5_V, priceEur: [12, 30] },
  ),
  splitter(
    'hdmi-splitter-powered',
    'HDMI splitter with its own supply',
    'Gives one video with its audio to two outputs, up to 18 Gbit/s.',
    { link: 'tmds-600', protection: '2.2' },
    { power: mains, priceEur: [30, 90] },
  ),
  splitter(
    'hdmi-y-lead',
    'HDMI Y cable, passive',
    'Only joins wires. It does not split: two displays cannot both answer the source.',
    {},
    { power: unpowered, priceEur: [6, 15] },
  ),
  {
    id: 'hdmi-switch',
    name: 'HDMI switch, two in, one out',
    family: 'hdmi',
    summary: 'Passes one of two inputs on.',
    power: FROM_5_V,
    priceEur: [12, 40],
    ports: [
      ...['a', 'b'].map((i) => hdmiIn(`in-${i}`, `HDMI in ${i.toUpperCase()}`, { link: 'tmds-600' })),
      hdmiOut('out', 'HDMI out', { link: 'tmds-600' }),
    ],
    settings: [switchSetting('input', 'Input', INPUTS, 'a')],
    figures: { through: typicalMs('through the switch', 0, 0, 1) },
    inside: ['a', 'b'].flatMap((i) => across(`in-${i}`, 'out', when('input', i), latency('through'))),
  },
  {
    id: 'hdmi-switch-splitter',
    name: 'HDMI splitter with two inputs to choose from',
    family: 'hdmi',
    summary: 'Gives the chosen input to two outputs.',
    power: mains,
    priceEur: [25, 70],
    ports: [
      ...['a', 'b'].map((i) =>
        hdmiIn(`in-${i}`, `HDMI in ${i.toUpperCase()}`, { link: 'tmds-600', protection: '2.2' }),
      ),
      ...OUTPUTS.map((o, i) => hdmiOut(o, `HDMI out ${i + 1}`, { link: 'tmds-600', protection: '2.2' })),
    ],
    settings: [switchSetting('input', 'Input', INPUTS, 'a')],
    figures: { through: typicalMs('through the splitter', 0, 0, 1) },
    inside: ['a', 'b'].flatMap((i) =>
      OUTPUTS.flatMap((o) => across(`in-${i}`, o, when('input', i), latency('through'))),
    ),
  },
  {
    id: 'hdmi-matrix',
    name: 'HDMI matrix, two in, two out',
    family: 'hdmi',
    summary: 'Each output takes the input that is chosen for it.',
    power: mains,
    priceEur: [50, 160],
    ports: [
      ...['a', 'b'].map((i) =>
        hdmiIn(`in-${i}`, `HDMI in ${i.toUpperCase()}`, { link: 'tmds-600', protection: '2.2' }),
      ),
      ...OUTPUTS.map((o, i) => hdmiOut(o, `HDMI out ${i + 1}`, { link: 'tmds-600', protection: '2.2' })),
    ],
    settings: OUTPUTS.map((o, i) => switchSetting(`${o}-input`, `Input of output ${i + 1}`, INPUTS, 'a')),
    figures: { through: typicalMs('through the matrix', 0, 0, 1) },
    inside: ['a', 'b'].flatMap((i) =>
      OUTPUTS.flatMap((o) => across(`in-${i}`, o, when(`${o}-input`, i), latency('through'))),
    ),
  },
  {
    id: 'hdmi-extractor',
    name: 'HDMI audio extractor',
    family: 'hdmi',
    summary: 'Passes the video on and gives the two-channel audio to a line output.',
    power: { by: ['usb'], milliamps: 300 },
    priceEur: [18, 60],
    needs: ['two-channel PCM from what feeds it'],
    ports: [
      hdmiIn('in', 'HDMI in', { link: 'tmds-600', protection: '2.2', stereoPcmOnly: true }),
      hdmiOut('out', 'HDMI out', { link: 'tmds-600', protection: '2.2' }),
      output('line', 'line out', 'jack-35-trs', 'line', stereo),
    ],
    settings: [],
    figures: { through: typicalMs('through the extractor', 0, 0, 1) },
    inside: [
      way('in.picture', 'out.picture', latency('through')),
      ...both('in', 'out', latency('through')),
      ...both('in', 'line', latency('through'), toAnalogue([8.2, 8.2, 8.2]), noise(-82)),
    ],
  },
  {
    id: 'video-scaler',
    name: 'Video scaler',
    family: 'hdmi',
    summary: 'Gives a video in a size and rate that displays and capture cards take; later by a frame or two.',
    power: { by: ['usb'], milliamps: 500 },
    priceEur: [20, 350],
    ports: [
      hdmiIn('in', 'HDMI in', { link: 'tmds-600', protection: '1.4' }),
      hdmiOut('out', 'HDMI out', { link: 'tmds-600', protection: '1.4' }),
    ],
    settings: [],
    figures: { through: typicalMs('through the scaler', 0, 17, 50) },
    inside: across('in', 'out', latency('through')),
  },
  switchOf(2, true),
  switchOf(3, false),
  switchOf(3, true),
  switchOf(4, false),
  switchOf(4, true),
];
