import type { RigRecord, RigSummary } from '#api/index.ts';
import { server as say } from '#words/index.ts';
import { HttpProblem } from '../http/problem.ts';
import { readJudged } from './judging.ts';

/** A rig as its row has it. */
export interface RigRow {
  readonly id: string;
  readonly name: string;
  readonly document: string;
  readonly revision: number;
  readonly updatedAt: string;
}
export const COLUMNS = 'id, name, document, revision, updatedAt';

const NO_NUMBERS = { blockers: 0, toFix: 0, toWatch: 0, toDo: 0, measured: 0 };

/** A judgment as figures of the list. */
export function inNumbers(
  summary: string | null,
): Pick<RigSummary, 'blockers' | 'toFix' | 'toWatch' | 'toDo' | 'measured' | 'state' | 'says'> {
  const judged = readJudged(summary);
  if (judged?.kind === 'tally') {
    const { kind: _, ...numbers } = judged;
    return { ...numbers, state: 'judged' };
  }
  if (judged?.kind === 'unreadable') return { ...NO_NUMBERS, state: 'unreadable', says: judged.says };
  return { ...NO_NUMBERS, state: judged ? 'too-large' : 'pending' };
}

export const stale = (row: RigRow): HttpProblem =>
  new HttpProblem(412, say.changedElsewhere(), say.anotherWindowHasChangedThis(), { newer: toRecord(row) });

/** @throws HttpProblem 422 for a document that is no JSON any more */
export function toRecord({ id, revision, updatedAt, document }: RigRow): RigRecord {
  try {
    return { id, revision, updatedAt, document: JSON.parse(document) };
  } catch {
    throw new HttpProblem(422, say.notRig(), say.rigThatIsKept());
  }
}
