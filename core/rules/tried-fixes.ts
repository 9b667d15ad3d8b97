import { applyEdit, type Rig } from '#core/model/rig/index.ts';
import { evaluate } from '#core/signal/index.ts';
import { check } from './check.ts';
import type { Finding, Fix } from './finding.ts';

/** A fix with what it would do to the list of findings. */
export interface TriedFix extends Fix {
  readonly gone: number;
  readonly come: readonly Finding[];
}

/** Findings that Wire lists: how late things arrive is read on Sync. */
export const wireFindings = (findings: readonly Finding[]): Finding[] => findings.filter((f) => f.stage !== 'sync');

/** What a fix would do to the findings of Wire, tried on the rig; null where it can't be made. */
export function tryFix(rig: Rig, fix: Fix, findings: readonly Finding[]): TriedFix | null {
  const done = applyEdit(rig, fix.edit);
  if (!done.ok) return null;
  const before = new Set(findings.map((f) => f.id));
  const after = wireFindings(check(done.rig, evaluate(done.rig)));
  const left = new Set(after.map((f) => f.id));
  return {
    ...fix,
    gone: findings.filter((f) => !left.has(f.id)).length,
    come: after.filter((f) => !before.has(f.id)),
  };
}
