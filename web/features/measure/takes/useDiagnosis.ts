import { useCallback, useEffect, useRef, useState } from 'react';
import type { Diagnosis } from '#core/audio/measure/index.ts';
import { sourceOf } from '#web/shared/take/index.ts';
import { diagnoseTake, type Job } from '#web/shared/workers/index.ts';
import { takes as say } from '#words/index.ts';

export interface Diagnosed {
  readonly diagnosis: Diagnosis | null;
  /** The part that is done, 0 to 1; null while nothing is under way. */
  readonly progress: number | null;
  readonly failed: string | null;
  stop(): void;
  again(): void;
}

/** Measures a take once it has been looked at, in a worker of its own that can be stopped. */
export function useDiagnosis(takeId: string, ready: boolean, channel: number | null = null): Diagnosed {
  const [diagnosis, setDiagnosis] = useState<Diagnosis | null>(null);
  const [progress, setProgress] = useState<number | null>(null);
  const [failed, setFailed] = useState<string | null>(null);
  const job = useRef<Job<Diagnosis> | null>(null);
  const again = useCallback(() => {
    job.current?.stop();
    setFailed(null);
    setDiagnosis(null);
    setProgress(0);
    const mine = diagnoseTake(sourceOf(takeId), channel, ({ done }) => setProgress(done));
    job.current = mine;
    const settle = (act: () => void) => {
      if (job.current !== mine) return;
      setProgress(null);
      act();
    };
    mine.result.then(
      (found) => settle(() => setDiagnosis(found)),
      (error: unknown) => settle(() => setFailed(error instanceof Error ? error.message : String(error))),
    );
  }, [takeId, channel]);
  useEffect(() => {
    if (ready) again();
    return () => {
      job.current?.stop();
      job.current = null;
    };
  }, [ready, again]);
  return {
    diagnosis,
    progress,
    failed,
    again,
    stop: () => {
      job.current?.stop();
      job.current = null;
      setProgress(null);
      setFailed(say.stoppedYouCanMeasure());
    },
  };
}
