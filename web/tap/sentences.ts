import type { Rig } from '#core/rig/index.ts';
import { sayDisagreement, sayPlan, type TapCell } from '#core/taptest/index.ts';

/** What is the matter with a reading, the gravest first. */
export const sentencesOf = (rig: Rig, cell: TapCell): string[] => {
  const apart = [...cell.disagreements].sort((a, b) => b.weight - a.weight).map((d) => sayDisagreement(rig, cell, d));
  const plan = sayPlan(rig, cell);
  return plan ? [...apart, plan] : apart;
};
