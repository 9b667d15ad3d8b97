import { findTypes, type Rig } from '#core/rig/index.ts';
import { type Evaluation, evaluate } from '#core/signal/index.ts';
import type { Context, Finding, Fix, Rule, Severity } from './finding.ts';
import { leadsOf } from './leads.ts';
import { lengthRules } from './lengths.ts';
import { levelRules } from './levels.ts';
import { loopRules } from './loops.ts';
import { planRules } from './plan.ts';
import { plugRules } from './plugs.ts';

/** Every rule that there is, family by family. */
export const RULES: readonly Rule[] = [...levelRules, ...plugRules, ...loopRules, ...planRules, ...lengthRules];

const WEIGHT: Record<Severity, number> = { stop: 0, fix: 1, watch: 2 };
const weightOf = ({ severity, aside }: Finding): number => WEIGHT[severity] + (aside ? 3 : 0);

/** What is wrong or doubtful in a rig, the worst first; in the order of the rules within a severity; what was put aside last. Pure. */
export function check(rig: Rig, evaluation: Evaluation = evaluate(rig)): Finding[] {
  const context = contextOf(rig, evaluation);
  return RULES.flatMap((r) => r.check(context)).sort((a, b) => weightOf(a) - weightOf(b));
}

function contextOf(rig: Rig, evaluation: Evaluation): Context {
  const types = findTypes(rig);
  return { rig, evaluation, types, leads: leadsOf(rig, types) };
}

/** Edits that mend a finding and break nothing that was right, each one step. */
export function fixesOf(rig: Rig, finding: Finding, evaluation: Evaluation = evaluate(rig)): readonly Fix[] {
  return RULES.find((r) => r.id === finding.rule)?.fixes(contextOf(rig, evaluation), finding) ?? [];
}
