import { message } from '../message.ts';

/** Measured figures of a rig, and what depends on them. */
export const measurements = {
  measuredFigures: message('<measured>Measured</measured> figures'),
  measuredTable: message('Measured figures'),
  figure: message('Figure'),
  measured: message('Measured'),
  asDrawn: message('As drawn'),
  takenHead: message('Recorded'),
  whatToDo: message('What to do'),
  takeSyncTestAs: message(
    '{take, plural, one {# take} other {# takes}} of the <a>sync test</a> as well, which change nothing in the rig until you add them there.',
    { take: 'count' },
  ),
  removed: message('Removed: {speaksOf}', { speaksOf: 'text' }),
  itChangesNothing: message('{idle} It changes nothing.', { idle: 'text' }),
  wholeBandTestTune: message('the whole band of the test tune'),
  whatDependsOn: message('What depends on {speaksOf}', { speaksOf: 'text' }),
  whatDependsOnIt: message('What depends on it'),
  remove: message('Remove {speaksOf}', { speaksOf: 'text' }),
  reading: message(' ({times, plural, one {# reading} other {# readings}})', { times: 'count' }),
  notKnown: message('not known'),
  nothingDependsOnIt: message(
    'Nothing depends on it: all delays, bandwidths and noise figures would be the same without it.',
  ),
  withAndWithout: message('{sourceId} at {listenerId}: {what} {withIt}, without it {without}', {
    sourceId: 'name',
    listenerId: 'name',
    what: 'text',
    withIt: 'text',
    without: 'text',
  }),
  stateThen: message('{without} then)', { without: 'text' }),
  audioVsVideo: message('audio vs. video'),
  secondPathAfterFirst: message('the second path after the first'),
  everythingAbove: message('everything above'),
  lowToHigh: message('{low} to {above}', { low: 'text', above: 'text' }),

  nothingMeasured: message('Nothing measured yet: all figures are typical, with their ranges. <a>Measure</a> a take.'),
  orAllAtOnce: message('Or measure all paths at once with a <a>tap test</a>.'),
  figuresFromTakes: message(
    '{count, plural, one {# figure comes from a take} other {# figures come from takes}} instead of typical values.',
    { count: 'count' },
  ),
  outsideTypical: message('{count, number} outside the typical range of such gear.', { count: 'number' }),
  ofRemovedPaths: message('{count, number} of paths that no longer exist.', { count: 'number' }),
  whatRemovingDoes: message(
    'Removing a delay, noise or bandwidth figure restores the typical one. A knob or source level set from a take stays as set. Undo restores it.',
  ),
  pairsDepend: message(
    '{count, plural, one {# source–destination pair depends} other {# source–destination pairs depend}} on it.',
    { count: 'count' },
  ),
  wouldChange: message('{count, number} would change state without it.', { count: 'number' }),
  delay: message('delay'),
  bandwidth: message('bandwidth'),
  noise: message('noise'),
};
