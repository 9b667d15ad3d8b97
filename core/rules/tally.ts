import type { Rig } from '#core/model/rig/index.ts';
import { type Evaluation, evaluate } from '#core/signal/index.ts';
import { check } from './check.ts';
import type { Finding, Severity } from './finding.ts';

/** How a rig stands, in numbers: those of the lists. What is ignored does not count. */
export interface Tally {
  readonly stops: number;
  readonly fixes: number;
  readonly watches: number;
}

export function tally(
  rig: Rig,
  evaluation: Evaluation = evaluate(rig),
  findings: readonly Finding[] = check(rig, evaluation),
): Tally {
  const count = (severity: Severity) => findings.filter((f) => f.severity === severity && !f.dismissed).length;
  // In time once something is done at the desk: nothing is found, and yet it is not good.
  const onceDone = evaluation.pairs.filter((p) => p.verdict.word === 'once-done').length;
  return { stops: count('stop'), fixes: count('fix'), watches: count('watch') + onceDone };
}
