import type { DeviceType } from '../schema.ts';
import {
  both,
  ceiling,
  delay,
  delaySetting,
  gain,
  input,
  latency,
  levelSetting,
  mono,
  muteSetting,
  output,
  picture,
  pictureAndStereo,
  point,
  stereo,
  typicalMs,
  unmuted,
  way,
} from './parts.ts';

const CAPTURE_INPUTS = [1, 2, 3, 4, 5, 6];
const TRACKS = [1, 2, 3, 4, 5];

/** Programs and the computer's own sound system: devices like any other, with software ends. */
export const programs: DeviceType[] = [
  {
    id: 'game-program',
    name: 'Game on the computer',
    family: 'programs',
    summary: 'Its picture goes to the screen and may be grabbed; its sound goes to the sound system.',
    ports: [
      output('screen', 'picture', 'software', 'digital', picture),
      output('sound', 'sound', 'software', 'software', stereo),
    ],
    settings: [],
    figures: {},
    inside: [],
  },
  {
    id: 'sound-system',
    name: 'Sound system of the computer',
    family: 'programs',
    summary: 'Takes the inputs of a USB sound device to programs, and the sound of programs to its output.',
    ports: [
      input('in-12', 'inputs 1 and 2', 'usb-a', 'digital', stereo),
      input('in-34', 'inputs 3 and 4', 'usb-a', 'digital', stereo),
      input('play', 'sound of programs', 'software', 'software', stereo),
      output('to-programs-12', 'inputs 1 and 2, to programs', 'software', 'software', stereo),
      output('to-programs-34', 'inputs 3 and 4, to programs', 'software', 'software', stereo),
      output('out-12', 'outputs 1 and 2', 'usb-a', 'digital', stereo),
      output('copy', 'sound of programs, copied', 'software', 'software', stereo),
    ],
    settings: [],
    figures: {
      record: typicalMs('sound system, input', 10, 20, 40),
      play: typicalMs('sound system, output', 10, 20, 40),
      copy: typicalMs('sound system, copy to a program', 10, 20, 40),
    },
    inside: [
      ...both('in-12', 'to-programs-12', latency('record')),
      ...both('in-34', 'to-programs-34', latency('record')),
      ...both('play', 'out-12', latency('play')),
      ...both('play', 'copy', latency('copy')),
    ],
  },
  {
    id: 'capture-program',
    name: 'Capture program',
    family: 'programs',
    summary:
      'Mixes pictures and sounds into the stream and records five tracks. Each input has a delay for its sound and one for its picture.',
    ports: [
      ...CAPTURE_INPUTS.map((n) => input(`in-${n}`, `input ${n}`, 'software', 'software', pictureAndStereo)),
      ...CAPTURE_INPUTS.map((n) => point(`in-${n}-after`, `input ${n}, after its settings`, stereo)),
      output('stream', 'stream', 'software', 'software', pictureAndStereo),
      ...TRACKS.map((n) => output(`track-${n}`, `track ${n}`, 'file', 'software', stereo)),
    ],
    settings: CAPTURE_INPUTS.flatMap((n) => [
      delaySetting(`in-${n}-sound-delay`, `Input ${n}, sound delay`, 20_000),
      delaySetting(`in-${n}-picture-delay`, `Input ${n}, picture delay`, 500),
      muteSetting(`in-${n}-mute`, `Input ${n}, mute`, false),
      levelSetting(`in-${n}-level`, `Input ${n}, level`, 0),
      ...TRACKS.map((t) => muteSetting(`in-${n}-not-on-${t}`, `Input ${n}, kept off track ${t}`, t !== 1)),
    ]),
    figures: {},
    inside: CAPTURE_INPUTS.flatMap((n) => [
      way(`in-${n}.picture`, 'stream.picture', delay(`in-${n}-picture-delay`)),
      ...both(`in-${n}`, `in-${n}-after`, delay(`in-${n}-sound-delay`), unmuted(`in-${n}-mute`), gain(`in-${n}-level`)),
      ...both(`in-${n}-after`, 'stream', ceiling(0)),
      ...TRACKS.flatMap((t) => both(`in-${n}-after`, `track-${t}`, unmuted(`in-${n}-not-on-${t}`))),
    ]),
  },
  {
    id: 'call',
    name: 'Call over the network',
    family: 'programs',
    summary:
      'Both ends of a call: what the near side says arrives at the far side, and back, each after the network and its buffers.',
    ports: [
      input('near-microphone', 'near side, microphone', 'software', 'software', stereo),
      output('near-loudspeaker', 'near side, loudspeaker', 'software', 'software', stereo),
      output('near-view', 'near side, picture of the far side', 'software', 'software', picture),
      input('far-microphone', 'far side, microphone', 'software', 'software', mono),
      input('far-camera', 'far side, camera', 'software', 'software', picture),
      output('far-loudspeaker', 'far side, loudspeaker', 'software', 'software', stereo),
    ],
    settings: [muteSetting('near-mute', 'Near side, mute', false), muteSetting('far-mute', 'Far side, mute', false)],
    figures: {
      'sound-out': typicalMs('call, sound to the far side', 100, 200, 400),
      'sound-back': typicalMs('call, sound from the far side', 100, 200, 400),
      'picture-back': typicalMs('call, picture from the far side', 100, 220, 440),
    },
    inside: [
      ...both('near-microphone', 'far-loudspeaker', unmuted('near-mute'), latency('sound-out'), { do: 'clock' }),
      ...(['left', 'right'] as const).map((side) =>
        way('far-microphone.mono', `near-loudspeaker.${side}`, unmuted('far-mute'), latency('sound-back'), {
          do: 'clock',
        }),
      ),
      way('far-camera.picture', 'near-view.picture', latency('picture-back')),
    ],
  },
  {
    id: 'webcam',
    name: 'Webcam, USB',
    family: 'cameras',
    summary: 'A small camera for calls; its own microphone is not used here.',
    ports: [input('lens', 'lens', 'light', 'light', picture), output('usb', 'USB', 'plug-usb-a', 'digital', picture)],
    settings: [],
    figures: { picture: typicalMs('webcam, lens to program', 60, 100, 160) },
    inside: [way('lens.picture', 'usb.picture', latency('picture'))],
  },
  {
    id: 'virtual-cable',
    name: 'Virtual cable',
    family: 'programs',
    summary: 'An output that one program plays into and another takes as its input.',
    ports: [
      input('in', 'played into', 'software', 'software', stereo),
      output('out', 'taken from', 'software', 'software', stereo),
    ],
    settings: [],
    figures: { through: typicalMs('virtual cable', 5, 10, 40) },
    inside: both('in', 'out', latency('through')),
  },
];
