import { createSelector } from '@reduxjs/toolkit';
import { check, type Finding } from '#core/check/index.ts';
import { selectEvaluation, selectRig } from './desk.ts';

/** Everything that the rules find in the rig in hand, the worst first. */
export const selectFindings = createSelector([selectRig, selectEvaluation], (rig, evaluation): readonly Finding[] =>
  rig && evaluation ? check(rig, evaluation) : [],
);

/** What Wire shows: leads, and who hears what. What is out of time has its own stage. */
export const selectWireFindings = createSelector([selectFindings], (findings) =>
  findings.filter((f) => f.stage !== 'sync'),
);
