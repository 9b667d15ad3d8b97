import { useEffect, useState } from 'react';
import { workers as say } from '#words/index.ts';
import type { Job } from './jobs.ts';
import type { Progress } from './look.ts';

export type JobState<T> =
  | { readonly at: 'running'; readonly done: number }
  | { readonly at: 'there'; readonly result: T }
  | { readonly at: 'failed'; readonly says: string };

/**
 * What is worked out of a thing beside the page: once for each, again only for another one. Left before it is done, it is
 * stopped.
 * @param known  results so far, by subject; kept by the caller
 */
export function useJob<K extends WeakKey, T>(
  key: K,
  known: WeakMap<K, T>,
  start: (key: K, onProgress: (progress: Progress) => void) => Job<T>,
): JobState<T> {
  const [seen, setSeen] = useState<{ readonly key: K; readonly state: JobState<T> } | null>(null);
  useEffect(() => {
    if (known.has(key)) return;
    let gone = false;
    const announce = (state: JobState<T>) => {
      if (!gone) setSeen({ key, state });
    };
    const job = start(key, ({ done }) => announce({ at: 'running', done }));
    job.result.then(
      (result) => {
        known.set(key, result);
        announce({ at: 'there', result });
      },
      (error: unknown) =>
        announce({ at: 'failed', says: error instanceof Error ? error.message : say.somethingWentWrongReload() }),
    );
    return () => {
      gone = true;
      job.stop();
    };
  }, [key, known, start]);
  const before = known.get(key);
  if (before !== undefined) return { at: 'there', result: before };
  return seen?.key === key ? seen.state : { at: 'running', done: 0 };
}
