import { message } from '../message.ts';

/** The to-do list: things to check, things to do. */
export const toDo = {
  answeredStep: message('Confirmed: {item} {given}', { item: 'text', given: 'text' }),
  cancelledStep: message('Task canceled'),
  next: message('Next'),
  previous: message('Previous'),
  yesThatsRight: message('Yes, that’s right'),
  firstAnswerSecondAnd: message('The first answer; 2 the second, and so on'),
  done: message('Done'),
  cancelThisTask: message('Cancel this task'),
  allDoneEverythingThat: message(
    'All done: everything that matters is confirmed. Fixes you choose in Wire, Route, Level and Sync are listed here until you tick them.',
  ),
  affectsResult: message('affects {decides, plural, one {# result} other {# results}}', { decides: 'count' }),
  openSince: message('open since {openedAt}', { openedAt: 'text' }),
  lengthM: message('Length, m'),
  lengthAnswer: message('{lengthM} m', { lengthM: 'text' }),
  setLength: message('Set length'),
  toCheck: message('To check'),
  toDo: message('To do'),
  doneD: message('Done <kbd>d</kbd>'),
  cancelThisTaskN: message('Cancel this task <kbd>n</kbd>'),
  ifAssumptionIsRight: message('If the assumption is right'),
  differentAnswerWouldChange: message(
    'A different answer would change the result for {pair, plural, one {# source–destination pair} other {# source–destination pairs}}.',
    { pair: 'count' },
  ),
  turnVolumesDownBefore: message('Turn volumes down before you plug or press anything.'),

  behindIssues: message('behind {count, plural, one {# issue} other {# issues}}', { count: 'count' }),
  counts: message(
    '{toCheck, number} to check, {toDo, number} to do. {more, plural, =0 {} one {# more assumption would change a result.} other {# more assumptions would change a result.}}',
    { toCheck: 'number', toDo: 'number', more: 'count' },
  ),
  lengthInMeters: message('Type a length from 0 to 1000 m.'),
};
