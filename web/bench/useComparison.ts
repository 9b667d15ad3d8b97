import { useEffect, useState } from 'react';
import type { Offset } from '#core/measure/index.ts';
import { sourceOf } from '#web/take/index.ts';
import { compareTakes, type Progress } from '#web/workers/index.ts';

/** How a take lies to the first one on the bench. */
export interface Comparison {
  readonly offset: Offset | null;
  readonly progress: Progress | null;
  readonly failed: string | null;
}

const IDLE: Comparison = { offset: null, progress: null, failed: null };

/** Compares two takes by their sound once both have been looked at; ids of null compare nothing. */
export function useComparison(firstId: string | null, secondId: string | null): Comparison {
  const [state, setState] = useState<Comparison>(IDLE);
  useEffect(() => {
    if (!firstId || !secondId) {
      setState(IDLE);
      return;
    }
    setState({ ...IDLE, progress: { what: 'comparing', done: 0 } });
    const job = compareTakes(sourceOf(firstId), sourceOf(secondId), (progress) =>
      setState((s) => ({ ...s, progress })),
    );
    let gone = false;
    job.result.then(
      (offset) => !gone && setState({ offset, progress: null, failed: null }),
      (error: unknown) =>
        !gone &&
        setState({ offset: null, progress: null, failed: error instanceof Error ? error.message : String(error) }),
    );
    return () => {
      gone = true;
      job.stop();
    };
  }, [firstId, secondId]);
  return state;
}
