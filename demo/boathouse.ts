import type { Rig } from '#core/rig/index.ts';

type Cable = Rig['cables'][number];
type Settings = Rig['devices'][number]['settings'];

const lead = (id: string, from: string, to: string, lengthM: number, known: Cable['known'] = 'seen'): Cable => ({
  id,
  from: ref(from),
  to: ref(to),
  medium: 'lead',
  lengthM,
  known,
});
type Pairs = readonly (readonly [string, string])[];
const pairs = (list: Pairs): NonNullable<Cable['map']> => list.map(([from, to]) => ({ from, to }));
const software = (id: string, from: string, to: string, map?: Pairs): Cable => ({
  ...lead(id, from, to, 0),
  medium: 'software',
  ...(map && { map: pairs(map) }),
});
const air = (id: string, from: string, to: string, lengthM: number): Cable => ({
  ...lead(id, from, to, lengthM, 'assumed'),
  medium: 'air',
});
const light = (id: string, from: string, to: string, lengthM: number): Cable => ({
  ...air(id, from, to, lengthM),
  medium: 'light',
});

function ref(place: string): { deviceId: string; portId: string } {
  const [deviceId, portId] = place.split('/') as [string, string];
  return { deviceId, portId };
}

const seen = (values: Record<string, number | boolean | string>): Settings =>
  Object.fromEntries(Object.entries(values).map(([id, value]) => [id, { value, known: 'seen' as const }]));

type Device = Rig['devices'][number];
const device = (
  id: string,
  typeId: string,
  name: string,
  settings: Settings = {},
  more: Partial<Device> = {},
): Device => ({
  id,
  typeId,
  name,
  settings,
  ...more,
});
const DESK = { on: 'desk-computer' };
const CLUB = { on: 'club-laptop' };
const COUCH = { fedBy: 'couch-strip' };

const must = (listenerId: string, ...sourceIds: string[]) =>
  sourceIds.map((sourceId) => ({ sourceId, listenerId, want: 'must' as const }));

/**
 * Boathouse relay: a rowing club's six-hour charity relay of old video games, as its crew set it up, faults and all.
 * The game reaches the stream twice; the couch's sound comes late through its capture device; Ilse hears herself.
 */
