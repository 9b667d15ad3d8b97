import { say } from '#core/output/exchange/sayings.ts';
import { wordingOf } from '../../said.ts';

export const exchange = wordingOf(say, {
  marker: 'marker: {says}',
  moveByMs: 'move by, ms',
  moveByFramesAt: 'move by, frames at {rate}',
  moveBySamples: 'move by, samples',
  runsLongerPpm: 'runs longer, ppm',
  lengthMs: 'length, ms',
  startsInFileMs: 'starts in the file, ms',
  tableHasNoColumn: 'The table has no column {names}. Export the cables once to see the format.',
  tableHasRowRig:
    'The table has {rows, plural, one {# row} other {# rows}}; a rig has at most {most} cables. Cut it to the cables of this rig.',
  unchanged: '{id}: unchanged',
  thereIsNoDevice: 'There is no device {device} in the rig.',
  severalAreCalled: 'Several are called {name}: keep the columns “from” and “to”, which tell them apart.',
  hasNoPort: '{device} has no port {port}.',
  isNotLengthIn: '{length} is not a length in meters, 0 to 1000.',
  isntValidConnectionType: '{medium} isn’t a valid connection type. Use {first} or {second}.',
  connected: '{id}: connected',
  isNotCableOr: '{part} is not a cable or adapter of the list.',
  namesNoChannelsWrite: '{channels} names no channels. Write left=ch-3 right=ch-4.',
  edlCountsOrFrames:
    'An EDL counts 24, 25 or 30 frames per second, or twice that; this is {rate}. Use the CSV or the timeline.',
  edlHasRoomFor: 'An EDL has room for {most} events. Use the CSV or the timeline.',
  track: 'track',
  file: 'file',
  speed: 'speed',
  cableLength: '{id}: {from} to {to} m',
  partsOrChannels: '{id}: parts or channels',
});
