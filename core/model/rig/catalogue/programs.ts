import type { DeviceType, PortSpec } from '#core/model/rig/schema-type.ts';
import {
  both,
  ceiling,
  delay,
  delaySetting,
  gain,
  grouped,
  hands,
  latency,
  levelSetting,
  mono,
  muteSetting,
  OFF_DB,
  onOff,
  output,
  picture,
  pictureAndStereo,
  point,
  stereo,
  switchSetting,
  takes,
  together,
  typicalMs,
  unmuted,
  valueSetting,
  way,
  when,
} from './parts.ts';

const CAPTURE_INPUTS = [1, 2, 3, 4, 5, 6];
const TRACKS = [1, 2, 3, 4, 5];
const RECORDED = [1, 2, 3, 4];

const CALL_SYNC = 'one network and one clock for both: a call keeps them together, typical';

const atFarSide = (port: PortSpec): PortSpec => ({ ...port, does: 'far-side' });

/** Programs and the computer's own sound system: devices like any other, with software ends. */
export const programs: DeviceType[] = [
  {
    id: 'game-program',
    name: 'Game on the computer',
    family: 'programs',
    nature: 'program',
    shows: { levels: 'on-it', picture: true },
    summary: 'Its video goes to the display and may be grabbed; its audio goes to the audio system.',
    ports: [
      output('screen', 'picture', 'software', 'digital', picture),
      { ...hands('sound', 'sound', stereo), does: 'game' },
    ],
    settings: [],
    figures: {},
    inside: [],
  },
  {
    id: 'sound-system',
    name: 'Computer audio',
    family: 'programs',
    nature: 'program',
    shows: { levels: 'on-it', picture: true },
    summary: 'Takes the inputs of a USB audio device to apps, and the audio of apps to its output.',
    ports: [
      takes('in-12', 'inputs 1 and 2', stereo),
      takes('in-34', 'inputs 3 and 4', stereo),
      takes('play', 'audio of apps', stereo),
      hands('to-programs-12', 'inputs 1 and 2, to apps', stereo),
      hands('to-programs-34', 'inputs 3 and 4, to apps', stereo),
      hands('out-12', 'outputs 1 and 2', stereo),
      hands('copy', 'audio of apps, copied', stereo),
    ],
    settings: [
      levelSetting('listen-12', 'Inputs 1 and 2, loopback monitoring', OFF_DB, 0),
      levelSetting('listen-34', 'Inputs 3 and 4, loopback monitoring', OFF_DB, 0),
    ],
    figures: {
      through: typicalMs('audio system, loopback monitoring', 20, 60, 120),
      record: typicalMs('audio system, input', 10, 20, 40),
      play: typicalMs('audio system, output', 10, 20, 40),
      copy: typicalMs('audio system, copy to a app', 10, 20, 40),
    },
    inside: [
      ...both('in-12', 'to-programs-12', latency('record')),
      ...both('in-34', 'to-programs-34', latency('record')),
      ...both('play', 'out-12', latency('play')),
      ...both('in-12', 'out-12', gain('listen-12'), latency('through')),
      ...both('in-34', 'out-12', gain('listen-34'), latency('through')),
      ...both('play', 'copy', latency('copy')),
    ],
  },
  {
    id: 'capture-program',
    name: 'Streaming software',
    family: 'programs',
    nature: 'program',
    shows: { levels: 'on-it', picture: true },
    summary:
      'Mixes video signals and sounds into the stream and records five tracks, the first of which is what is streamed. Each input has a delay for its audio and one for its video, and can be monitored.',
    ports: [
      ...CAPTURE_INPUTS.map((n) => takes(`in-${n}`, `input ${n}`, pictureAndStereo)),
      ...CAPTURE_INPUTS.map((n) => point(`in-${n}-after`, `input ${n}, after its settings`, stereo)),
      { ...hands('stream', 'stream', pictureAndStereo), does: 'stream' },
      ...TRACKS.map((n) => output(`track-${n}`, `track ${n}`, 'file', 'software', stereo)),
      { ...hands('monitor', 'monitoring', stereo), does: 'monitor' },
    ],
    settings: CAPTURE_INPUTS.flatMap((n) =>
      grouped(`Input ${n}`, [
        delaySetting(`in-${n}-sound-delay`, `Input ${n}, audio delay`, 20_000),
        delaySetting(`in-${n}-picture-delay`, `Input ${n}, video delay`, 500),
        muteSetting(`in-${n}-mute`, `Input ${n}, mute`, false),
        levelSetting(`in-${n}-level`, `Input ${n}, level`, 0),
        ...TRACKS.map((t) =>
          muteSetting(
            `in-${n}-not-on-${t}`,
            t === 1 ? `Input ${n}, mute on track 1 and the stream` : `Input ${n}, mute on track ${t}`,
            t !== 1,
          ),
        ),
        onOff(`in-${n}-monitor`, `Input ${n}, monitoring`, 'off'),
      ]),
    ),
    figures: { monitor: typicalMs('streaming software, monitoring', 20, 60, 150) },
    inside: CAPTURE_INPUTS.flatMap((n) => [
      way(`in-${n}.picture`, 'stream.picture', delay(`in-${n}-picture-delay`)),
      ...both(`in-${n}`, `in-${n}-after`, delay(`in-${n}-sound-delay`), unmuted(`in-${n}-mute`), gain(`in-${n}-level`)),
      // What is streamed is track 1.
      ...both(`in-${n}-after`, 'stream', unmuted(`in-${n}-not-on-1`), ceiling(0)),
      ...TRACKS.flatMap((t) => both(`in-${n}-after`, `track-${t}`, unmuted(`in-${n}-not-on-${t}`))),
      ...both(`in-${n}-after`, 'monitor', when(`in-${n}-monitor`, 'on'), latency('monitor')),
    ]),
  },
  {
    id: 'call',
    name: 'Video call',
    family: 'programs',
    nature: 'program',
    shows: { levels: 'on-it', picture: true },
    summary:
      'Both ends of a call: what the near side says arrives at the far side, and back, each after the network and its buffers.',
    ports: [
      { ...takes('near-microphone', 'near side, microphone', stereo), does: 'call-microphone' },
      takes('near-share', 'near side, shared computer audio', stereo),
      { ...hands('near-loudspeaker', 'near side, speaker', stereo), does: 'call-loudspeaker' },
      hands('near-view', 'near side, video of the far side', picture),
      takes('near-camera', 'near side, camera', picture),
      atFarSide(hands('far-view', 'far side, video of the near side', picture)),
      atFarSide(takes('far-microphone', 'far side, microphone', mono)),
      atFarSide(takes('far-camera', 'far side, camera', picture)),
      atFarSide(hands('far-loudspeaker', 'far side, speaker', stereo)),
    ],
    settings: [
      muteSetting('near-mute', 'Near side, mute', false),
      muteSetting('far-mute', 'Far side, mute', false),
      onOff('processing', 'Near side, processing of the microphone', 'on', 'voice-processing'),
    ],
    figures: {
      share: typicalMs('call, shared computer audio to the far side', 150, 300, 600),
      'sound-out': typicalMs('call, audio to the far side', 100, 200, 400),
      'sound-back': typicalMs('call, audio from the far side', 100, 200, 400),
      'picture-out': typicalMs('call, video to the far side', 100, 220, 440),
      'picture-back': typicalMs('call, video from the far side', 100, 220, 440),
    },
    together: [
      together('picture-out', 'sound-out', [-60, 20, 100], CALL_SYNC),
      together('picture-back', 'sound-back', [-60, 20, 100], CALL_SYNC),
    ],
    inside: [
      ...both('near-microphone', 'far-loudspeaker', unmuted('near-mute'), latency('sound-out'), { do: 'clock' }),
      ...both('near-share', 'far-loudspeaker', latency('share'), { do: 'clock' }),
      ...(['left', 'right'] as const).map((side) =>
        way('far-microphone.mono', `near-loudspeaker.${side}`, unmuted('far-mute'), latency('sound-back'), {
          do: 'clock',
        }),
      ),
      way('near-camera.picture', 'far-view.picture', latency('picture-out')),
      way('far-camera.picture', 'near-view.picture', latency('picture-back')),
    ],
  },
  {
    id: 'virtual-cable',
    name: 'Virtual cable',
    family: 'programs',
    nature: 'program',
    shows: { levels: 'on-it', picture: true },
    summary: 'An output that one app plays into and another takes as its input.',
    ports: [
      { ...takes('in', 'played into', stereo), listed: true },
      { ...hands('out', 'taken from', stereo), listed: true },
      hands('heard', 'played on', stereo),
    ],
    settings: [onOff('play-on', 'What is played into it is heard at its usual output too', 'off')],
    figures: { through: typicalMs('virtual cable', 5, 10, 40) },
    inside: [
      ...both('in', 'out', latency('through')),
      ...both('in', 'heard', when('play-on', 'on'), latency('through')),
    ],
  },
  {
    id: 'aggregate-device',
    name: 'Aggregate device',
    family: 'programs',
    nature: 'program',
    shows: { levels: 'on-it', picture: true },
    summary:
      'Joins two audio devices into one, in an order: one is master of the clock, the other is corrected to follow it, or drifts.',
    ports: [
      takes('a', 'first member', stereo),
      takes('b', 'second member', stereo),
      { ...hands('a-out', 'channels 1 and 2', stereo), listed: true },
      { ...hands('b-out', 'channels 3 and 4', stereo), listed: true },
    ],
    settings: [
      switchSetting('master', 'Clock of all', { a: 'first member', b: 'second member' }, 'a'),
      onOff('drift-correction', 'Drift correction of the other member', 'on', 'drift-correction'),
      switchSetting('order', 'Channels 1 and 2', { 'a-b': 'first member', 'b-a': 'second member' }, 'a-b'),
    ],
    figures: {
      through: typicalMs('aggregate', 5, 15, 40),
      corrected: typicalMs('aggregate, with correction', 5, 15, 40),
    },
    inside: (['a', 'b'] as const).flatMap((member) =>
      (['a-b', 'b-a'] as const).flatMap((order) => {
        const other = member === 'a' ? 'b' : 'a';
        const out = `${order === 'a-b' ? member : other}-out`;
        const at = when('order', order);
        return [
          ...both(member, out, at, when('master', member), latency('through'), { do: 'clock' }),
          ...both(member, out, at, when('master', other), when('drift-correction', 'on'), latency('corrected'), {
            do: 'clock',
          }),
          ...both(member, out, at, when('master', other), when('drift-correction', 'off'), latency('through')),
        ];
      }),
    ),
  },
  {
    id: 'recording-program',
    name: 'Recording app',
    family: 'programs',
    nature: 'program',
    shows: { levels: 'on-it', picture: true },
    summary: 'Records up to four pairs of channels, each on its own track.',
    ports: [
      ...RECORDED.map((n) => takes(`in-${n}`, `input ${n}`, stereo)),
      ...RECORDED.map((n) => output(`track-${n}`, `track ${n}`, 'file', 'software', stereo)),
    ],
    settings: RECORDED.flatMap((n) =>
      grouped(`Track ${n}`, [muteSetting(`track-${n}-off`, `Track ${n}, mute`, false)]),
    ),
    figures: {},
    inside: RECORDED.flatMap((n) => both(`in-${n}`, `track-${n}`, unmuted(`track-${n}-off`))),
  },
  {
    id: 'music-player',
    name: 'Music player',
    family: 'programs',
    nature: 'program',
    shows: { levels: 'on-it', picture: true },
    summary: 'Plays music into the audio system.',
    ports: [{ ...hands('sound', 'sound', stereo), does: 'music' }],
    settings: [],
    figures: {},
    inside: [],
  },
  {
    id: 'program-filter',
    name: 'Filter for voices, a app',
    family: 'programs',
    nature: 'program',
    shows: { levels: 'on-it', picture: true },
    summary: 'Takes noise out of a voice between microphone and call; it costs time.',
    ports: [takes('in', 'in', mono), hands('out', 'out', mono)],
    settings: [
      valueSetting('low-cut', 'Low cut', 'lowCut.hz', 'Hz', [20, 20, 300], 1, 20),
      valueSetting('gate-threshold', 'Gate, threshold', 'gate.thresholdDbfs', 'dBFS', [-90, -90, 0], 0.5, -90),
      valueSetting('gate-range', 'Gate, range', 'gate.rangeDb', 'dB', [0, 10, 60], 1),
      valueSetting('presence', 'Presence', 'presence.gainDb', 'dB', [-12, 0, 12], 0.5, 0),
      valueSetting('presence-middle', 'Presence, middle', 'presence.hz', 'Hz', [500, 2500, 8000], 50),
      valueSetting(
        'compressor-threshold',
        'Compressor, threshold',
        'compressor.thresholdDbfs',
        'dBFS',
        [-60, 0, 0],
        0.5,
        0,
      ),
      valueSetting('compressor-ratio', 'Compressor, ratio', 'compressor.ratio', 'to 1', [1, 3, 20], 0.5),
      valueSetting('compressor-attack', 'Compressor, attack', 'compressor.attackMs', 'ms', [1, 8, 200], 1),
      valueSetting('compressor-release', 'Compressor, release', 'compressor.releaseMs', 'ms', [10, 150, 1000], 10),
      valueSetting('make-up', 'Make-up gain', 'makeupDb', 'dB', [0, 0, 24], 0.5),
      valueSetting('ceiling', 'Limiter, ceiling', 'limiter.ceilingDbtp', 'dBTP', [-12, 0, 0], 0.5, 0),
    ],
    figures: { through: typicalMs('app filter', 10, 20, 40) },
    inside: [way('in.mono', 'out.mono', latency('through'))],
  },
];
