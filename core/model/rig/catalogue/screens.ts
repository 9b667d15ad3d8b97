import type { DeviceType, PortSpec, Range } from '#core/model/rig/schema-type.ts';
import {
  battery,
  both,
  delay,
  delaySetting,
  earthedMains,
  gain,
  input,
  latency,
  levelSetting,
  mains,
  noise,
  output,
  ownClock,
  picture,
  pictureAndStereo,
  sounds,
  stereo,
  switchSetting,
  toAnalogue,
  toDigital,
  together,
  typicalMs,
  way,
  when,
} from './parts.ts';

interface Screen {
  readonly id: string;
  readonly name: string;
  readonly summary: string;
  readonly jack: boolean;
  /** Whether it plays into the room itself. */
  readonly speakers?: true;
  readonly gameMs: Range;
  readonly filmMs: Range;
  readonly preset: 'game' | 'film';
  readonly picture: NonNullable<PortSpec['picture']>;
  readonly more: Pick<DeviceType, 'power' | 'priceEur'>;
}

const MODES = { game: 'game', film: 'film' };
const MODE_IDS = ['game', 'film'] as const;

/** The sound of a screen's jack comes as its picture, 20 ms to either side (typical). */
const asPicture = ([low, nominal, high]: Range): Range => [Math.max(0, low - 20), nominal, high + 20];

/** A screen in one of two modes; its jack is as late as the mode makes it. */
function screen({
  id,
  name,
  summary,
  jack,
  speakers,
  gameMs,
  filmMs,
  preset,
  picture: ability,
  more,
}: Screen): DeviceType {
  return {
    id,
    name,
    family: 'screens',
    shows: { picture: true },
    summary,
    ...more,
    ports: [
      input('hdmi', 'HDMI in', 'hdmi', 'digital', pictureAndStereo, { picture: ability }),
      output('view', 'video seen', 'light', 'light', picture, { does: 'view' }),
      ...(jack ? [output('jack', 'headphone jack', 'jack-35-trs', 'headphone', stereo)] : []),
      ...(speakers
        ? [
            sounds('front', 'loudspeakers', stereo, 1),
            output('optical', 'optical out', 'toslink', 'digital' as const, stereo),
            output('arc', 'HDMI ARC, audio out', 'hdmi', 'digital' as const, stereo),
            output('bluetooth', 'Bluetooth, audio out', 'bluetooth', 'digital' as const, stereo),
          ]
        : []),
    ],
    settings: [
      switchSetting('mode', 'Video mode', MODES, preset),
      ...(speakers ? [levelSetting('volume', 'Volume', -20, 0)] : []),
    ],
    figures: {
      'picture-game': typicalMs('display in game mode', ...gameMs),
      'picture-film': typicalMs('display without game mode', ...filmMs),
      ...(jack && {
        'sound-game': typicalMs('audio at the jack, game mode', ...asPicture(gameMs)),
        'sound-film': typicalMs('audio at the jack, without game mode', ...asPicture(filmMs)),
      }),
    },
    ...(jack && {
      together: MODE_IDS.map((mode) =>
        together(
          `sound-${mode}`,
          `picture-${mode}`,
          [-20, 0, 20],
          'the audio of a display’s jack as its video, typical',
        ),
      ),
    }),
    inside: ['game', 'film'].flatMap((mode) => [
      way('hdmi.picture', 'view.picture', when('mode', mode), latency(`picture-${mode}`)),
      ...(jack
        ? both('hdmi', 'jack', when('mode', mode), latency(`sound-${mode}`), toAnalogue([-3.8, 0, 2.2]), noise(-85))
        : []),
      ...(speakers
        ? ['optical', 'arc', 'bluetooth'].flatMap((out) =>
            both('hdmi', out, when('mode', mode), latency(`sound-${mode}`)),
          )
        : []),
      ...(speakers
        ? both('hdmi', 'front', when('mode', mode), latency(`sound-${mode}`), toAnalogue([0, 0, 0]), gain('volume'), {
            do: 'radiate',
            splAt0Dbu: [80, 86, 92],
          })
        : []),
    ]),
  };
}

