import type { Rig } from '#core/model/rig/index.ts';
import { air, device, lead, must, pairs, ref, seen, software } from './parts.ts';

const HALL = { on: 'laptop' };

/**
 * Moth night: a nature society's evening in a hall and over a call. The speaker walks to the light trap with a clip-on
 * microphone, two of the panel sit at table microphones, members at home ask questions and are to be heard in the hall.
 * As set up, the strip that should bring them listens to its empty jacks, and what would bring them is sent back to them.
 */
export const mothNight: Rig = {
  schemaVersion: 3,
  name: 'Moth night',
  notes: 'Talk, light trap, questions; two and a half hours. Leads to the loudspeakers are taped down along the wall.',
  session: {
    frameRate: { num: 25, den: 1 },
    sampleRateHz: 48_000,
    toleranceId: 'ebu-r37',
    fullScaleDbu: 18,
    hours: 2.5,
    twoWay: true,
    movesAbout: true,
    plainMoment: 'Talk',
  },
  types: [],
  devices: [
    device('audience', 'audience', 'Hall'),
    device('call', 'call', 'Call with the members', seen({ processing: 'off' }), HALL),
    device('chair', 'person', 'Chair'),
    device('guest', 'person', 'Guest on the panel'),
    device('laptop', 'computer-laptop', 'Laptop', seen({ 'picture-mode': '1920x1080-60' })),
    device('loudspeakers', 'loudspeakers-active', 'Hall loudspeakers', seen({ volume: -14 })),
    device('member', 'person', 'Members at home'),
    device('member-headset', 'headset-usb', 'A member’s headset', seen({ 'microphone-mute': false })),
    device('mixer', 'mixer-usb-10', 'Mixer', {
      ...seen({
        'strip-1-gain': 48,
        'strip-1-send-1': -6,
        'strip-1-send-2': 0,
        'strip-2-gain': 48,
        'strip-2-send-1': -6,
        'strip-2-send-2': 0,
        'strip-5-6-gain': 12,
        'strip-5-6-send-1': -4,
        'strip-5-6-send-2': 0,
        'strip-9-10-send-1': -6,
        'strip-9-10-send-2': -6,
        'strip-9-10-input': 'jacks',
        phantom: 'on',
      }),
    }),
    device('radio-base', 'radio-base', 'Radio receiver'),
    device('recorder', 'recorder-stereo', 'Recorder of the society'),
    device('speaker', 'person', 'Speaker', {}, { moves: true }),
    device('speaker-pack', 'radio-handheld', 'Speaker’s radio microphone', seen({ mute: false }), { moves: true }),
    device('table-1', 'microphone-condenser', 'Table microphone 1'),
    device('table-2', 'microphone-condenser', 'Table microphone 2'),
  ],
  cables: [
    air('air-chair', 'chair/voice', 'table-1/capsule', 0.25),
    air('air-guest', 'guest/voice', 'table-2/capsule', 0.25),
    air('air-hall', 'loudspeakers/front', 'audience/ears', 6),
    air('air-hall-table', 'loudspeakers/front', 'table-1/capsule', 5),
    air('air-member', 'member/voice', 'member-headset/boom', 0.03),
    air('air-speaker', 'speaker/voice', 'speaker-pack/capsule', 0.15),
    software('call-out', 'call/near-loudspeaker', 'laptop/to-usb-1'),
    software('call-in', 'laptop/from-usb-1', 'call/near-microphone', [
      ['ch-3', 'left'],
      ['ch-4', 'right'],
    ]),
    software('member-earphones', 'call/far-loudspeaker', 'member-headset/usb-in'),
    software('member-microphone', 'member-headset/usb-out', 'call/far-microphone'),
    lead('mixer-loudspeakers', 'mixer/send-1-out', 'loudspeakers/line', 8),
    lead('mixer-recorder', 'mixer/main-out', 'recorder/line', 1.5),
    lead('mixer-return', 'laptop/usb-1-out', 'mixer/usb-return', 1.5),
    lead('mixer-usb-main', 'mixer/usb-main', 'laptop/usb-1', 1.5),
    {
      ...lead('mixer-usb-send', 'mixer/usb-send-2', 'laptop/usb-1', 1.5),
      map: pairs([
        ['left', 'ch-3'],
        ['right', 'ch-4'],
      ]),
    },
    { ...lead('radio', 'speaker-pack/radio', 'radio-base/radio', 20), medium: 'radio' },
    lead('radio-line', 'radio-base/out', 'mixer/strip-5-6', 1),
    lead('table-1-xlr', 'table-1/xlr', 'mixer/strip-1', 5),
    lead('table-2-xlr', 'table-2/xlr', 'mixer/strip-2', 5),
  ],
  sources: [
    { id: 'speaker', name: 'Speaker', letter: 'S', hue: 2, sound: ref('speaker/voice'), level: [74, 80, 88] },
    { id: 'chair', name: 'Chair', letter: 'C', hue: 7, sound: ref('chair/voice'), level: [74, 77, 84] },
    { id: 'guest', name: 'Guest', letter: 'G', hue: 5, sound: ref('guest/voice'), level: [74, 77, 84] },
    { id: 'member', name: 'Members at home', letter: 'M', hue: 3, sound: ref('member/voice'), level: [74, 77, 80] },
  ],
  listeners: [
    { id: 'hall', name: 'Hall', sound: ref('audience/ears') },
    { id: 'member', name: 'Members’ ears', sound: ref('member-headset/ears') },
    { id: 'recorder', name: 'Recorder', sound: ref('recorder/file') },
  ],
  plan: [
    ...must('hall', 'speaker', 'chair', 'guest'),
    { sourceId: 'member', listenerId: 'hall', want: 'may' },
    ...must('member', 'speaker', 'chair', 'guest'),
    { sourceId: 'member', listenerId: 'member', want: 'must-not' },
    ...must('recorder', 'speaker', 'chair', 'guest'),
  ],
  measurements: [],
  tasks: [],
  dismissed: [],
  moments: [
    {
      id: 'questions',
      name: 'Questions from home',
      // The table microphones hear the speakers: they are shut while a member is heard in the hall.
      settings: [
        { deviceId: 'mixer', settingId: 'strip-1-mute', value: true },
        { deviceId: 'mixer', settingId: 'strip-2-mute', value: true },
      ],
      plan: [
        ...must('hall', 'member'),
        ...must('recorder', 'member'),
        ...['hall', 'member', 'recorder'].flatMap((listenerId) =>
          ['chair', 'guest'].map((sourceId) => ({ sourceId, listenerId, want: 'may' as const })),
        ),
      ],
    },
    {
      id: 'trap',
      name: 'At the light trap',
      settings: [
        { deviceId: 'mixer', settingId: 'strip-1-mute', value: true },
        { deviceId: 'mixer', settingId: 'strip-2-mute', value: true },
      ],
      plan: ['hall', 'member', 'recorder'].flatMap((listenerId) =>
        ['chair', 'guest'].map((sourceId) => ({ sourceId, listenerId, want: 'may' as const })),
      ),
    },
  ],
};
