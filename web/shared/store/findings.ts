import { useDeferredValue } from 'react';
import type { Rig } from '#core/model/rig/index.ts';
import { check, type Finding, wireFindings } from '#core/rules/index.ts';
import { evaluationAt, type State } from '#core/signal/index.ts';
import { selectRig } from './open-rig.ts';
import { useAppSelector } from './store.ts';

/** What follows from a rig alone is computed once per rig, on first request. */
export function ofRig<T>(make: (rig: Rig) => T): (rig: Rig) => T {
  const known = new WeakMap<Rig, { readonly value: T }>();
  return (rig) => {
    const before = known.get(rig);
    if (before) return before.value;
    const value = make(rig);
    known.set(rig, { value });
    return value;
  };
}

/** Everything that the rules find in a rig, the worst first. */
export const findingsOf = ofRig((rig): readonly Finding[] => check(rig, evaluationAt(rig, null)));

/** What Wire shows: leads, and who hears what. What is out of time has its own stage. */
export const wireFindingsOf = ofRig((rig) => wireFindings(findingsOf(rig)));

type WithDesk = Parameters<typeof selectRig>[0];
const NONE: readonly Finding[] = [];
export const selectWireFindings = (state: WithDesk): readonly Finding[] => {
  const rig = selectRig(state);
  return rig ? wireFindingsOf(rig) : NONE;
};

/**
 * The rig as it was when the page was last at rest: what is worked out of it (findings, the verdict) follows an edit
 * after the edit itself is on the screen.
 */
export const useSettledRig = (): Rig | null => useDeferredValue(useAppSelector(selectRig));

/** The findings of the settled rig. */
export function useSettledFindings(): readonly Finding[] {
  const rig = useSettledRig();
  return rig ? findingsOf(rig) : NONE;
}

/** The worst that each stage holds; what waits to be done at the desk is watched in Sync. */
export const stageStatesOf = ofRig((rig): { plan: State; wire: State; route: State; level: State; sync: State } => {
  const findings = findingsOf(rig);
  const worst = (isHere: (f: Finding) => boolean): State =>
    findings.find((f) => isHere(f) && !f.dismissed)?.severity ?? 'good';
  const sync = worst((f) => f.stage === 'sync');
  const waits = evaluationAt(rig, null).pairs.some((p) => p.verdict.word === 'once-done');
  const unsaid = rig.plan.length === 0 && rig.sources.length > 0;
  return {
    // A rig that no one has said anything of is neither right nor wrong.
    plan: unsaid ? 'watch' : worst((f) => f.rule.startsWith('brief-')),
    wire: worst((f) => f.stage === 'wire'),
    route: worst((f) => f.stage === 'route'),
    level: worst((f) => f.stage === 'level'),
    sync: sync === 'good' && waits ? 'watch' : sync,
  };
});
