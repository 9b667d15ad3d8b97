import { proxy, type Remote, wrap } from 'comlink';
import type { Offset } from '#core/measure/index.ts';
import type { SmallFrame } from './frames.ts';
import type { Progress, TakeLook } from './look.ts';
import type { MeasureApi } from './measure.worker.ts';
import type { TakeSource } from './take-source.ts';

/** Work that is under way: what comes of it, and how to stop it. */
export interface Job<T> {
  readonly result: Promise<T>;
  stop(): void;
}

type OnProgress = (progress: Progress) => void;

/** Each job has a worker of its own, so that stopping it is ending it. Nothing is heard of its progress once it is over. */
function start<T>(
  onProgress: OnProgress,
  run: (worker: Remote<MeasureApi>, onProgress: OnProgress) => Promise<T>,
): Job<T> {
  const worker = new Worker(new URL('./measure.worker.ts', import.meta.url), { type: 'module' });
  let over = false;
  const broke = new Promise<never>((_, reject) => {
    worker.onerror = () => reject(new Error('Measuring failed. Reload the page and try again.'));
  });
  const heard = proxy((progress: Progress) => {
    if (!over) onProgress(progress);
  });
  const stop = () => {
    over = true;
    worker.terminate();
  };
  return { result: Promise.race([run(wrap<MeasureApi>(worker), heard), broke]).finally(stop), stop };
}

export const lookAtTake = (source: TakeSource, whole: boolean, onProgress: OnProgress): Job<TakeLook> =>
  start(onProgress, (worker, heard) => worker.look(source, whole, heard));

export const compareTakes = (first: TakeSource, second: TakeSource, onProgress: OnProgress): Job<Offset> =>
  start(onProgress, (worker, heard) => worker.offset(first, second, heard));

export const framesBetween = (source: TakeSource, fromMs: number, toMs: number, widthPx: number): Job<SmallFrame[]> =>
  start(
    () => undefined,
    (worker) => worker.frames(source, fromMs, toMs, widthPx),
  );
