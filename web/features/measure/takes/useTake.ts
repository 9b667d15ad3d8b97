import { useCallback, useEffect, useRef, useState } from 'react';
import type { TakeRecord } from '#api/index.ts';
import { type KeptNotes, sourceOf, useTakeNotes } from '#web/shared/take/index.ts';
import { type Job, lookAtTake, type Progress, type TakeLook } from '#web/shared/workers/index.ts';
import { takes as say } from '#words/index.ts';
import { notesAfter } from './marks.ts';

/** A take on Measure: what was found in it, what a person made of that, and the work under way. */
export interface BenchTake extends Pick<KeptNotes, 'notes' | 'saying' | 'conflict' | 'change'> {
  readonly id: string;
  readonly name: string;
  readonly look: TakeLook | null;
  readonly progress: (Progress & { readonly leftS: number | null }) | null;
  readonly failed: string | null;
  /** Nothing in its file can be measured, in any browser. */
  readonly isUnreadable: boolean;
  stop(): void;
  lookAgain(whole: boolean): void;
}

/** What a worker calls a file that holds no take. */
const NO_TAKE = new Set(['UnreadableTake', 'WavError']);

/** Looks at a take when it comes onto Measure, in a worker that can be stopped. */
export function useTake(id: string, record: TakeRecord | undefined, name: string): BenchTake {
  const [look, setLook] = useState<TakeLook | null>(null);
  const [progress, setProgress] = useState<BenchTake['progress']>(null);
  const [failed, setFailed] = useState<string | null>(null);
  const [isUnreadable, setUnreadable] = useState(false);
  const job = useRef<Job<TakeLook> | null>(null);
  const seenBefore = useRef<TakeLook | null>(null);
  const { notes, saying, conflict, change, found } = useTakeNotes(id, record);

  const marks = useRef(notes);
  marks.current = notes;

  const start = useCallback(
    (whole: boolean) => {
      job.current?.stop();
      setFailed(null);
      const begun = performance.now();
      setProgress({ what: 'opening', done: 0, leftS: null });
      // Marks that a person kept stay as they are; where there were none, each part of a look brings its own.
      const wasKept = marks.current !== null && !marks.current.unseen;
      let before = seenBefore.current;
      const mark = (seen: TakeLook) => {
        const last = before;
        found((kept) => notesAfter(kept, seen, last));
        if (!wasKept || seenBefore.current) before = seen;
      };
      const mine = lookAtTake(sourceOf(id), whole, (p) => {
        const spentS = (performance.now() - begun) / 1000;
        if (p.glance && !seenBefore.current) {
          setLook(p.glance);
          if (p.glance.picture) mark(p.glance);
        }
        setProgress({ ...p, leftS: p.done > 0.05 && spentS > 1 ? (spentS * (1 - p.done)) / p.done : null });
      });
      job.current = mine;
      mine.result.then(
        (seen) => {
          if (job.current !== mine) return;
          setLook(seen);
          mark(seen);
          seenBefore.current = seen;
          setProgress(null);
        },
        (error: unknown) => {
          if (job.current !== mine) return;
          setProgress(null);
          setUnreadable(error instanceof Error && NO_TAKE.has(error.name));
          setFailed(error instanceof Error ? error.message : String(error));
        },
      );
    },
    [id, found],
  );
  useEffect(() => {
    start(false);
    return () => {
      job.current?.stop();
      job.current = null;
    };
  }, [start]);

  return {
    id,
    name,
    look,
    notes,
    saying,
    conflict,
    progress,
    failed,
    isUnreadable,
    change,
    stop: () => {
      job.current?.stop();
      job.current = null;
      setProgress(null);
      setFailed(say.stoppedNothingChangedYou());
    },
    lookAgain: start,
  };
}
