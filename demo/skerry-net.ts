import type { Rig } from '#core/model/rig/index.ts';
import { air, type Cable, device, lead, must, ref, seen, software } from './parts.ts';

const HERE = { on: 'log-computer' };
const radio = (id: string, from: string, to: string, lengthM: number): Cable => ({
  ...lead(id, from, to, lengthM),
  medium: 'radio',
});

/**
 * Skerry net: a sea rescue club's training station. Two radios share a desk microphone by a pedal; the left ear hears
 * radio A, the right ear radio B; a computer logs both and streams them to members. Its cables join earths in a ring.
 */
export const skerryNet: Rig = {
  schemaVersion: 3,
  name: 'Skerry net',
  notes: 'Training on two channels, three hours. Keyed by pedal; dummy loads while testing; licences hang by the door.',
  session: {
    frameRate: { num: 30, den: 1 },
    sampleRateHz: 48_000,
    toleranceId: 'ebu-r37',
    fullScaleDbu: 18,
    hours: 3,
    plainMoment: 'Receive',
  },
  types: [],
  devices: [
    device('boat-a', 'person', 'Boat on channel A'),
    device('boat-a-radio', 'two-way-handheld', 'Boat radio A', seen({ key: 'send' })),
    device('boat-b', 'person', 'Boat on channel B'),
    device('boat-b-radio', 'two-way-handheld', 'Boat radio B', seen({ key: 'send' })),
    device('capture-program', 'capture-program', 'Streaming software', {}, HERE),
    device('desk-microphone', 'microphone-dynamic', 'Desk microphone'),
    device('keying', 'keying-box', 'Pedal', seen({ key: 'none' })),
    device('log', 'recording-program', 'Log', {}, HERE),
    device('log-computer', 'computer-desktop', 'Log computer'),
    device(
      'log-interface',
      'interface-4',
      'Log interface',
      seen({ phantom: 'off', 'gain-1': 0, 'gain-2': 0, 'gain-3': 50, sides: 'apart', direct: 0, volume: -10 }),
    ),
    device('operator', 'person', 'Operator'),
    device('phones', 'headphones', 'Operator’s headphones'),
    device('radio-a', 'two-way-radio', 'Radio A', seen({ key: 'receive', 'voice-key': true })),
    device('radio-b', 'two-way-radio', 'Radio B', seen({ key: 'receive', 'voice-key': true })),
  ],
  cables: [
    air('air-boat-a-ears', 'boat-a-radio/front', 'boat-a/ears', 0.3),
    air('air-boat-b-ears', 'boat-b-radio/front', 'boat-b/ears', 0.3),
    air('air-boat-a', 'boat-a/voice', 'boat-a-radio/own', 0.1),
    air('air-boat-b', 'boat-b/voice', 'boat-b-radio/own', 0.1),
    air('air-operator', 'operator/voice', 'desk-microphone/capsule', 0.2),
    lead('interface-usb', 'log-interface/usb', 'log-computer/usb-1', 1.5),
    lead('keying-a', 'keying/radio-a', 'radio-a/microphone', 1),
    lead('keying-b', 'keying/radio-b', 'radio-b/microphone', 1),
    lead('keying-log', 'keying/through', 'log-interface/in-3', 2),
    lead('microphone-keying', 'desk-microphone/xlr', 'keying/microphone', 2),
    lead('phones-lead', 'log-interface/phones', 'phones/plug', 2),
    lead('radio-a-log', 'radio-a/line-out', 'log-interface/in-1', 1),
    lead('radio-b-log', 'radio-b/line-out', 'log-interface/in-2', 1),
    radio('sea-a-out', 'radio-a/air-out', 'boat-a-radio/air-in', 20),
    radio('sea-b-out', 'radio-b/air-out', 'boat-b-radio/air-in', 20),
    radio('sea-a', 'boat-a-radio/air-out', 'radio-a/air-in', 20),
    radio('sea-b', 'boat-b-radio/air-out', 'radio-b/air-in', 20),
    software('to-log-desk', 'log-computer/from-usb-1', 'log/in-2', [
      ['ch-3', 'left'],
      ['ch-3', 'right'],
    ]),
    software('to-log-radios', 'log-computer/from-usb-1', 'log/in-1'),
    software('to-stream', 'log-computer/from-usb-1', 'capture-program/in-1', [
      ['left', 'left'],
      ['left', 'right'],
      ['right', 'left'],
      ['right', 'right'],
      ['ch-3', 'left'],
      ['ch-3', 'right'],
    ]),
  ],
  sources: [
    { id: 'boat-a', name: 'Channel A', letter: 'A', hue: 1, sound: ref('boat-a/voice'), level: [74, 80, 88] },
    { id: 'boat-b', name: 'Channel B', letter: 'B', hue: 2, sound: ref('boat-b/voice'), level: [74, 80, 88] },
    { id: 'operator', name: 'Operator', letter: 'O', hue: 3, sound: ref('operator/voice'), level: [74, 77, 80] },
  ],
  listeners: [
    { id: 'operator', name: 'Operator’s ears', sound: ref('phones/ears') },
    { id: 'log-radios', name: 'Log, radios', sound: ref('log/track-1') },
    { id: 'log-desk', name: 'Log, desk', sound: ref('log/track-2') },
    { id: 'stream', name: 'Members’ stream', sound: ref('capture-program/stream') },
    { id: 'boat-a', name: 'Boat A', sound: ref('boat-a/ears') },
    { id: 'boat-b', name: 'Boat B', sound: ref('boat-b/ears') },
  ],
  plan: [
    ...must('operator', 'boat-a', 'boat-b'),
    ...must('log-radios', 'boat-a', 'boat-b'),
    ...must('log-desk', 'operator'),
    ...must('stream', 'boat-a', 'boat-b', 'operator'),
    { sourceId: 'operator', listenerId: 'boat-a', want: 'must-not' },
    { sourceId: 'operator', listenerId: 'boat-b', want: 'must-not' },
  ],
  measurements: [],
  tasks: [],
  dismissed: [],
  moments: [sending('a', 'Send A'), sending('b', 'Send B')],
};

/** The pedal is down on one channel: its radio sends, the boat there listens, and no one waits to hear that boat. */
function sending(channel: 'a' | 'b', name: string): Rig['moments'][number] {
  const boat = `boat-${channel}`;
  return {
    id: `send-${channel}`,
    name,
    settings: [
      { deviceId: 'keying', settingId: 'key', value: channel },
      { deviceId: `radio-${channel}`, settingId: 'key', value: 'send' },
      { deviceId: `${boat}-radio`, settingId: 'key', value: 'receive' },
    ],
    plan: [
      ...['operator', 'log-radios', 'stream'].map((listenerId) => ({
        sourceId: boat,
        listenerId,
        want: 'may' as const,
      })),
      { sourceId: 'operator', listenerId: boat, want: 'must' },
    ],
  };
}
