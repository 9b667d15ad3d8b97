import type { Rig } from '#core/model/rig/index.ts';
import type { Finding } from '#core/rules/index.ts';
import type { NextStep } from './step.ts';

/** What weighs how much until it is gone: a want that is blocked, an issue, a pair in doubt, a take, an errand. */
export const BURDEN = { stop: 100, fix: 10, watch: 0, doubt: 2, take: 1, errand: 2 } as const;

/** A step before it has its place in the order. */
export interface Draft extends NextStep {
  readonly relieves: number;
}

/** A rig that steps lead to, and what is found in it. */
export interface Outcome {
  readonly rig: Rig;
  readonly findings: readonly Finding[];
}

/** What is wrong, by its id: what is ignored and what is only a warning is not. */
export const wrongIn = ({ findings }: Outcome): Map<string, Finding> =>
  new Map(findings.filter((f) => !f.dismissed && f.severity !== 'watch').map((f) => [f.id, f]));

/** What is wrong in one moment only is mended in that moment: it weighs half. */
const OF_A_MOMENT = 0.5;

export const burdenOf = (wrong: Iterable<Finding>): number => {
  let sum = 0;
  for (const { severity, momentId } of wrong) sum += BURDEN[severity] * (momentId === null ? 1 : OF_A_MOMENT);
  return sum;
};

export const NOTHING = { blockers: 0, fixes: 0, doubts: 0 } as const;
