import { askedBy, tally } from '#core/rules/index.ts';
import { evaluationAt, type State } from '#core/signal/index.ts';
import { findingsOf, ofRig } from '#web/shared/store/index.ts';

/** The rig's verdict and what it rests on; its numbers are those of the lists. */
export interface Verdict {
  readonly state: State;
  readonly stops: number;
  readonly fixes: number;
  readonly watches: number;
  /** What findings rest on that no one has looked at. */
  readonly questions: number;
  readonly toDo: number;
  /** When the newest measurement was taken, ISO 8601; null when all is as drawn. */
  readonly measuredAt: string | null;
}

export const verdictOf = ofRig((rig): Verdict => {
  const findings = findingsOf(rig);
  const { stops, fixes, watches } = tally(rig, evaluationAt(rig, null), findings);
  // A take of a sync test is no measurement of the rig until it is added.
  const taken = rig.measurements
    .filter((m) => m.kind !== 'offset')
    .map((m) => m.takenAt)
    .sort();
  return {
    state: stops > 0 ? 'stop' : fixes > 0 ? 'fix' : watches > 0 || rig.tasks.length > 0 ? 'watch' : 'good',
    stops,
    fixes,
    watches,
    questions: askedBy(rig, findings).length,
    toDo: rig.tasks.length,
    measuredAt: taken.at(-1) ?? null,
  };
});
