import { tally } from '#core/rules/index.ts';
import { evaluationAt, type State } from '#core/signal/index.ts';
import { findingsOf, ofRig } from '#web/shared/store/index.ts';

/** The rig's verdict; its numbers are those of the lists. */
export interface Verdict {
  readonly state: State;
  readonly stops: number;
  readonly fixes: number;
  readonly watches: number;
  readonly toDo: number;
}

export const verdictOf = ofRig((rig): Verdict => {
  const findings = findingsOf(rig);
  const { stops, fixes, watches } = tally(rig, evaluationAt(rig, null), findings);
  return {
    state: stops > 0 ? 'stop' : fixes > 0 ? 'fix' : watches > 0 || rig.tasks.length > 0 ? 'watch' : 'good',
    stops,
    fixes,
    watches,
    toDo: rig.tasks.length,
  };
});
