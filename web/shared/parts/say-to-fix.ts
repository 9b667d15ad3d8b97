import type { RigSummary } from '#api/index.ts';
import { frame } from '#words/index.ts';

/** '2 blockers, 12 to fix': the same counts as in the bar of an open rig. */
export const sayToFix = ({ blockers, toFix }: Pick<RigSummary, 'blockers' | 'toFix'>): string =>
  [
    blockers > 0 ? frame.blockers({ count: blockers }) : '',
    toFix > blockers ? frame.toFix({ count: toFix - blockers }) : '',
  ]
    .filter(Boolean)
    .join(', ');
