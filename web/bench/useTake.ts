import { useCallback, useEffect, useRef, useState } from 'react';
import type { TakeNotes, TakeRecord } from '#api/index.ts';
import { api, sayProblem } from '#web/store/index.ts';
import { type Job, lookAtTake, type Progress, type TakeLook } from '#web/workers/index.ts';
import { sourceOf } from './files.ts';
import { notesFrom } from './marks.ts';

/** A take on the bench: what was found in it, what a person made of that, and the work under way. */
export interface BenchTake {
  readonly id: string;
  readonly name: string;
  readonly look: TakeLook | null;
  readonly notes: TakeNotes | null;
  readonly progress: (Progress & { readonly leftS: number | null }) | null;
  readonly failed: string | null;
  change(notes: TakeNotes): void;
  stop(): void;
  lookAgain(whole: boolean): void;
}

const SAVE_AFTER_MS = 500;

/** Looks at a take when it comes onto the bench, keeps its marks, and sends them to the server when they rest. */
export function useTake(id: string, record: TakeRecord | undefined, name: string): BenchTake {
  const [look, setLook] = useState<TakeLook | null>(null);
  const [notes, setNotes] = useState<TakeNotes | null>(null);
  const [progress, setProgress] = useState<BenchTake['progress']>(null);
  const [failed, setFailed] = useState<string | null>(null);
  const job = useRef<Job<TakeLook> | null>(null);
  const [saveNotes] = api.useNoteTakeMutation();

  const start = useCallback(
    (whole: boolean) => {
      job.current?.stop();
      setFailed(null);
      const begun = performance.now();
      setProgress({ what: 'opening', done: 0, leftS: null });
      const mine = lookAtTake(sourceOf(id), whole, (p) => {
        const spentS = (performance.now() - begun) / 1000;
        setProgress({ ...p, leftS: p.done > 0.05 && spentS > 1 ? (spentS * (1 - p.done)) / p.done : null });
      });
      job.current = mine;
      mine.result.then(
        (found) => {
          if (job.current !== mine) return;
          setLook(found);
          setProgress(null);
          // Marks that a person corrected stay; a look at more of the picture brings its own.
          setNotes((kept) =>
            kept && !whole ? { ...kept, frameMs: kept.frameMs ?? notesFrom(found).frameMs } : notesFrom(found),
          );
        },
        (error: unknown) => {
          if (job.current !== mine) return;
          setProgress(null);
          setFailed(error instanceof Error ? error.message : String(error));
        },
      );
    },
    [id],
  );
  useEffect(() => {
    start(false);
    return () => {
      job.current?.stop();
      job.current = null;
    };
  }, [start]);

  // The server's notes come once; after that this page's own are the newer ones.
  const revision = useRef(0);
  const seen = useRef(false);
  useEffect(() => {
    if (!record) return;
    revision.current = Math.max(revision.current, record.revision);
    if (!seen.current) {
      seen.current = true;
      if (record.notes) setNotes(record.notes);
    }
  }, [record]);

  const dirty = useRef(false);
  useEffect(() => {
    if (!notes || !dirty.current || !record) return;
    const timer = setTimeout(() => {
      dirty.current = false;
      saveNotes({ id, revision: revision.current, notes })
        .unwrap()
        .then((saved) => {
          revision.current = saved.revision;
        })
        .catch((error: unknown) => {
          dirty.current = true;
          setFailed(sayProblem(error));
        });
    }, SAVE_AFTER_MS);
    return () => clearTimeout(timer);
  }, [notes, id, record, saveNotes]);

  return {
    id,
    name,
    look,
    notes,
    progress,
    failed,
    change: (next) => {
      dirty.current = true;
      setNotes(next);
    },
    stop: () => {
      job.current?.stop();
      job.current = null;
      setProgress(null);
      setFailed('Stopped. Nothing was changed; look again when you like.');
    },
    lookAgain: start,
  };
}
