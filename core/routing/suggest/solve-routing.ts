import type { Rig, SettingChange } from '#core/model/rig/index.ts';
import { type Evaluation, evaluate, type Stop } from '#core/signal/index.ts';
import { withSettings } from './flips.ts';
import type { Cost } from './price.ts';
import { better, type Need, Search, type Second, stopOf } from './search.ts';
import { levelsWrong, type Wrong, wrongsOf } from './wrongs.ts';

/** Rigs that are looked at in all, so that it ends however large the desk is. */
const MAX_EVALUATIONS = 2500;

/** A setting to be changed, with what for. */
interface Made extends SettingChange, Need {}

/** What could not be had by settings, and why. */
export interface Left extends Wrong {
  readonly stop: Stop | null;
}

export interface MadeSo {
  readonly changes: readonly Made[];
  /** Why these: what they cost, by all that is worse for them. */
  readonly costs: readonly Cost[];
  /** The cheapest of all other sets that were found, none of whose settings could stay as it is. */
  readonly second: Second | null;
  readonly left: readonly Left[];
  /** No set of as few settings, all of them needed, costs less: all were tried. */
  readonly proved: boolean;
  /** Rigs that were looked at. */
  readonly evaluations: number;
}

/**
 * The settings to be changed so that everything the plan says must arrive does, once, at the level that is wanted, and
 * nothing that must not; with no loop that howls and did not before. Of all sets that do, the one that costs least by
 * `POINTS`: what a good engineer would mind. A beam finds one; then all sets of as few settings are tried, in order of
 * their number. What no setting can achieve is left out and reported.
 */
export function solveRouting(
  rig: Rig,
  evaluation: Evaluation = evaluate(rig),
  mostEvaluations = MAX_EVALUATIONS,
): MadeSo {
  const search = new Search(rig, evaluation, mostEvaluations, false);
  const doors = search.run();
  // Where doors are not enough, levels in between may be.
  const stuck = doors.wrongs.some((w) => w.word !== 'missing');
  const withLevels = stuck ? new Search(rig, evaluation, mostEvaluations, true, search.looked) : null;
  const between = withLevels?.run();
  const used = between && better(between, doors) < 0 ? withLevels! : search;
  const best = used.balanced(used === search ? doors : between!);
  const done = withSettings(rig, best.changes);
  const after = evaluate(done, evaluation);
  const left = [...wrongsOf(after), ...levelsWrong(after)];
  return {
    changes: best.changes.map((change) => ({ ...change, ...used.needOf(best, change) })),
    costs: used.costsOf(best.changes, after),
    second: used.second(best),
    left: left.map((w) => ({ ...w, stop: stopOf(done, after, w) })),
    proved: used.proved,
    evaluations: used.looked,
  };
}
