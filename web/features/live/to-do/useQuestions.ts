import { useDeferredValue, useMemo } from 'react';
import type { Rig } from '#core/model/rig/index.ts';
import { askedBy, type Finding, isAssumed, type Question, questionsOf } from '#core/rules/index.ts';
import type { Evaluation } from '#core/signal/index.ts';

/** Questions at once as findings ask them; in the order of what they decide as soon as that is worked out. */
export function useQuestions(rig: Rig, evaluation: Evaluation, findings: readonly Finding[]): readonly Question[] {
  const now = useMemo(() => ({ rig, evaluation, findings }), [rig, evaluation, findings]);
  const asked = useDeferredValue<typeof now | null>(now, null);
  const full = useMemo(() => asked && questionsOf(asked.rig, asked.evaluation, asked.findings), [asked]);
  return useMemo(() => {
    if (full && asked === now) return full;
    const quick = askedBy(now.rig, now.findings);
    // While questions are recomputed, answered ones disappear and the others keep their places.
    const open = new Set(quick.map((q) => q.id));
    return full ? full.filter((q) => (q.findings.length > 0 ? open.has(q.id) : isAssumed(now.rig, q))) : quick;
  }, [full, asked, now]);
}
