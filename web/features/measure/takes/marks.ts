import type { BenchMark, TakeNotes } from '#api/index.ts';
import type { MenuClick } from '#core/audio/measure/index.ts';
import { notesFrom } from '#web/shared/take/index.ts';
import type { TakeLook } from '#web/shared/workers/index.ts';

/**
 * A fresh look beside what is kept: marks stay as a person left them. Only flashes in stretches of the picture that the
 * look `before` had not seen come in.
 */
export function notesAfter(kept: TakeNotes | null, look: TakeLook, before: TakeLook | null): TakeNotes {
  const fresh = notesFrom(look);
  if (!kept) return fresh;
  if (kept.unseen) return { ...fresh, ...(kept.blind && { blind: kept.blind }) };
  const frameMs = kept.frameMs ?? fresh.frameMs;
  const wasSeen = (atMs: number) =>
    before?.picture?.pieces.some((p) => p.timesMs.length > 0 && atMs >= p.timesMs[0]! && atMs <= p.timesMs.at(-1)!);
  if (!before) return { ...kept, frameMs };
  return { ...kept, frameMs, flashes: sorted([...kept.flashes, ...fresh.flashes.filter((f) => !wasSeen(f.atMs))]) };
}

export type MarkKind = 'flashes' | 'claps';

const sorted = (marks: readonly BenchMark[]): BenchMark[] => [...marks].sort((a, b) => a.atMs - b.atMs);
const change = (notes: TakeNotes, kind: MarkKind, marks: readonly BenchMark[]): TakeNotes => ({
  ...notes,
  [kind]: sorted(marks),
});

export const addMark = (notes: TakeNotes, kind: MarkKind, atMs: number): TakeNotes =>
  change(notes, kind, [...notes[kind], { atMs, used: true, byHand: true }]);
/** Moves without sorting, so that a mark that is being dragged past another keeps its place in the list. */
export const moveMark = (notes: TakeNotes, kind: MarkKind, index: number, atMs: number): TakeNotes => ({
  ...notes,
  [kind]: notes[kind].map((m, i) => (i === index ? { ...m, atMs: Math.max(0, atMs), byHand: true } : m)),
});
export const removeMark = (notes: TakeNotes, kind: MarkKind, index: number): TakeNotes =>
  change(
    notes,
    kind,
    notes[kind].filter((_, i) => i !== index),
  );
export const toggleMark = (notes: TakeNotes, kind: MarkKind, index: number): TakeNotes => ({
  ...notes,
  [kind]: notes[kind].map((m, i) => (i === index ? { ...m, used: !m.used } : m)),
});

/** A menu's changes as flashes and its clicks as claps, in place of what was found: each change that has its click. */
export function notesWithClicks(notes: TakeNotes, clicks: readonly MenuClick[]): TakeNotes {
  const heard = clicks.filter((c): c is { changeMs: number; clickMs: number } => c.clickMs !== null);
  const marks = (at: readonly number[]): BenchMark[] => at.map((atMs) => ({ atMs, used: true, byHand: true }));
  return {
    ...notes,
    flashes: marks(heard.map((c) => c.changeMs)),
    claps: sorted(marks(heard.map((c) => Math.max(0, c.clickMs)))),
  };
}
