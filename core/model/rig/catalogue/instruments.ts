import type { DeviceType, LevelClass, PortSpec } from '#core/model/rig/schema-type.ts';
import {
  battery,
  both,
  ceiling,
  earthedMains,
  gain,
  gainSetting,
  input,
  latency,
  levelSetting,
  mains,
  mono,
  noise,
  output,
  ownClock,
  point,
  sounds,
  stereo,
  toAnalogue,
  toBothSides,
  toDigital,
  typicalMs,
  unpowered,
  way,
} from './parts.ts';

/** Something that plays by itself into a cable: its sound begins at the socket. */
function player(
  id: string,
  name: string,
  summary: string,
  socket: readonly [connector: string, level: LevelClass, channels: PortSpec['channels']],
  more: Pick<DeviceType, 'power' | 'priceEur' | 'needs'>,
): DeviceType {
  const [connector, level, channels] = socket;
  return {
    id,
    name,
    family: 'instruments',
    summary,
    ...more,
    ports: [output('out', 'output', connector, level, channels, { does: 'music' })],
    settings: [],
    figures: {},
    inside: [],
  };
}

/** The same as bits by light. */
const withOptical = (type: DeviceType): DeviceType => ({
  ...type,
  ports: [
    ...type.ports,
    output('optical', 'optical out', 'toslink', 'digital', stereo, { does: 'music', isolated: true }),
  ],
});

/** Something that plays into the room. */
function inRoom(
  id: string,
  name: string,
  summary: string,
  referenceM: number,
  more: Pick<DeviceType, 'power' | 'priceEur'>,
): DeviceType {
  return {
    id,
    name,
    family: 'instruments',
    summary,
    ...more,
    ports: [output('front', 'sound', 'air', 'air', mono, { referenceM, does: 'music' })],
    settings: [],
    figures: {},
    inside: [],
  };
}

/** Decks that play by themselves or by a program: their mix leaves by a line and over USB, with a mic in it. */
function djController(): DeviceType {
  return {
    id: 'dj-controller',
    name: 'DJ mixer or controller',
    family: 'instruments',
    summary: 'Two decks, a mic and what a DJ app plays, mixed: to a line output, to headphones, and over USB.',
    power: mains,
    priceEur: [150, 1200],
    ports: [
      output('decks', 'decks', 'inside', 'digital', stereo, { does: 'music' }),
      input('mic', 'mic', 'combo-xlr', 'microphone', mono),
      input('usb-in', 'USB, what a app plays', 'usb-b', 'digital', stereo, { socket: 'usb' }),
      output('out', 'main out', 'phono-pair', 'line', stereo),
      output('usb', 'USB, the mix', 'usb-b', 'digital', stereo, { socket: 'usb' }),
      output('phones', 'headphones', 'jack-635-trs', 'headphone', stereo),
      point('mix', 'mix', stereo),
    ],
    settings: [
      gainSetting('mic-gain', 'Mic, gain', [0, 35, 60]),
      levelSetting('decks-level', 'Decks, level', -6),
      levelSetting('master', 'Main level', 0),
      levelSetting('phones-level', 'Headphones level', -20, 0),
    ],
    figures: {
      'usb-out': typicalMs('DJ mixer, to the computer', 3, 6, 12),
      'usb-in': typicalMs('DJ mixer, from the computer', 3, 6, 12),
    },
    inside: [
      ...both('decks', 'mix', gain('decks-level')),
      ...toBothSides('mic', 'mix', noise(-122), gain('mic-gain'), toDigital([14, 18, 22]), ownClock),
      ...both('usb-in', 'mix', latency('usb-in'), ownClock),
      ...both('mix', 'out', gain('master'), toAnalogue([2, 8, 14]), noise(-90)),
      ...both('mix', 'usb', gain('master'), ceiling(0), latency('usb-out')),
      ...both('mix', 'phones', gain('phones-level'), toAnalogue([8, 12, 16]), noise(-92)),
    ],
  };
}

export const instruments: DeviceType[] = [
  player(
    'guitar-electric',
    'Electric guitar or bass',
    'A pickup without power: it needs an instrument input, or a DI box.',
    ['jack-635-ts', 'microphone', mono],
    { power: unpowered, priceEur: [100, 900], needs: ['an instrument input or a DI box'] },
  ),
  player(
    'guitar-acoustic',
    'Acoustic guitar with pickup',
    'A pickup with a small preamp of its own.',
    ['jack-635-ts', 'microphone', mono],
    { power: battery(30), priceEur: [150, 900] },
  ),
  player(
    'keyboard',
    'Keyboard or synthesizer',
    'Plays at line level, left and right.',
    ['jack-635-pair', 'line', stereo],
    { power: mains, priceEur: [100, 1500] },
  ),
  player('drum-machine', 'Drum machine or sampler', 'Plays at line level.', ['jack-635-pair', 'line', stereo], {
    power: mains,
    priceEur: [80, 800],
  }),
  player(
    'turntable',
    'Turntable with its own preamp',
    'Plays records at line level; one without a preamp needs a phono input.',
    ['phono-pair', 'line', stereo],
    { power: mains, priceEur: [80, 500] },
  ),
  djController(),
  withOptical(
    player(
      'music-box',
      'Music player, a device of its own',
      'A player for discs, cards or the network, at line level.',
      ['phono-pair', 'line', stereo],
      { power: mains, priceEur: [40, 300] },
    ),
  ),
  player(
    'venue-feed',
    'Feed from a venue’s desk',
    'What the house desk sends: a balanced line, at a level that one asks for.',
    ['xlr-male', 'line', mono],
    { power: unpowered, priceEur: [0, 0], needs: ['the level from whoever mixes in the house'] },
  ),
  {
    id: 'effects-pedal',
    name: 'Effects pedal or pedalboard',
    family: 'instruments',
    summary: 'Between a guitar and what it goes into; takes an instrument, and gives one.',
    power: { by: ['mains', 'battery'], hours: 20 },
    priceEur: [30, 400],
    ports: [
      input('in', 'in', 'jack-635-ts', 'microphone', mono),
      output('out', 'out', 'jack-635-ts', 'microphone', mono),
    ],
    settings: [gainSetting('level', 'Level', [-20, 0, 20])],
    figures: { through: typicalMs('through the pedals', 0, 1, 5) },
    inside: [way('in.mono', 'out.mono', gain('level'), latency('through'), ceiling(0), noise(-95))],
  },
  {
    id: 'guitar-amp',
    name: 'Guitar amplifier',
    family: 'instruments',
    summary: 'Loud in the room: a mic stands in front of it, or a line goes on from it.',
    power: earthedMains,
    priceEur: [80, 900],
    ports: [
      input('in', 'instrument in', 'jack-635-ts', 'microphone', mono),
      sounds('front', 'loudspeaker', mono, 0.3),
      output('line', 'line out', 'jack-635-ts', 'line', mono),
    ],
    settings: [levelSetting('volume', 'Volume', 0, 20)],
    figures: {},
    inside: [
      way('in.mono', 'front.mono', gain('volume'), noise(-95), { do: 'fixed-gain', db: 14 }, ceiling(18), {
        do: 'radiate',
        splAt0Dbu: [92, 98, 104],
      }),
      way('in.mono', 'line.mono', gain('volume'), noise(-95), { do: 'fixed-gain', db: 14 }, ceiling(18)),
    ],
  },
  inRoom('instrument-acoustic', 'Instrument without a plug', 'It is heard in the room, and by microphones.', 1, {
    power: unpowered,
    priceEur: [50, 3000],
  }),
];
