import { useEffect, useReducer } from 'react';
import type { Job, Progress } from '#web/shared/workers/index.ts';
import { useWork, type Work } from './useWork.ts';

/**
 * What is worked out of a thing beside the page: once for each, again only for another one. Left before it is done, it is
 * stopped.
 * @param known  results so far, by subject; kept by the caller
 * @returns the result once it is there, and the work until then
 */
export function useJob<K extends WeakKey, T>(
  key: K,
  known: WeakMap<K, T>,
  name: string,
  start: (key: K, heard: (progress: Progress) => void) => Job<T>,
): { readonly result: T | undefined; readonly work: Work } {
  const work = useWork();
  const [, seen] = useReducer((n: number) => n + 1, 0);
  const { run, drop } = work;
  useEffect(() => {
    if (known.has(key)) return;
    void run({ name, start: (heard) => start(key, heard) }).then((result) => {
      if (result === null) return;
      known.set(key, result);
      seen();
    });
    return drop;
  }, [key, known, name, start, run, drop]);
  return { result: known.get(key), work };
}
