import { useEffect, useState } from 'react';
import type { Diagnosis } from '#core/audio/measure/index.ts';
import { useWork, type Work } from '#web/shared/jobs/index.ts';
import { sourceOf } from '#web/shared/take/index.ts';
import { diagnoseTake, type Progress } from '#web/shared/workers/index.ts';

export interface Diagnosed {
  readonly diagnosis: Diagnosis | null;
  readonly work: Omit<Work, 'run'>;
}

/** Measures a take once it has been looked at. */
export function useDiagnosis(takeId: string, ready: boolean, channel: number | null = null): Diagnosed {
  const [diagnosis, setDiagnosis] = useState<Diagnosis | null>(null);
  const work = useWork();
  const { run, drop } = work;
  useEffect(() => {
    if (!ready) return;
    setDiagnosis(null);
    const start = (heard: (p: Progress) => void) => diagnoseTake(sourceOf(takeId), channel, heard);
    void run({ name: takeId, start }).then((found) => found && setDiagnosis(found));
    return drop;
  }, [takeId, channel, ready, run, drop]);
  return { diagnosis, work };
}
