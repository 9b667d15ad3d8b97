import type { Rig } from '#core/rig/index.ts';
import { type Evaluation, evaluate } from '#core/signal/index.ts';
import { contextOf } from './context.ts';
import { exclusiveRules } from './exclusive.ts';
import type { Finding, Fix, Rule, Severity } from './finding.ts';
import { groundingRules } from './grounding.ts';
import { lengthRules } from './lengths.ts';
import { levelRules } from './levels.ts';
import { loopRules } from './loops.ts';
import { movingRules } from './moving.ts';
import { pictureRules } from './picture.ts';
import { idleRules, planRules } from './plan.ts';
import { plugRules } from './plugs.ts';
import { powerRules } from './power.ts';
import { roomRules } from './room.ts';
import { usbRules } from './usb.ts';

/** Every rule that there is, family by family. */
export const RULES: readonly Rule[] = [
  ...levelRules,
  ...plugRules,
  ...pictureRules,
  ...powerRules,
  ...usbRules,
  ...groundingRules,
  ...exclusiveRules,
  ...movingRules,
  ...roomRules,
  ...loopRules,
  ...planRules,
  ...idleRules,
  ...lengthRules,
];

const WEIGHT: Record<Severity, number> = { stop: 0, fix: 1, watch: 2 };
const weightOf = ({ severity, aside }: Finding): number => WEIGHT[severity] + (aside ? 3 : 0);

/** What is wrong or doubtful in a rig, the worst first; in the order of the rules within a severity; what was put aside last. Pure. */
export function check(rig: Rig, evaluation: Evaluation = evaluate(rig)): Finding[] {
  const context = contextOf(rig, evaluation);
  return RULES.flatMap((r) => r.check(context)).sort((a, b) => weightOf(a) - weightOf(b));
}

/** Edits that mend a finding and break nothing that was right, each one step. */
export function fixesOf(rig: Rig, finding: Finding, evaluation: Evaluation = evaluate(rig)): readonly Fix[] {
  return RULES.find((r) => r.id === finding.rule)?.fixes(contextOf(rig, evaluation), finding) ?? [];
}
