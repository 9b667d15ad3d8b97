import { useEffect, useState } from 'react';
import type { Apart, Offset } from '#core/audio/measure/index.ts';
import { useWork, type Work } from '#web/shared/jobs/index.ts';
import { sourceOf } from '#web/shared/take/index.ts';
import { compareTakes, followTakes } from '#web/shared/workers/index.ts';

/** Alignment of a take with the first one on Measure. */
export interface Comparison {
  readonly offset: Offset | null;
  /** Clocks and lost buffers, once both takes have been followed to their ends. */
  readonly apart: Apart | null;
  readonly work: Omit<Work, 'run'>;
}

/** Below it the two are not the same sound: there is nothing to follow. */
const SAME_SOUND = 0.5;

/** Compares two takes by their sound once both have been looked at; ids of null compare nothing. */
export function useComparison(firstId: string | null, secondId: string | null): Comparison {
  const [offset, setOffset] = useState<Offset | null>(null);
  const [apart, setApart] = useState<Apart | null>(null);
  const work = useWork();
  const { run, drop } = work;
  useEffect(() => {
    setOffset(null);
    setApart(null);
    if (!firstId || !secondId) return;
    const [first, second] = [sourceOf(firstId), sourceOf(secondId)];
    const name = `${firstId} ${secondId}`;
    void (async () => {
      const found = await run({ name, start: (heard) => compareTakes(first, second, heard) });
      if (!found) return;
      setOffset(found);
      if (found.confidence < SAME_SOUND) return;
      // What was found already stands, whatever becomes of this.
      setApart(await run({ name, start: (heard) => followTakes(first, second, found, heard) }));
    })();
    return drop;
  }, [firstId, secondId, run, drop]);
  return { offset, apart, work };
}
