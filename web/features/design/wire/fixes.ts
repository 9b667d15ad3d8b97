import { useDeferredValue, useMemo } from 'react';
import { applyEdit, type Rig } from '#core/model/rig/index.ts';
import { check, type Finding, type Fix, fixesOf } from '#core/rules/index.ts';
import { type Evaluation, evaluate } from '#core/signal/index.ts';

/** A fix with what it would do to the list of findings. */
export interface TriedFix extends Fix {
  readonly gone: number;
  readonly come: readonly Finding[];
}

/** What would mend a finding, each tried on the rig. */
export function tryFixes(rig: Rig, evaluation: Evaluation, finding: Finding, findings: readonly Finding[]): TriedFix[] {
  const before = new Set(findings.map((f) => f.id));
  return fixesOf(rig, finding, evaluation).flatMap((fix): TriedFix[] => {
    const done = applyEdit(rig, fix.edit);
    if (!done.ok) return [];
    const after = check(done.rig, evaluate(done.rig)).filter((f) => f.stage !== 'sync');
    const left = new Set(after.map((f) => f.id));
    return [
      {
        ...fix,
        gone: findings.filter((f) => !left.has(f.id)).length,
        come: after.filter((f) => !before.has(f.id)),
      },
    ];
  });
}

/** The fixes, tried once everything else that an edit changed is on the screen; null until then. */
export function useTriedFixes(
  rig: Rig,
  evaluation: Evaluation,
  finding: Finding,
  findings: readonly Finding[],
): readonly TriedFix[] | null {
  const now = useMemo(() => ({ rig, evaluation, finding, findings }), [rig, evaluation, finding, findings]);
  const asked = useDeferredValue<typeof now | null>(now, null);
  const fixes = useMemo(() => asked && tryFixes(asked.rig, asked.evaluation, asked.finding, asked.findings), [asked]);
  return asked === now ? fixes : null;
}