const TYPICAL: Pick<Screen, 'gameMs' | 'filmMs' | 'preset'> = {
  gameMs: [5, 10, 20],
  filmMs: [30, 60, 120],
  preset: 'game',
};

/** The jack of a monitor-recorder: what is plugged there is converted and can be delayed. */
const preamp: DeviceType['inside'][number]['stages'] = [
  noise(-118),
  gain('microphone-gain'),
  toDigital([0, 2, 4]),
  latency('sound'),
  ownClock,
  delay('microphone-delay'),
];

export const screens: DeviceType[] = [
  screen({
    ...TYPICAL,
    id: 'screen-with-jack',
    name: 'Display with headphone jack',
    summary: 'Shows the video; its audio leaves by a headphone jack.',
    jack: true,
    picture: { link: 'tmds-600', protection: '2.2' },
    more: { power: earthedMains, priceEur: [150, 500] },
  }),
  screen({
    ...TYPICAL,
    id: 'screen',
    name: 'Display without a jack',
    summary: 'Shows the video only.',
    jack: false,
    picture: { link: 'tmds-600', protection: '2.2' },
    more: { power: mains, priceEur: [120, 400] },
  }),
  screen({
    ...TYPICAL,
    id: 'television',
    name: 'Television',
    summary: 'Large, and late unless its game mode is on. Its antenna cable joins it to the building’s ground.',
    jack: true,
    speakers: true,
    preset: 'film',
    picture: { link: 'frl-40', protection: '2.2' },
    more: { power: mains, priceEur: [250, 900] },
  }),
  screen({
    ...TYPICAL,
    id: 'projector',
    name: 'Projector',
    summary: 'Throws the video on a wall, at most 1080p.',
    jack: true,
    gameMs: [16, 33, 50],
    filmMs: [50, 90, 140],
    preset: 'film',
    picture: { link: 'tmds-340', most: '1920x1080@60', protection: '1.4' },
    more: { power: earthedMains, priceEur: [300, 900] },
  }),
  {
    id: 'soundbar',
    name: 'Soundbar',
    family: 'screens',
    shows: { picture: true },
    summary: 'Stands under the television and plays what comes by HDMI, optical or a jack; its processing takes time.',
    power: mains,
    priceEur: [80, 600],
    ports: [
      input('hdmi', 'HDMI', 'hdmi', 'digital', stereo),
      input('optical', 'optical in', 'toslink', 'digital', stereo),
      input('line', 'line in', 'jack-35-trs', 'line', stereo),
      input('bluetooth', 'Bluetooth', 'bluetooth', 'digital', stereo),
      sounds('front', 'loudspeakers', stereo, 1),
    ],
    settings: [
      switchSetting(
        'input',
        'Input',
        { hdmi: 'HDMI', optical: 'optical', line: 'line in', bluetooth: 'Bluetooth' },
        'hdmi',
      ),
      levelSetting('volume', 'Volume', -20, 0),
    ],
    figures: {
      process: typicalMs('soundbar, its processing', 5, 40, 120),
      bluetooth: typicalMs('Bluetooth, to a speaker', 100, 180, 300),
    },
    inside: (['hdmi', 'optical', 'line', 'bluetooth'] as const).flatMap((from) =>
      both(
        from,
        'front',
        when('input', from),
        ...(from === 'line' ? [toDigital([2, 6, 10])] : []),
        ...(from === 'bluetooth' ? [latency('bluetooth')] : []),
        latency('process'),
        toAnalogue([0, 0, 0]),
        gain('volume'),
        { do: 'radiate', splAt0Dbu: [82, 88, 94] },
      ),
    ),
  },
  {
    id: 'monitor-recorder',
    name: 'Monitor-recorder over HDMI',
    family: 'screens',
    shows: { picture: true },
    summary:
      'Shows and records a camera’s HDMI, with a microphone jack of its own whose audio can be delayed to meet the picture.',
    power: battery(2),
    priceEur: [350, 700],
    ports: [
      input('hdmi', 'HDMI in', 'hdmi', 'digital', pictureAndStereo, {
        picture: { link: 'tmds-600', protection: 'none' },
      }),
      input('microphone', 'microphone jack', 'jack-35-trs', 'microphone', stereo, {
        gives: { kind: 'plug-in', milliamps: 1 },
      }),
      output('file', 'recording', 'file', 'digital', pictureAndStereo),
      output('view', 'video seen', 'light', 'light', picture, { does: 'view' }),
      output('jack', 'headphone jack', 'jack-35-trs', 'headphone', stereo),
    ],
    settings: [
      switchSetting(
        'sound-from',
        'Audio recorded from',
        { hdmi: 'HDMI', microphone: 'the jack', both: 'HDMI on the left, the jack on the right' },
        'hdmi',
      ),
      levelSetting('microphone-gain', 'Microphone gain', 30, 50),
      delaySetting('microphone-delay', 'Microphone delay', 500),
    ],
    figures: {
      picture: typicalMs('monitor-recorder, video to its display', 20, 40, 80),
      sound: typicalMs('monitor-recorder, converter', 1, 3, 8),
    },
    inside: [
      way('hdmi.picture', 'file.picture'),
      way('hdmi.picture', 'view.picture', latency('picture')),
      ...both('hdmi', 'file', when('sound-from', 'hdmi')),
      ...both('hdmi', 'jack', when('sound-from', 'hdmi'), toAnalogue([-3.8, 0, 2.2]), noise(-85)),
      ...both('microphone', 'file', when('sound-from', 'microphone'), ...preamp),
      way('hdmi.left', 'file.left', when('sound-from', 'both')),
      way('microphone.left', 'file.right', when('sound-from', 'both'), ...preamp),
      ...both('microphone', 'jack', when('sound-from', 'microphone'), ...preamp, toAnalogue([-3.8, 0, 2.2])),
      way('hdmi.left', 'jack.left', when('sound-from', 'both'), toAnalogue([-3.8, 0, 2.2]), noise(-85)),
      way('microphone.left', 'jack.right', when('sound-from', 'both'), ...preamp, toAnalogue([-3.8, 0, 2.2])),
    ],
  },
  {
    id: 'screen-loudspeakers',
    name: 'Display with speakers',
    family: 'screens',
    shows: { picture: true },
    summary: 'Shows the video and plays its audio into the room, later than its own jack where it processes it.',
    power: mains,
    priceEur: [140, 450],
    ports: [
      input('hdmi', 'HDMI in', 'hdmi', 'digital', pictureAndStereo, {
        picture: { link: 'tmds-600', protection: '2.2' },
      }),
      output('view', 'video seen', 'light', 'light', picture, { does: 'view' }),
      sounds('front', 'loudspeakers', stereo, 1),
    ],
    settings: [switchSetting('mode', 'Video mode', MODES, 'game'), levelSetting('volume', 'Volume', -20, 0)],
    figures: {
      'picture-game': typicalMs('display in game mode', 5, 10, 20),
      'picture-film': typicalMs('display without game mode', 30, 60, 120),
      sound: typicalMs('audio to its speakers', 5, 20, 80),
    },
    inside: [
      ...['game', 'film'].map((mode) =>
        way('hdmi.picture', 'view.picture', when('mode', mode), latency(`picture-${mode}`)),
      ),
      ...both('hdmi', 'front', latency('sound'), toAnalogue([0, 0, 0]), gain('volume'), {
        do: 'radiate',
        splAt0Dbu: [80, 86, 92],
      }),
    ],
  },
];
