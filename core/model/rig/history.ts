import { z } from 'zod';
import { applyEdit, Edit, type Refusal } from './edit.ts';
import type { Rig } from './schema.ts';

/** One step that can be undone, named for the person who takes it back. */
export const Step = z.strictObject({
  label: z.string().max(300),
  origin: z.enum(['person', 'fix', 'solver', 'import']),
  redo: Edit,
  undo: Edit,
});
export type Step = z.infer<typeof Step>;

/** A rig with the steps that led to it and those that were taken back. */
export interface History {
  readonly rig: Rig;
  readonly past: readonly Step[];
  readonly future: readonly Step[];
}

/** Maximum number of steps kept; older ones can no longer be undone. */
const KEPT = 200;

export const startHistory = (rig: Rig): History => ({ rig, past: [], future: [] });

export type Stepped = { ok: true; history: History } | { ok: false; refusal: Refusal };

/** Applies an edit as one step; what had been undone is forgotten. */
export function commit(history: History, edit: Edit, label: string, origin: Step['origin']): Stepped {
  const done = applyEdit(history.rig, edit);
  if (!done.ok) return done;
  const step: Step = { label, origin, redo: edit, undo: done.inverse };
  return { ok: true, history: { rig: done.rig, past: [...history.past, step].slice(-KEPT), future: [] } };
}

/** Takes the last step back. Without one, the history as it was. */
export function undo(history: History): Stepped {
  const step = history.past.at(-1);
  if (!step) return { ok: true, history };
  const done = applyEdit(history.rig, step.undo);
  if (!done.ok) return done;
  return { ok: true, history: { rig: done.rig, past: history.past.slice(0, -1), future: [step, ...history.future] } };
}

/** Does the step again that was taken back last. */
export function redo(history: History): Stepped {
  const [step, ...future] = history.future;
  if (!step) return { ok: true, history };
  const done = applyEdit(history.rig, step.redo);
  if (!done.ok) return done;
  return { ok: true, history: { rig: done.rig, past: [...history.past, step], future } };
}
