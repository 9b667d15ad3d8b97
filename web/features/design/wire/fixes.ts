import { useEffect, useMemo, useState } from 'react';
import { applyEdit, type Rig } from '#core/model/rig/index.ts';
import { check, type Finding, type Fix, fixesOf } from '#core/rules/index.ts';
import { type Evaluation, evaluate } from '#core/signal/index.ts';

/** A fix with what it would do to the list of findings. */
export interface TriedFix extends Fix {
  readonly gone: number;
  readonly come: readonly Finding[];
}

/** What a fix would do to the list of findings, tried on the rig; null where it can't be made. */
function tryFix(rig: Rig, fix: Fix, findings: readonly Finding[]): TriedFix | null {
  const done = applyEdit(rig, fix.edit);
  if (!done.ok) return null;
  const before = new Set(findings.map((f) => f.id));
  const after = check(done.rig, evaluate(done.rig)).filter((f) => f.stage !== 'sync');
  const left = new Set(after.map((f) => f.id));
  return {
    ...fix,
    gone: findings.filter((f) => !left.has(f.id)).length,
    come: after.filter((f) => !before.has(f.id)),
  };
}

/** What would mend a finding, each tried on the rig. */
export const tryFixes = (
  rig: Rig,
  evaluation: Evaluation,
  finding: Finding,
  findings: readonly Finding[],
): TriedFix[] => fixesOf(rig, finding, evaluation).flatMap((fix) => tryFix(rig, fix, findings) ?? []);

interface Asked {
  readonly rig: Rig;
  readonly evaluation: Evaluation;
  readonly finding: Finding;
  readonly findings: readonly Finding[];
}

/** The fixes, tried once everything else that an edit changed is on the screen, one after another; null until then. */
export function useTriedFixes(
  rig: Rig,
  evaluation: Evaluation,
  finding: Finding,
  findings: readonly Finding[],
): readonly TriedFix[] | null {
  const now = useMemo(() => ({ rig, evaluation, finding, findings }), [rig, evaluation, finding, findings]);
  const [tried, setTried] = useState<{ of: Asked; fixes: readonly TriedFix[] } | null>(null);
  useEffect(() => {
    let timer: ReturnType<typeof setTimeout>;
    // Each is tried in a turn of its own: a key that is pressed meanwhile waits for one at most.
    const next = (left: readonly Fix[], fixes: readonly TriedFix[]): void => {
      const [fix, ...rest] = left;
      if (!fix) {
        setTried({ of: now, fixes });
        return;
      }
      timer = setTimeout(() =>
        next(rest, [...fixes, ...[tryFix(now.rig, fix, now.findings)].filter((f) => f !== null)]),
      );
    };
    timer = setTimeout(() => next(fixesOf(now.rig, now.finding, now.evaluation), []));
    return () => clearTimeout(timer);
  }, [now]);
  return tried?.of === now ? tried.fixes : null;
}
