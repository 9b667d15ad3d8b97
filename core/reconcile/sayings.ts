import { sayersOf } from '#core/said/index.ts';

/** What reconcile says, and what each needs. Its words stand in words/en/core/reconcile.ts. */
export const say = sayersOf('reconcile', {
  inThisRigThat: {},
  thatDestinationIsnt: {},
  inThisRigSource: {},
  isOnNoPath: { device: 'name' },
  noPathHasAll: {},
  vs: { device: 'name', device2: 'name' },
  thereIsNoIn: { gone: 'name' },
  source: {},
  usedFor: { pair: 'text', means: 'text' },
  withNothingPlaying: { listener: 'name' },
  thatDestinationNoLonger: {},
  through: { pair: 'text', between: 'text' },
  itGoesThroughOther: {},
  at: { source: 'name', listener: 'name' },
  inThisRigThatDestination: {},
  everyFigureOnThis: {},
  clockCantDriftAgainst: {},
  thereIsNoDevice: { missing: 'name' },
  pathBetween: {},
});
