import { createSelector } from '@reduxjs/toolkit';
import { check, type Finding } from '#core/check/index.ts';
import type { State } from '#core/signal/index.ts';
import { selectEvaluation, selectRig } from './desk.ts';

/** Everything that the rules find in the rig in hand, the worst first. */
export const selectFindings = createSelector([selectRig, selectEvaluation], (rig, evaluation): readonly Finding[] =>
  rig && evaluation ? check(rig, evaluation) : [],
);

/** What Wire shows: leads, and who hears what. What is out of time has its own stage. */
export const selectWireFindings = createSelector([selectFindings], (findings) =>
  findings.filter((f) => f.stage !== 'sync'),
);

/** The worst that each stage holds; what waits to be done at the desk is watched in Sync. */
export const selectStageStates = createSelector(
  [selectFindings, selectEvaluation],
  (findings, evaluation): { wire: State; route: State; sync: State } => {
    const worst = (isHere: (f: Finding) => boolean): State =>
      findings.find((f) => isHere(f) && !f.aside)?.severity ?? 'good';
    const sync = worst((f) => f.stage === 'sync');
    const waits = evaluation?.pairs.some((p) => p.verdict.word === 'once-done');
    return {
      wire: worst((f) => f.stage === 'wire'),
      route: worst((f) => f.stage === 'route'),
      sync: sync === 'good' && waits ? 'watch' : sync,
    };
  },
);
