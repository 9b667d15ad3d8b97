import type { DeviceType } from '#core/model/rig/schema-type.ts';
import { input, mono, output, picture, stereo } from './parts.ts';

/** Voices are stated at 15 cm from the mouth. */
const MOUTH_M = 0.15;

export const people: DeviceType[] = [
  {
    id: 'person',
    name: 'Person',
    family: 'people',
    nature: 'person',
    summary: 'Somebody who talks, is seen, and hears.',
    ports: [
      output('voice', 'voice', 'air', 'air', mono, { referenceM: MOUTH_M, does: 'voice' }),
      output('face', 'face', 'light', 'light', picture),
      input('ears', 'ears', 'air', 'air', stereo, { does: 'ears' }),
      input('eyes', 'eyes', 'light', 'light', picture, { does: 'view' }),
    ],
    settings: [],
    figures: {},
    inside: [],
  },
  {
    id: 'audience',
    name: 'Audience',
    family: 'people',
    nature: 'person',
    summary: 'A room of people who listen and watch.',
    ports: [
      input('ears', 'ears', 'air', 'air', stereo, { does: 'room-ears' }),
      input('eyes', 'eyes', 'light', 'light', picture, { does: 'view' }),
    ],
    settings: [],
    figures: {},
    inside: [],
  },
];
