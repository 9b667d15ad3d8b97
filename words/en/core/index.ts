import { check } from './check.ts';
import { intake } from './intake.ts';
import { measure } from './measure.ts';
import { mix } from './mix.ts';
import { paths } from './paths.ts';
import { picture } from './picture.ts';
import { plan } from './plan.ts';
import { plug } from './plug.ts';
import { reconcile } from './reconcile.ts';
import { report } from './report.ts';
import { rig } from './rig.ts';
import { run } from './run.ts';
import { samples } from './samples.ts';
import { signal } from './signal.ts';
import { solve } from './solve.ts';
import { taptest } from './taptest.ts';
import { trouble } from './trouble.ts';
import { units } from './units.ts';
import { variant } from './variant.ts';
import { wire } from './wire.ts';

/** What core says, by subject: each folder of core that says anything has its sentences in the file of its name. */
export const core = {
  check,
  intake,
  measure,
  mix,
  paths,
  picture,
  plan,
  plug,
  reconcile,
  report,
  rig,
  run,
  samples,
  signal,
  solve,
  taptest,
  trouble,
  units,
  variant,
  wire,
};
