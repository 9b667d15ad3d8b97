import type { DeviceType } from '../schema.ts';
import {
  both,
  input,
  latency,
  mono,
  muteSetting,
  noise,
  output,
  ownClock,
  picture,
  pictureAndStereo,
  stereo,
  toAnalogue,
  typicalMs,
  unmuted,
  way,
  when,
} from './parts.ts';

/** Everything from the console's output to the computer's USB socket that carries picture and sound together. */
export const pictureChain: DeviceType[] = [
  {
    id: 'game-console',
    name: 'Game console',
    family: 'consoles',
    summary: 'Plays a game; picture and sound leave together over HDMI.',
    ports: [output('hdmi', 'HDMI', 'hdmi', 'digital', pictureAndStereo)],
    settings: [],
    figures: {},
    inside: [],
  },
  {
    id: 'hdmi-splitter',
    name: 'HDMI splitter, one in, two out',
    family: 'hdmi',
    summary: 'Gives one picture with its sound to two outputs. Needs power.',
    ports: [
      input('in', 'HDMI in', 'hdmi', 'digital', pictureAndStereo),
      output('out-1', 'HDMI out 1', 'hdmi', 'digital', pictureAndStereo),
      output('out-2', 'HDMI out 2', 'hdmi', 'digital', pictureAndStereo),
    ],
    settings: [],
    figures: { through: typicalMs('through the splitter', 0, 0, 1) },
    inside: ['out-1', 'out-2'].flatMap((out) => [
      way('in.picture', `${out}.picture`, latency('through')),
      ...both('in', out, latency('through')),
    ]),
  },
  {
    id: 'hdmi-extractor',
    name: 'HDMI sound extractor',
    family: 'hdmi',
    summary: 'Passes the picture on and gives the two-channel sound to a line output.',
    ports: [
      input('in', 'HDMI in', 'hdmi', 'digital', pictureAndStereo),
      output('out', 'HDMI out', 'hdmi', 'digital', pictureAndStereo),
      output('line', 'line out', 'jack-35-trs', 'line', stereo),
    ],
    settings: [],
    figures: { through: typicalMs('through the extractor', 0, 0, 1) },
    inside: [
      way('in.picture', 'out.picture', latency('through')),
      ...both('in', 'out', latency('through')),
      ...both('in', 'line', latency('through'), toAnalogue([8.2, 8.2, 8.2]), noise(-82)),
    ],
  },
  screen('screen-with-jack', 'Screen with headphone jack', true),
  screen('screen', 'Screen without a jack', false),
  capture('capture-usb-compressed', 'Capture device, USB, compressed', [80, 150, 250], [20, 60, 150]),
  capture('capture-usb-uncompressed', 'Capture device, USB 3, uncompressed', [30, 60, 100], [10, 30, 60]),
  {
    id: 'camera-hdmi',
    name: 'Camera with HDMI output',
    family: 'cameras',
    summary: 'Sends what it sees, and what its own microphone hears, over HDMI.',
    ports: [
      input('lens', 'lens', 'light', 'light', picture),
      input('microphone', 'own microphone', 'air', 'air', mono),
      output('hdmi', 'HDMI', 'hdmi-mini', 'digital', pictureAndStereo),
    ],
    settings: [muteSetting('microphone-mute', 'Own microphone off', false)],
    figures: {
      picture: {
        label: 'camera, lens to HDMI',
        unit: 'frames',
        range: [2, 3, 4],
        kind: 'typical',
        source: '2 to 4 frames of its rate, typical of cameras over HDMI',
      },
      sound: typicalMs('camera, microphone to HDMI', 10, 40, 80),
    },
    inside: [
      way('lens.picture', 'hdmi.picture', latency('picture')),
      ...(['left', 'right'] as const).map((side) =>
        way(
          'microphone.mono',
          `hdmi.${side}`,
          unmuted('microphone-mute'),
          { do: 'hear', sensitivityDbvPerPa: [-44, -40, -36] },
          noise(-110),
          { do: 'fixed-gain', db: 50 },
          { do: 'convert', to: 'digital', fullScaleDbu: [0, 2, 4] },
          latency('sound'),
          ownClock,
        ),
      ),
    ],
  },
];

function screen(id: string, name: string, jack: boolean): DeviceType {
  return {
    id,
    name,
    family: 'screens',
    summary: jack ? 'Shows the picture; its sound leaves by a headphone jack.' : 'Shows the picture only.',
    ports: [
      input('hdmi', 'HDMI in', 'hdmi', 'digital', pictureAndStereo),
      output('view', 'picture seen', 'light', 'light', picture),
      ...(jack ? [output('jack', 'headphone jack', 'jack-35-trs', 'headphone' as const, stereo)] : []),
    ],
    settings: [
      {
        id: 'mode',
        name: 'Picture mode',
        kind: 'switch',
        options: [
          { value: 'game', label: 'game' },
          { value: 'film', label: 'film' },
        ],
        default: 'game',
      },
    ],
    figures: {
      'picture-game': typicalMs('screen in game mode', 5, 10, 20),
      'picture-film': typicalMs('screen without game mode', 30, 60, 120),
      ...(jack && {
        'sound-game': typicalMs('sound at the jack, game mode', 0, 10, 40),
        'sound-film': typicalMs('sound at the jack, without game mode', 10, 60, 140),
      }),
    },
    inside: ['game', 'film'].flatMap((mode) => [
      way('hdmi.picture', 'view.picture', when('mode', mode), latency(`picture-${mode}`)),
      ...(jack
        ? both('hdmi', 'jack', when('mode', mode), latency(`sound-${mode}`), toAnalogue([-3.8, 0, 2.2]), noise(-85))
        : []),
    ]),
  };
}

function capture(
  id: string,
  name: string,
  pictureMs: [number, number, number],
  soundMs: [number, number, number],
): DeviceType {
  return {
    id,
    name,
    family: 'capture',
    summary: 'Brings an HDMI picture with its sound into the computer. Picture and sound take different times.',
    ports: [
      input('hdmi', 'HDMI in', 'hdmi', 'digital', pictureAndStereo),
      output('usb', 'USB', 'usb-b', 'digital', pictureAndStereo),
    ],
    settings: [],
    figures: {
      picture: typicalMs('capture device, picture', ...pictureMs),
      sound: typicalMs('capture device, sound', ...soundMs),
    },
    inside: [
      way('hdmi.picture', 'usb.picture', latency('picture')),
      ...both('hdmi', 'usb', latency('sound'), noise(-96)),
    ],
  };
}
