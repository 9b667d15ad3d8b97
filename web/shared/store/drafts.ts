import { z } from 'zod';
import { TakeNotes } from '#api/index.ts';
import { type History, parseRig, Step } from '#core/model/rig/index.ts';

import { keep, readKept } from './browser.ts';

/** The rig in hand as it is kept in this browser: it survives a reload, a crash and a lost server. */
export interface Draft {
  readonly revision: number;
  readonly saved: boolean;
  readonly history: History;
}

const StoredDraft = z.strictObject({
  revision: z.int(),
  saved: z.boolean(),
  rig: z.unknown(),
  past: z.array(Step),
  future: z.array(Step),
});

const keyOf = (rigId: string): string => `mellow.rig.${rigId}`;

export function readDraft(rigId: string): Draft | null {
  const kept = readKept(keyOf(rigId), StoredDraft);
  if (!kept) return null;
  const { revision, saved, rig, past, future } = kept;
  try {
    return { revision, saved, history: { rig: parseRig(rig), past, future } };
  } catch {
    // A draft that cannot be read is of no use; the server's rig stands.
    return null;
  }
}

export function writeDraft(rigId: string, { revision, saved, history }: Draft): void {
  const { rig, past, future } = history;
  if (keep(keyOf(rigId), { revision, saved, rig, past, future })) return;
  // Storage full: the steps can go, the rig must stay.
  localStorage.setItem(keyOf(rigId), JSON.stringify({ revision, saved, rig, past: [], future: [] }));
}

/** Marks on a take that the server has not acknowledged yet. */
const StoredNotes = z.strictObject({ revision: z.int(), notes: TakeNotes });
export type NotesDraft = z.infer<typeof StoredNotes>;

const notesKeyOf = (takeId: string): string => `mellow.take.${takeId}`;

export const readNotesDraft = (takeId: string): NotesDraft | null => readKept(notesKeyOf(takeId), StoredNotes);

/** Null once the server has them. Without room, the marks are still on the page, and on their way to the server. */
export const writeNotesDraft = (takeId: string, draft: NotesDraft | null): boolean => keep(notesKeyOf(takeId), draft);
