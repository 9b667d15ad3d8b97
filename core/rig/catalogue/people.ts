import type { DeviceType } from '../schema.ts';
import { input, mono, output, picture, stereo, way } from './parts.ts';

/** Voices are stated at 15 cm from the mouth. */
const MOUTH_M = 0.15;

export const people: DeviceType[] = [
  {
    id: 'person',
    name: 'Person',
    family: 'people',
    summary: 'Somebody who talks, is seen, and hears.',
    ports: [
      { ...output('voice', 'voice', 'air', 'air', mono), referenceM: MOUTH_M },
      output('face', 'face', 'light', 'light', picture),
      input('ears', 'ears', 'air', 'air', stereo),
      input('eyes', 'eyes', 'light', 'light', picture),
    ],
    settings: [],
    figures: {},
    inside: [],
  },
  {
    id: 'audience',
    name: 'Audience',
    family: 'people',
    summary: 'A room of people who listen and watch.',
    ports: [input('ears', 'ears', 'air', 'air', stereo), input('eyes', 'eyes', 'light', 'light', picture)],
    settings: [],
    figures: {},
    inside: [],
  },
  {
    id: 'headset-usb',
    name: 'Headset, USB',
    family: 'headphones',
    summary: 'Earphones and a boom microphone on one USB plug, with converters of its own.',
    ports: [
      input('usb-in', 'USB, sound to the ears', 'plug-usb-a', 'digital', stereo),
      { ...output('ears', 'earphones', 'air', 'air', stereo), referenceM: 0.01 },
      input('boom', 'boom microphone', 'air', 'air', mono),
      output('usb-out', 'USB, microphone', 'plug-usb-a', 'digital', mono),
    ],
    settings: [{ id: 'microphone-mute', name: 'Microphone mute', kind: 'mute', default: false }],
    figures: {
      earphones: {
        label: 'earphones and their converter',
        unit: 'ms',
        range: [3, 8, 15],
        kind: 'typical',
        source: 'typical of USB sound devices',
      },
      microphone: {
        label: 'boom microphone and its converter',
        unit: 'ms',
        range: [3, 8, 15],
        kind: 'typical',
        source: 'typical of USB sound devices',
      },
    },
    inside: [
      ...(['left', 'right'] as const).map((side) =>
        way(
          `usb-in.${side}`,
          `ears.${side}`,
          { do: 'latency', figure: 'earphones' },
          { do: 'convert', to: 'analogue', fullScaleDbu: [-3.8, 0, 2.2] },
          { do: 'radiate', splAt0Dbu: [98, 104, 110] },
        ),
      ),
      way(
        'boom.mono',
        'usb-out.mono',
        { do: 'door', setting: 'microphone-mute', openWhen: false },
        { do: 'hear', sensitivityDbvPerPa: [-48, -42, -36] },
        { do: 'noise', db: -112 },
        { do: 'convert', to: 'digital', fullScaleDbu: [-30, -24, -18] },
        { do: 'latency', figure: 'microphone' },
        { do: 'clock' },
      ),
    ],
  },
  {
    id: 'headphones',
    name: 'Headphones, wired',
    family: 'headphones',
    summary: 'Closed headphones on a 3.5 or 6.35 mm plug.',
    ports: [
      input('plug', 'plug', 'plug-635-trs', 'headphone', stereo),
      { ...output('ears', 'earphones', 'air', 'air', stereo), referenceM: 0.01 },
    ],
    settings: [],
    figures: {},
    inside: (['left', 'right'] as const).map((side) =>
      way(`plug.${side}`, `ears.${side}`, { do: 'radiate', splAt0Dbu: [98, 106, 114] }),
    ),
  },
];
