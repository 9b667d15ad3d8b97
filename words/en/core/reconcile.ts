import { say } from '#core/desk-tests/reconcile/sayings.ts';
import { wordingOf } from '../../said.ts';

export const reconcile = wordingOf(say, {
  inThisRigThat: 'In this rig, that source doesn’t reach that destination. Choose another pair, or fix the rig.',
  thatDestinationIsnt:
    'That destination isn’t a recording, so its level isn’t in dBFS. Choose a track, a recorder or the stream.',
  inThisRigSource: 'In this rig, the source no longer reaches the destination.',
  isOnNoPath: '{device} is on no path any more.',
  noPathHasAll: 'No path has all of these figures together any more.',
  vs: '{device} vs. {device2}',
  thereIsNoIn: 'There is no {gone} in the rig any more.',
  source: 'the source',
  usedFor: '{pair}, used for {means}',
  withNothingPlaying: '{listener}, with nothing playing',
  thatDestinationNoLonger: 'That destination no longer exists.',
  through: '{pair}, through {between}',
  itGoesThroughOther: 'It goes through other devices now.',
  at: '{source} at {listener}',
  inThisRigThatDestination:
    'In this rig, that destination gets no video of the source. Choose another pair, or fix the rig.',
  everyFigureOnThis: 'Every figure on this path is already known exactly.',
  clockCantDriftAgainst: 'A clock can’t drift against itself. Choose two devices.',
  thereIsNoDevice: 'There is no device {missing} in this rig.',
  pathBetween: 'the path in between',
  stepLowCut: 'low cut',
  stepGate: 'gate',
  stepPresence: 'presence',
  stepDeEss: 'de-esser',
  stepCompressor: 'compressor',
  stepLimiter: 'limiter',
  isDelay: 'delay',
  isDrift: 'drift',
  isLevel: 'level',
  isNoise: 'noise',
  isFrom: 'from',
  isUpTo: 'up to',
});
