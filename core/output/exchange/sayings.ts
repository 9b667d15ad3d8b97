import { sayersOf } from '#core/base/said/index.ts';

/** Codes that exchange reports, with their parameters. Their sentences are in words/en/core/exchange.ts. */
export const say = sayersOf('exchange', {
  marker: { says: 'text' },
  moveByMs: {},
  moveByFramesAt: { rate: 'text' },
  moveBySamples: {},
  runsLongerPpm: {},
  lengthMs: {},
  startsInFileMs: {},
  tableHasNoColumn: { names: 'text' },
  tableHasRowRig: { rows: 'count', most: 'text' },
  unchanged: { id: 'text' },
  thereIsNoDevice: { device: 'name' },
  hasNoPort: { device: 'name', port: 'name' },
  isNotLengthIn: { length: 'name' },
  isntValidConnectionType: { medium: 'name', first: 'name', second: 'name' },
  connected: { id: 'text' },
  isNotCableOr: { part: 'name' },
  namesNoChannelsWrite: { channels: 'name' },
  edlCountsOrFrames: { rate: 'text' },
  edlHasRoomFor: { most: 'text' },
  track: {},
  file: {},
  speed: {},
  cableLength: { id: 'text', from: 'text', to: 'text' },
  partsOrChannels: { id: 'text' },
});
