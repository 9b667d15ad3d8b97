import { message } from '../message.ts';

/** The tour: seven things to do on a practice rig. */
export const tour = {
  title: message('Tour'),
  rigName: message('Practice rig: {rig}', { rig: 'text' }),
  at: message('Tour, {at, number} of {of, number}', { at: 'number', of: 'number' }),
  nextTitle: message('Do what comes next'),
  nextSays: message(
    'The line above always shows the one thing to do next, and why. Press <kbd>⇧Y</kbd>, or choose its first button.',
  ),
  wireTitle: message('See an issue on the map'),
  wireSays: message(
    'Press <kbd>j</kbd>, or choose a numbered mark. What the issue concerns stays bright; its cause and fixes are on the right.',
  ),
  fixTitle: message('Fix it'),
  fixSays: message(
    'Press <kbd>y</kbd> for <b>Already done</b>: the drawing is corrected. Or <kbd>d</kbd> for <b>Add to-do</b>: assumed until you tick it. No fix? Press <kbd>j</kbd> for the next issue.',
  ),
  routeTitle: message('See who gets what'),
  routeSays: message('Choose a cell, or move with the arrow keys. The whole path from that source is on the right.'),
  syncTitle: message('Bring it into time'),
  syncSays: message('Press <kbd>p</kbd> to have delays suggested, then <kbd>y</kbd> or <kbd>d</kbd>.'),
  measureTitle: message('Measure a take'),
  measureSays: message('Choose “couch clap”, or open a recording of your own. Nothing leaves this computer.'),
  runTitle: message('Work through the day'),
  runSays: message('Press <kbd>d</kbd> or choose Done: a session starts, and the next step is shown.'),
  done: message('Done.'),
  goThere: message('Go to {page}', { page: 'text' }),
  nextStep: message('Continue <kbd>⇧C</kbd>'),
  nextStepKey: message('Tour: next step'),
  skip: message('Skip <kbd>⇧C</kbd>'),
  back: message('Back'),
  leave: message('Leave the tour'),
  starting: message('Preparing the practice rig…'),
  finished: message('That’s the tour'),
  finishedSays: message(
    'The practice rig stays under Rigs until you delete it. Start the tour again with <kbd>?</kbd>. Now describe your own desk, or read the guides.',
  ),
  deleteRig: message('Delete the practice rig'),
  ownDesk: message('What’s on my desk'),
};
