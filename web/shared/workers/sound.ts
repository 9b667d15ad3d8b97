import { proxy, type Remote, wrap } from 'comlink';
import { handedOn, workers as say } from '#words/index.ts';
import type { SoundApi } from './sound.worker.ts';

/** A worker that keeps takes open, for as long as a page is about them. */
export interface SoundDesk {
  readonly api: Remote<SoundApi>;
  /** A progress callback across threads; no effect once the job has ended. */
  heard(onProgress: (done: number) => void): (done: number) => void;
  /** What the worker answers; @throws Error with a sentence where it failed altogether. */
  whole<T>(answer: Promise<T>): Promise<T>;
  end(): void;
}

export function openSoundDesk(): SoundDesk {
  const worker = new Worker(new URL('./sound.worker.ts', import.meta.url), { type: 'module', name: handedOn() });
  let over = false;
  const broke = new Promise<never>((_, reject) => {
    worker.onerror = () => reject(new Error(say.reloadPageAndTry({ failed: say.measuringFailed() })));
  });
  broke.catch(() => undefined);
  return {
    api: wrap<SoundApi>(worker),
    heard: (onProgress) =>
      proxy((done: number) => {
        if (!over) onProgress(done);
      }),
    whole: (answer) => Promise.race([answer, broke]),
    end() {
      over = true;
      worker.terminate();
    },
  };
}
