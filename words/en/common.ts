import { message } from '../message.ts';

/** Words that every page uses: one word for one thing. */
export const common = {
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
};
