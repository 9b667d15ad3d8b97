import { useCallback, useEffect, useRef, useState } from 'react';
import type { TakeRecord } from '#api/index.ts';
import { type Task, useWork } from '#web/shared/jobs/index.ts';
import { type KeptNotes, sourceOf, useTakeNotes } from '#web/shared/take/index.ts';
import { lookAtTake, type TakeLook } from '#web/shared/workers/index.ts';
import { notesAfter } from './marks.ts';

/** A take on Measure: what was found in it, what a person made of that, and the work under way. */
export interface BenchTake extends Pick<KeptNotes, 'notes' | 'saying' | 'conflict' | 'change'> {
  readonly id: string;
  readonly name: string;
  readonly look: TakeLook | null;
  /** The look under way, or why it ended. */
  readonly task: Task | null;
  /** Nothing in its file can be measured, in any browser. */
  readonly isUnreadable: boolean;
  stop(): void;
  /** Looks at all of its picture. */
  lookAtAll(): void;
  again(): void;
}

/** What a worker calls a file that holds no take. */
const NO_TAKE = new Set(['UnreadableTake', 'WavError']);

/** Looks at a take when it comes onto Measure, in a worker that can be stopped. */
export function useTake(id: string, record: TakeRecord | undefined, name: string): BenchTake {
  const [look, setLook] = useState<TakeLook | null>(null);
  const { task, run, stop, again, drop } = useWork();
  const seenBefore = useRef<TakeLook | null>(null);
  const { notes, saying, conflict, change, found } = useTakeNotes(id, record);

  const marks = useRef(notes);
  marks.current = notes;

  const start = useCallback(
    async (whole: boolean) => {
      // Marks that a person kept stay as they are; where there were none, each part of a look brings its own.
      const wasKept = marks.current !== null && !marks.current.unseen;
      let before = seenBefore.current;
      const mark = (seen: TakeLook) => {
        const last = before;
        found((kept) => notesAfter(kept, seen, last));
        if (!wasKept || seenBefore.current) before = seen;
      };
      const seen = await run({
        name,
        start: (heard) =>
          lookAtTake(sourceOf(id), whole, (progress) => {
            if (progress.glance && !seenBefore.current) {
              setLook(progress.glance);
              if (progress.glance.picture) mark(progress.glance);
            }
            heard(progress);
          }),
      });
      if (!seen) return;
      setLook(seen);
      mark(seen);
      seenBefore.current = seen;
    },
    [id, name, found, run],
  );
  useEffect(() => {
    void start(false);
    return drop;
  }, [start, drop]);

  return {
    id,
    name,
    look,
    notes,
    saying,
    conflict,
    task,
    isUnreadable: task?.error instanceof Error && NO_TAKE.has(task.error.name),
    change,
    stop,
    again,
    lookAtAll: () => void start(true),
  };
}
