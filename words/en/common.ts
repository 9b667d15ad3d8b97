import { message } from '../message.ts';

/** Words that every page uses: one word for one thing, and the two verbs. */
export const common = {
  /** It is like this at the desk: the drawing is corrected, and confirmed. */
  alreadyDone: message('Already done'),
  /** It has still to be done at the desk: assumed until it is ticked. */
  addToDo: message('Add to-do'),
  cancel: message('Cancel'),
  close: message('Close'),
  delete: message('Delete'),
  dismiss: message('Dismiss'),
  remove: message('Remove'),
  undo: message('Undo'),
  redo: message('Redo'),
  tryAgain: message('Try again'),
  /** The four states, and the dash. */
  good: message('OK'),
  warning: message('warning'),
  toFix: message('to fix'),
  blocker: message('blocker'),
  notChecked: message('not checked'),
  none: message('none'),
  source: message('Source'),
  quoted: message('{name}', { name: 'name' }),
  nothing: message('nothing'),
  serverSilent: message('The server isn’t responding.'),
};
