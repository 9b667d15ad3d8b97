import type { Rig } from '#core/model/rig/index.ts';
import { air, device, lead, light, must, ref, seen, software } from './parts.ts';

const SHED = { on: 'laptop' };

/**
 * Clay hour: a pottery class over a call from a shed. The teacher walks between wheel and kiln; music from a phone has to
 * stay behind the voice; pupils ask questions. As set up, the mixer sends its main mix to the call, and the call's own
 * return is in that mix: the pupils hear themselves.
 */
export const clayHour: Rig = {
  schemaVersion: 3,
  name: 'Clay hour',
  notes: 'An hour of pottery over a call from the shed. Music stays quiet; it is only loud while everybody works.',
  session: {
    frameRate: { num: 30, den: 1 },
    sampleRateHz: 48_000,
    toleranceId: 'ebu-r37',
    fullScaleDbu: 18,
    hours: 1,
    twoWay: true,
    movesAbout: true,
    plainMoment: 'Teaching',
  },
  types: [],
  devices: [
    device('call', 'call', 'Call with the pupils', seen({ processing: 'off' }), SHED),
    device('headphones', 'headphones', 'Teacher’s headphones', {}, { moves: true }),
    device('laptop', 'computer-laptop', 'Laptop', seen({ 'picture-mode': '1920x1080-60' })),
    device('mixer', 'mixer-usb-send', 'Mixer', {
      ...seen({
        'strip-1-gain': 22,
        'strip-3-4-fader': -5,
        'strip-5-6-input': 'usb',
        'strip-5-6-fader': -6,
        'usb-source': 'main',
        'phones-level': -16,
        phantom: 'off',
      }),
    }),
    device('phone', 'phone', 'Phone with the music'),
    device('pupil', 'person', 'Pupils'),
    device('pupil-headset', 'headset-usb', 'A pupil’s headset', seen({ 'microphone-mute': false })),
    device('radio-base', 'radio-base', 'Radio receiver'),
    device('radio-pack', 'radio-handheld', 'Teacher’s radio microphone', seen({ mute: false }), { moves: true }),
    device('recording', 'recording-program', 'Recording of the hour', {}, SHED),
    device('teacher', 'person', 'Teacher', {}, { moves: true }),
    device('webcam', 'webcam', 'Webcam over the wheel', seen({ 'microphone-mute': true })),
  ],
  cables: [
    air('air-pupil', 'pupil/voice', 'pupil-headset/boom', 0.03),
    air('air-teacher', 'teacher/voice', 'radio-pack/capsule', 0.1),
    software('call-out', 'call/near-loudspeaker', 'laptop/to-usb-1'),
    light('light-teacher', 'teacher/face', 'webcam/lens', 1.2),
    lead('mixer-phones', 'mixer/phones', 'headphones/plug', 5),
    lead('mixer-usb', 'mixer/usb', 'laptop/usb-1', 1.5),
    lead('mixer-usb-return', 'laptop/usb-1-out', 'mixer/usb-return', 1.5),
    lead('music', 'phone/jack', 'mixer/strip-3-4', 1.5),
    software('pupil-earphones', 'call/far-loudspeaker', 'pupil-headset/usb-in'),
    software('pupil-microphone', 'pupil-headset/usb-out', 'call/far-microphone'),
    { ...lead('radio', 'radio-pack/radio', 'radio-base/radio', 6), medium: 'radio' },
    lead('radio-line', 'radio-base/out', 'mixer/strip-1', 1),
    software('to-call', 'laptop/from-usb-1', 'call/near-microphone'),
    software('to-recording', 'laptop/from-usb-1', 'recording/in-1'),
    software('webcam-call', 'laptop/from-usb-2', 'call/near-camera'),
    lead('webcam-usb', 'webcam/usb', 'laptop/usb-2', 1.5),
  ],
  sources: [
    {
      id: 'teacher',
      name: 'Teacher, voice',
      letter: 'T',
      hue: 2,
      sound: ref('teacher/voice'),
      picture: ref('teacher/face'),
      level: [74, 77, 84],
    },
    { id: 'music', name: 'Music', letter: 'M', hue: 5, sound: ref('phone/jack'), level: [-20, -14, -8] },
    { id: 'pupil', name: 'Pupils', letter: 'P', hue: 3, sound: ref('pupil/voice'), level: [74, 77, 80] },
  ],
  listeners: [
    { id: 'pupil', name: 'Pupils’ ears', sound: ref('pupil-headset/ears'), picture: ref('call/far-view') },
    { id: 'teacher', name: 'Teacher’s ears', sound: ref('headphones/ears') },
    { id: 'recording', name: 'Recording', sound: ref('recording/track-1') },
  ],
  plan: [
    ...must('pupil', 'teacher'),
    { sourceId: 'music', listenerId: 'pupil', want: 'must', underVoiceDb: 18, inTimeWith: 'teacher' },
    { sourceId: 'pupil', listenerId: 'pupil', want: 'must-not' },
    ...must('teacher', 'pupil'),
    { sourceId: 'music', listenerId: 'teacher', want: 'may' },
    ...must('recording', 'teacher'),
  ],
  measurements: [],
  tasks: [],
  dismissed: [],
  moments: [
    {
      id: 'working',
      name: 'Everybody works',
      settings: [{ deviceId: 'mixer', settingId: 'strip-3-4-fader', value: 5 }],
      plan: [{ sourceId: 'music', listenerId: 'pupil', want: 'must', underVoiceDb: 8, inTimeWith: 'teacher' }],
    },
    {
      id: 'questions',
      name: 'Questions',
      settings: [{ deviceId: 'mixer', settingId: 'strip-3-4-fader', value: -90 }],
      plan: [{ sourceId: 'music', listenerId: 'pupil', want: 'must-not' }],
    },
  ],
};
