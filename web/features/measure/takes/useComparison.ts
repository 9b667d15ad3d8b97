import { useEffect, useState } from 'react';
import type { Apart, Offset } from '#core/audio/measure/index.ts';
import { sourceOf } from '#web/shared/take/index.ts';
import { compareTakes, followTakes, type Progress } from '#web/shared/workers/index.ts';

/** Alignment of a take with the first one on Measure. */
export interface Comparison {
  readonly offset: Offset | null;
  /** Clocks and lost buffers, once both takes have been followed to their ends. */
  readonly apart: Apart | null;
  /** The part of that which is done, 0 to 1; null at rest. */
  readonly following: number | null;
  readonly progress: Progress | null;
  readonly failed: string | null;
}

const IDLE: Comparison = { offset: null, apart: null, following: null, progress: null, failed: null };
/** Below it the two are not the same sound: there is nothing to follow. */
const SAME_SOUND = 0.5;

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
      (offset) => !gone && setState({ ...IDLE, offset }),
      (error: unknown) =>
        !gone && setState({ ...IDLE, failed: error instanceof Error ? error.message : String(error) }),
    );
    return () => {
      gone = true;
      job.stop();
    };
  }, [firstId, secondId]);
  const { offset } = state;
  useEffect(() => {
    if (!firstId || !secondId || !offset || offset.confidence < SAME_SOUND) return;
    let gone = false;
    const settle = (part: Partial<Comparison>) => {
      if (!gone) setState((s) => ({ ...s, following: null, ...part }));
    };
    setState((s) => ({ ...s, following: 0 }));
    const job = followTakes(sourceOf(firstId), sourceOf(secondId), offset, ({ done }) => settle({ following: done }));
    // What was found already stands, whatever becomes of this.
    job.result.then(
      (apart) => settle({ apart }),
      () => settle({}),
    );
    return () => {
      gone = true;
      job.stop();
    };
  }, [firstId, secondId, offset]);
  return state;
}
