import { message } from '../message.ts';

/** The command line. */
export const cli = {
  noIssues: message('No issues found.'),
  fix: message('  fix: {fix}', { fix: 'text' }),
};
