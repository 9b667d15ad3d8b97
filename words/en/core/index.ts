import { drawn } from './drawn.ts';
import { exchange } from './exchange.ts';
import { intake } from './intake.ts';
import { measure } from './measure.ts';
import { mix } from './mix.ts';
import { next } from './next.ts';
import { picture } from './picture.ts';
import { plan } from './plan.ts';
import { plug } from './plug.ts';
import { reconcile } from './reconcile.ts';
import { rig } from './rig.ts';
import { check } from './rules.ts';
import { run } from './run.ts';
import { samples } from './samples.ts';
import { sheets } from './sheets.ts';
import { signal } from './signal.ts';
import { solve } from './suggest.ts';
import { paths } from './sync-test.ts';
import { taptest } from './tap-test.ts';
import { trouble } from './troubleshoot.ts';
import { units } from './units.ts';
import { variant } from './variants.ts';
import { wire } from './wiring.ts';

/** What core says, by subject: each folder of core that says anything has its sentences in the file of its name. */
export const core = {
  check,
  drawn,
  intake,
  measure,
  mix,
  next,
  paths,
  picture,
  plan,
  plug,
  reconcile,
  exchange,
  sheets,
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
