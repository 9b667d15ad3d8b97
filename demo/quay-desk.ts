import type { Rig } from '#core/model/rig/index.ts';
import { air, device, lead, must, ref, seen, software } from './parts.ts';

/**
 * Quay talk, afterwards at the desk: the host records the words between the interviews. One USB microphone, two ways of
 * bringing it in: straight into the laptop, or out of its own headphone jack through a mixer. The same devices have the
 * same ids in both, so that they can be laid side by side.
 */
const common: Omit<Rig, 'name' | 'notes' | 'devices' | 'cables'> = {
  schemaVersion: 3,
  session: { frameRate: { num: 30, den: 1 }, sampleRateHz: 48_000, toleranceId: 'ebu-r37', fullScaleDbu: 18, hours: 1 },
  types: [],
  sources: [
    {
      id: 'host',
      name: 'Host, voice',
      letter: 'H',
      hue: 2,
      sound: ref('host/voice'),
      picture: ref('host/face'),
      level: [74, 77, 80],
    },
  ],
  listeners: [
    { id: 'recording', name: 'Recording', sound: ref('recorder/track-1') },
    { id: 'host', name: 'Host’s ears', sound: ref('phones/ears') },
  ],
  plan: [...must('recording', 'host'), { sourceId: 'host', listenerId: 'host', want: 'may' }],
  measurements: [],
  tasks: [],
  dismissed: [],
  moments: [],
};

const LAPTOP = { on: 'laptop' };
const boxes = (microphone: Record<string, number | boolean>): Rig['devices'] => [
  device('host', 'person', 'Host'),
  device('laptop', 'computer-laptop', 'Laptop', seen({ supply: 'mains' })),
  device('microphone', 'microphone-usb', 'Desk microphone', seen({ mute: false, ...microphone })),
  device('phones', 'headphones', 'Host’s headphones'),
  device('recorder', 'recording-program', 'Recording app', seen({ 'track-1-off': false }), LAPTOP),
];
const spoken = air('air-host', 'host/voice', 'microphone/capsule', 0.15);
const plugged = lead('microphone-usb', 'microphone/usb', 'laptop/usb-2', 1.5);

export const quayDeskStraight: Rig = {
  ...common,
  name: 'Quay talk, at the desk: straight in',
  notes: 'The microphone’s own converter, and nothing between it and the laptop. Beside it: the same through a mixer.',
  devices: boxes({ gain: 36, direct: 0, volume: -12 }),
  cables: [
    spoken,
    plugged,
    software('microphone-track', 'laptop/from-usb-2', 'recorder/in-1', [
      ['left', 'left'],
      ['left', 'right'],
    ]),
    lead('phones-lead', 'microphone/jack', 'phones/plug', 1.2),
  ],
};

export const quayDeskMixer: Rig = {
  ...common,
  name: 'Quay talk, at the desk: through a mixer',
  notes:
    'Out of the microphone’s headphone jack into a mixer, for its tone controls: four more knobs, and a lead that closes a ring of earths. It still takes its current from the laptop.',
  devices: [
    ...boxes({ gain: 36, direct: 0, volume: -12 }).slice(0, 3),
    device(
      'mixer',
      'mixer-usb-10',
      'Mixer',
      seen({
        'strip-5-6-gain': 20,
        'strip-5-6-fader': 0,
        'strip-5-6-send-3': -6,
        'main-level': 6,
        'phones-level': -20,
      }),
    ),
    ...boxes({}).slice(3),
  ],
  cables: [
    spoken,
    lead('microphone-line', 'microphone/jack', 'mixer/strip-5-6', 1.5),
    plugged,
    lead('mixer-usb', 'mixer/usb-main', 'laptop/usb-1', 1.5),
    software('mixer-track', 'laptop/from-usb-1', 'recorder/in-1'),
    lead('phones-lead', 'mixer/send-3-out', 'phones/plug', 1.2),
  ],
};
