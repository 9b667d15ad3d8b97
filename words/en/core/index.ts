import { check } from './check.ts';
import { measure } from './measure.ts';
import { paths } from './paths.ts';
import { picture } from './picture.ts';
import { plan } from './plan.ts';
import { reconcile } from './reconcile.ts';
import { report } from './report.ts';
import { rig } from './rig.ts';
import { run } from './run.ts';
import { samples } from './samples.ts';
import { signal } from './signal.ts';
import { taptest } from './taptest.ts';
import { trouble } from './trouble.ts';

/** What core says, by subject: each folder of core that says anything has its sentences in the file of its name. */
export const core = {
  check,
  run,
  trouble,
  plan,
  taptest,
  paths,
  reconcile,
  picture,
  measure,
  samples,
  signal,
  rig,
  report,
};
