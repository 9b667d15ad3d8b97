import { addTasks, type Change, markDone } from './desk.ts';
import type { Edit } from './edit.ts';
import { atMoment, editInMoment } from './moments.ts';
import type { Rig } from './schema.ts';

/** What is said of a change: it is so at the desk already, or it is still to be done there. */
export type Verb = 'done' | 'to-do';

/** Settings and cables to be changed, with the device that has to be put in before. */
export interface Carried {
  /** The moment that it is for; null for the plain rig. */
  readonly momentId: string | null;
  readonly first?: Edit;
  readonly changes: readonly Change[];
}

/**
 * The edit for one of the two verbs: *Already done* corrects the drawing and confirms it, *Add to-do* draws it as it
 * will be.
 * @param openedAt ISO 8601 time; the caller's clock
 */
export function carryOut(rig: Rig, { momentId, first, changes }: Carried, verb: Verb, openedAt: string): Edit {
  const brought = first?.kind === 'add-device' ? first.device.id : undefined;
  const there = atMoment(rig, momentId);
  const done = verb === 'done' ? markDone(there, changes) : addTasks(there, changes, openedAt, brought);
  return editInMoment(rig, momentId, { kind: 'batch', edits: [...(first ? [first] : []), done] });
}
