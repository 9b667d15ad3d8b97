import { check } from './check.ts';
import { run } from './run.ts';
import { trouble } from './trouble.ts';

/** What core says, by subject: each folder of core that says anything has its sentences in the file of its name. */
export const core = { check, run, trouble };
