import { proxy, type Remote, wrap } from 'comlink';
import type { Offset } from '#core/measure/index.ts';
import type { Progress, TakeLook } from './look.ts';
import type { MeasureApi } from './measure.worker.ts';
import type { TakeSource } from './take-source.ts';

/** Work that is under way: what comes of it, and how to stop it. */
export interface Job<T> {
  readonly result: Promise<T>;
  stop(): void;
}

/** Each job has a worker of its own, so that stopping it is ending it. */
function start<T>(run: (worker: Remote<MeasureApi>) => Promise<T>): Job<T> {
  const worker = new Worker(new URL('./measure.worker.ts', import.meta.url), { type: 'module' });
  const broke = new Promise<never>((_, reject) => {
    worker.onerror = () => reject(new Error('Measuring failed. Reload the page and try again.'));
  });
  const result = Promise.race([run(wrap<MeasureApi>(worker)), broke]).finally(() => worker.terminate());
  return { result, stop: () => worker.terminate() };
}

export const lookAtTake = (
  source: TakeSource,
  whole: boolean,
  onProgress: (progress: Progress) => void,
): Job<TakeLook> => start((worker) => worker.look(source, whole, proxy(onProgress)));

export const compareTakes = (
  first: TakeSource,
  second: TakeSource,
  onProgress: (progress: Progress) => void,
): Job<Offset> => start((worker) => worker.offset(first, second, proxy(onProgress)));