export const boathouse: Rig = {
  schemaVersion: 1,
  name: 'Boathouse relay',
  notes:
    'Six hours of old video games for the boat fund. Wren hosts at the desk, a couch plays, Ilse comments from home, Ambrose plays jingles.',
  session: { frameRate: { num: 60, den: 1 }, sampleRateHz: 48000, toleranceId: 'ebu-r37', fullScaleDbu: 18, hours: 6 },
  types: [],
  devices: [
    device('audience', 'audience', 'Audience'),
    device('backup-recorder', 'recorder-stereo', 'Backup recorder'),
    device('big-screen', 'screen-with-jack', 'Big screen', seen({ mode: 'game' })),
    device('call', 'call', 'Call with Ilse', {}, DESK),
    device('camera', 'camera-hdmi', 'Couch camera', seen({ overlays: 'off' }), COUCH),
    device('camera-capture', 'capture-usb-compressed', 'Camera capture'),
    device(
      'capture-program',
      'capture-program',
      'Capture program',
      {
        ...seen({ 'in-1-mute': false, 'in-2-mute': false, 'in-3-mute': false }),
        ...recordedOn({ 1: [1, 2], 2: [1, 3], 3: [1, 4], 4: [], 5: [] }),
      },
      DESK,
    ),
    device('club-laptop', 'computer-laptop', 'Club laptop'),
    device('club-recorder', 'recording-program', 'Recording on the club laptop', {}, CLUB),
    device(
      'console',
      'game-console',
      'Game console',
      seen({
        'picture-mode': '3840x2160-60',
        'copy-protection': 'off',
        'sound-format': 'stereo-pcm',
        bits: '8',
      }),
    ),
    device('console-capture', 'capture-usb-compressed', 'Console capture'),
    device('couch', 'person', 'Couch players'),
    device('couch-charger', 'usb-charger', 'Couch USB supply', {}, COUCH),
    device('couch-lapel', 'lapel-wired', 'Couch lapel microphone'),
    device('couch-strip', 'power-strip', 'Couch strip'),
    device('desk-computer', 'computer-desktop', 'Desk computer', seen({ 'picture-mode': '1920x1080-60' })),
    device('desk-game', 'game-program', 'Desk game', {}, DESK),
    device('desk-screen', 'screen', 'Desk screen'),
    device('desk-webcam', 'webcam', 'Desk webcam', seen({ 'microphone-mute': false })),
    device('extractor', 'hdmi-extractor', 'Sound extractor', {}, { fedBy: 'couch-charger' }),
    device('ilse', 'person', 'Ilse'),
    device('ilse-camera', 'webcam', 'Ilse’s webcam'),
    device('ilse-headset', 'headset-usb', 'Ilse’s headset'),
    device('loudspeakers', 'loudspeakers-active', 'Room loudspeakers', seen({ volume: -20 })),
    device('mixer', 'mixer-usb-10', 'Mixer', {
      ...seen({
        'strip-1-gain': 58,
        'strip-1-send-2': 0,
        'strip-1-send-3': -6,
        'strip-5-6-gain': 10,
        'strip-5-6-send-1': 0,
        'strip-5-6-send-2': -6,
        'strip-5-6-send-3': -4,
        'strip-7-8-gain': 6,
        'strip-7-8-fader': -6,
        'strip-7-8-send-2': -6,
        'strip-9-10-send-1': -6,
        'strip-9-10-send-2': -12,
        'strip-9-10-send-3': -10,
      }),
      'strip-9-10-input': { value: 'usb', known: 'assumed' },
    }),
    device('phone', 'phone', 'Ambrose’s phone'),
    device('player-headphones', 'headphones', 'Players’ headphones'),
    device('sound-system', 'sound-system', 'Sound system', {}, DESK),
    device('splitter', 'hdmi-splitter', 'Splitter'),
    device('wren', 'person', 'Wren'),
    device('wren-microphone', 'microphone-dynamic', 'Wren’s microphone'),
  ],
  cables: [
    air('air-couch-camera', 'couch/voice', 'camera/microphone', 1.5),
    air('air-couch-wren', 'couch/voice', 'wren-microphone/capsule', 4),
    air('air-couch-lapel', 'couch/voice', 'couch-lapel/capsule', 0.2),
    air('air-desk-webcam', 'wren/voice', 'desk-webcam/microphone', 0.6),
    air('air-ilse', 'ilse/voice', 'ilse-headset/boom', 0.03),
    air('air-room-wren', 'loudspeakers/front', 'wren-microphone/capsule', 3),
    air('air-room-audience', 'loudspeakers/front', 'audience/ears', 5),
    air('air-wren', 'wren/voice', 'wren-microphone/capsule', 0.06),
    lead('camera-hdmi', 'camera/hdmi', 'camera-capture/hdmi', 2),
    lead('camera-usb', 'camera-capture/usb', 'desk-computer/usb-2', 3, 'assumed'),
    software('camera-picture', 'desk-computer/from-usb-2', 'capture-program/in-2'),
    lead('console-hdmi', 'console/hdmi', 'splitter/in', 1),
    software('console-picture', 'desk-computer/from-usb-1', 'capture-program/in-1'),
    lead('console-usb', 'console-capture/usb', 'desk-computer/usb-1', 1.5),
    { ...lead('couch-lapel-lead', 'couch-lapel/plug', 'club-laptop/jack-microphone', 1.2), parts: [] },
    software('couch-lapel-track', 'club-laptop/from-jack', 'club-recorder/in-1'),
    software('desk-game-call', 'call/near-loudspeaker', 'sound-system/play'),
    software('desk-game-grab', 'desk-game/screen', 'capture-program/in-4'),
    software('desk-game-sound', 'desk-game/sound', 'sound-system/play'),
    software('desk-game-shown', 'desk-game/screen', 'desk-computer/to-screen-1'),
    lead('desk-screen-hdmi', 'desk-computer/hdmi-1', 'desk-screen/hdmi', 1.5),
    software('desk-webcam-call', 'desk-computer/from-usb-4', 'call/near-microphone', [
      ['left', 'left'],
      ['left', 'right'],
    ]),
    software('desk-webcam-picture', 'desk-computer/from-usb-4', 'capture-program/in-6', [['picture', 'picture']]),
    lead('desk-webcam-usb', 'desk-webcam/usb', 'desk-computer/usb-4', 1.5),
    lead('extractor-line', 'extractor/line', 'mixer/strip-5-6', 3),
    lead('extractor-screen', 'extractor/out', 'big-screen/hdmi', 2),
    software('ilse-earphones', 'call/far-loudspeaker', 'ilse-headset/usb-in'),
    software('ilse-microphone', 'ilse-headset/usb-out', 'call/far-microphone'),
    software('ilse-picture', 'ilse-camera/usb', 'call/far-camera'),
    software('ilse-view', 'call/near-view', 'capture-program/in-5'),
    light('light-audience-screen', 'big-screen/view', 'audience/eyes', 5),
    light('light-couch', 'couch/face', 'camera/lens', 1.5),
    light('light-ilse', 'ilse/face', 'ilse-camera/lens', 0.6),
    light('light-wren', 'wren/face', 'camera/lens', 3),
    lead('mixer-loudspeakers', 'mixer/send-1-out', 'loudspeakers/line', 6),
    lead('mixer-phones', 'mixer/send-3-out', 'player-headphones/plug', 5),
    lead('mixer-recorder', 'mixer/main-out', 'backup-recorder/line', 2),
    lead('mixer-usb-main', 'mixer/usb-main', 'desk-computer/usb-3', 1.5),
    lead('mixer-usb-return', 'desk-computer/usb-3-out', 'mixer/usb-return', 1.5),
    {
      ...lead('mixer-usb-send', 'mixer/usb-send-2', 'desk-computer/usb-3', 1.5),
      map: pairs([
        ['left', 'ch-3'],
        ['right', 'ch-4'],
      ]),
    },
    software('mixer-main-in', 'desk-computer/from-usb-3', 'sound-system/in-12'),
    software('mixer-return-out', 'sound-system/out-12', 'desk-computer/to-usb-3'),
    software('mixer-send-in', 'desk-computer/from-usb-3', 'sound-system/in-34', [
      ['ch-3', 'left'],
      ['ch-4', 'right'],
    ]),
    lead('phone-line', 'phone/jack', 'mixer/strip-7-8', 1.5, 'assumed'),
    software('program-call', 'sound-system/to-programs-34', 'call/near-microphone'),
    software('program-mix', 'sound-system/to-programs-12', 'capture-program/in-3'),
    lead('splitter-capture', 'splitter/out-1', 'console-capture/hdmi', 1),
    lead('splitter-extractor', 'splitter/out-2', 'extractor/in', 1),
    lead('wren-xlr', 'wren-microphone/xlr', 'mixer/strip-1', 6),
  ],
  sources: [
    {
      id: 'couch-game',
      name: 'Couch game',
      letter: 'G',
      hue: 1,
      sound: ref('console/hdmi'),
      picture: ref('console/hdmi'),
      level: [-26, -20, -14],
    },
    {
      id: 'wren',
      name: 'Wren, voice',
      letter: 'W',
      hue: 2,
      sound: ref('wren/voice'),
      picture: ref('wren/face'),
      level: [74, 77, 80],
    },
    {
      id: 'couch',
      name: 'Couch voices',
      letter: 'C',
      hue: 7,
      sound: ref('couch/voice'),
      picture: ref('couch/face'),
      level: [74, 80, 88],
    },
    {
      id: 'desk-game',
      name: 'Desk game',
      letter: 'D',
      hue: 4,
      sound: ref('desk-game/sound'),
      picture: ref('desk-game/screen'),
      level: [-26, -20, -14],
    },
    { id: 'jingles', name: 'Ambrose, jingles', letter: 'A', hue: 5, sound: ref('phone/jack'), level: [-20, -14, -8] },
    {
      id: 'ilse',
      name: 'Ilse, on the call',
      letter: 'I',
      hue: 3,
      sound: ref('ilse/voice'),
      picture: ref('ilse/face'),
      level: [74, 77, 80],
    },
  ],
  listeners: [
    { id: 'stream', name: 'Stream', sound: ref('capture-program/stream'), picture: ref('capture-program/stream') },
    {
      id: 'track-1',
      name: 'Track 1, all',
      sound: ref('capture-program/track-1'),
      picture: ref('capture-program/stream'),
    },
    {
      id: 'track-2',
      name: 'Track 2, console',
      sound: ref('capture-program/track-2'),
      picture: ref('capture-program/stream'),
    },
    {
      id: 'track-3',
      name: 'Track 3, couch',
      sound: ref('capture-program/track-3'),
      picture: ref('capture-program/stream'),
    },
    {
      id: 'track-4',
      name: 'Track 4, mixer',
      sound: ref('capture-program/track-4'),
      picture: ref('capture-program/stream'),
    },
    {
      id: 'track-5',
      name: 'Track 5, spare',
      sound: ref('capture-program/track-5'),
      picture: ref('capture-program/stream'),
    },
    { id: 'couch-safety', name: 'Couch safety track', sound: ref('club-recorder/track-1') },
    { id: 'backup', name: 'Backup recorder', sound: ref('backup-recorder/file') },
    { id: 'ilse', name: 'Ilse’s ears', sound: ref('ilse-headset/ears') },
    {
      id: 'players',
      name: 'Players’ ears',
      sound: ref('player-headphones/ears'),
      picture: ref('big-screen/view'),
      toleranceId: 'player',
    },
    { id: 'room', name: 'Room', sound: ref('audience/ears'), picture: ref('audience/eyes') },
  ],
  plan: [
    ...must('stream', 'couch', 'couch-game', 'desk-game', 'ilse', 'wren'),
    { sourceId: 'jingles', listenerId: 'stream', want: 'must', inTimeWith: 'wren' },
    ...must('backup', 'couch-game', 'ilse', 'jingles', 'wren'),
    ...must('ilse', 'couch-game', 'jingles', 'wren'),
    { sourceId: 'ilse', listenerId: 'ilse', want: 'must-not' },
    ...must('players', 'couch-game', 'wren'),
    ...must('room', 'couch-game', 'ilse'),
    ...must('couch-safety', 'couch'),
    ...must('track-3', 'couch'),
    ...must('track-2', 'couch-game'),
  ],
  measurements: [],
  tasks: [],
  aside: [
    {
      id: 'plan-listener-silent:track-5',
      reason: 'a spare track: nothing is to be on it',
      at: '2026-11-20T18:30:00.000Z',
    },
  ],
};

/** Which tracks each input of the capture program is recorded on. */
function recordedOn(inputs: Record<number, number[]>): Settings {
  return seen(
    Object.fromEntries(
      Object.entries(inputs).flatMap(([input, tracks]) =>
        [1, 2, 3, 4, 5].map((t) => [`in-${input}-not-on-${t}`, !tracks.includes(t)] as const),
      ),
    ),
  );
}
