import type { Rig } from '#core/model/rig/index.ts';
import { air, device, lead, light, must, ref, seen, software } from './parts.ts';

const HERE = { on: 'computer' };

/**
 * Glider corner: a soaring simulator with a head-worn display, radio chat with the ground crew, one computer, everything
 * in software. The display's own poor microphone is the one that the chat has got.
 */
export const gliderCorner: Rig = {
  schemaVersion: 3,
  name: 'Glider corner',
  notes: 'Evening flights with the ground crew on the chat, streamed. One computer does everything.',
  session: { frameRate: { num: 60, den: 1 }, sampleRateHz: 48_000, toleranceId: 'ebu-r37', fullScaleDbu: 18, hours: 2 },
  types: [],
  devices: [
    device('capture-program', 'capture-program', 'Streaming software', seen({ 'in-1-mute': false }), HERE),
    device('chat', 'call', 'Chat with the ground crew', {}, HERE),
    device('chat-cable', 'virtual-cable', 'Chat cable', {}, HERE),
    device('computer', 'computer-desktop', 'Computer', seen({ 'picture-mode': '3840x2160-60' })),
    device('display', 'head-worn-display', 'Head-worn display', seen({ 'microphone-mute': false }), { moves: true }),
    device('ground-crew', 'person', 'Ground crew'),
    device('ground-headset', 'headset-usb', 'Ground crew’s headset'),
    device('microphone', 'microphone-usb', 'Desk microphone', seen({ mute: false, gain: 30 })),
    device('pilot', 'person', 'Pilot'),
    device('simulator', 'game-program', 'Soaring simulator', {}, HERE),
  ],
  cables: [
    air('air-ground', 'ground-crew/voice', 'ground-headset/boom', 0.03),
    air('air-pilot-desk', 'pilot/voice', 'microphone/capsule', 0.3),
    air('air-pilot-display', 'pilot/voice', 'display/boom', 0.12),
    software('chat-heard', 'chat/near-loudspeaker', 'chat-cable/in'),
    software('chat-played', 'chat-cable/out', 'computer/to-screen-1'),
    software('chat-streamed', 'chat-cable/out', 'capture-program/in-2'),
    software('desk-microphone-stream', 'computer/from-usb-2', 'capture-program/in-3', [
      ['left', 'left'],
      ['left', 'right'],
    ]),
    software('display-microphone-chat', 'computer/from-usb-1', 'chat/near-microphone', [
      ['left', 'left'],
      ['left', 'right'],
    ]),
    lead('display-picture', 'computer/hdmi-1', 'display/display', 2),
    lead('display-usb', 'display/usb', 'computer/usb-1', 2),
    software('ground-ears', 'chat/far-loudspeaker', 'ground-headset/usb-in'),
    software('ground-microphone', 'ground-headset/usb-out', 'chat/far-microphone'),
    lead('microphone-usb', 'microphone/usb', 'computer/usb-2', 1.5),
    light('pilot-sees', 'display/view', 'pilot/eyes', 0.05),
    software('simulator-picture', 'simulator/screen', 'computer/to-screen-1'),
    software('simulator-sound', 'simulator/sound', 'computer/to-screen-1'),
    software('simulator-stream', 'simulator/sound', 'capture-program/in-1'),
    software('simulator-stream-picture', 'simulator/screen', 'capture-program/in-1'),
  ],
  sources: [
    {
      id: 'glider',
      name: 'Soaring simulator',
      letter: 'S',
      hue: 1,
      sound: ref('simulator/sound'),
      picture: ref('simulator/screen'),
      level: [-26, -20, -14],
    },
    { id: 'pilot', name: 'Pilot, voice', letter: 'P', hue: 2, sound: ref('pilot/voice'), level: [74, 77, 80] },
    { id: 'ground', name: 'Ground crew', letter: 'G', hue: 3, sound: ref('ground-crew/voice'), level: [74, 77, 80] },
  ],
  listeners: [
    { id: 'stream', name: 'Stream', sound: ref('capture-program/stream'), picture: ref('capture-program/stream') },
    { id: 'track-1', name: 'Track 1, all', sound: ref('capture-program/track-1') },
    {
      id: 'pilot',
      name: 'Pilot’s ears',
      sound: ref('display/ears'),
      picture: ref('display/view'),
      toleranceId: 'player',
    },
    { id: 'ground', name: 'Ground crew’s ears', sound: ref('ground-headset/ears') },
  ],
  plan: [
    ...must('stream', 'glider', 'ground', 'pilot'),
    ...must('track-1', 'glider', 'ground', 'pilot'),
    ...must('pilot', 'glider', 'ground'),
    ...must('ground', 'pilot'),
    { sourceId: 'ground', listenerId: 'ground', want: 'must-not' },
  ],
  measurements: [],
  tasks: [],
  dismissed: [],
  moments: [],
};
