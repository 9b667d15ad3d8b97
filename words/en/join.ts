import { message } from '../message.ts';

/** Synced takes: aligned by content. */
export const join = {
  syncedTakes: message('Synced takes'),
  selectTwoTakesOr: message('Select two takes or more in Measure.'),
  takeAlignedByContent: message(
    '{take, plural, one {# take} other {# takes}}, aligned by content. Takes that don’t overlap are placed through ones that do.',
    { take: 'count' },
  ),
  with: message('With {first}', { first: 'name' }),
  takeOneSession: message('{take, plural, one {# take} other {# takes}} of one session', { take: 'count' }),
  timelineTakes: message('Timeline of {takes, number} takes', { takes: 'number' }),
  twoChainsMatchesDisagree: message(
    'Two chains of matches disagree by {contradictsMs} ms: one take may have a dropout. Compare them two at a time in Measure.',
    { contradictsMs: 'text' },
  ),
  take: message('Take'),
  startsAfterFirstMs: message('Starts after the first, ms'),
  length: message('Length'),
  runsLonger: message('<drift>Runs longer</drift>, ppm'),
  comparedWithConfidence: message('Compared with, <confidence>confidence</confidence>'),
  reference: message('reference'),
  tooShortToSay: message('too short to say'),
  compareClosely: message('Compare closely'),
  nothingInCommonWith: message('{join}: nothing in common with the other takes.', { join: 'text' }),
};
