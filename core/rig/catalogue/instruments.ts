import type { DeviceType, LevelClass, PortSpec } from '../schema-type.ts';
import { battery, mains, mono, output, stereo, unpowered } from './parts.ts';

/** Something that plays by itself into a lead: its sound begins at the socket. */
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

export const instruments: DeviceType[] = [
  player(
    'guitar-electric',
    'Electric guitar or bass',
    'A pickup without power: it wants an instrument input, or a DI box.',
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
  player(
    'dj-controller',
    'DJ mixer or controller',
    'Two decks and a mix at line level.',
    ['phono-pair', 'line', stereo],
    {
      power: mains,
      priceEur: [150, 1200],
    },
  ),
  withOptical(
    player(
      'music-box',
      'Music player, a box of its own',
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
  inRoom('guitar-amp', 'Guitar amplifier', 'Loud in the room: a microphone stands in front of it.', 0.3, {
    power: mains,
    priceEur: [80, 900],
  }),
  inRoom('instrument-acoustic', 'Instrument without a plug', 'It is heard in the room, and by microphones.', 1, {
    power: unpowered,
    priceEur: [50, 3000],
  }),
];
