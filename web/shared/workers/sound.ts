import { proxy, type Remote, wrap } from 'comlink';
import { handedOn } from '#words/index.ts';
import type { SoundApi } from './sound.worker.ts';

/** A worker that keeps takes open, for as long as a page is about them. */
export interface SoundDesk {
  readonly api: Remote<SoundApi>;
  /** A progress callback across threads; no effect once the job has ended. */
  heard(onProgress: (done: number) => void): (done: number) => void;
  end(): void;
}

/** @param onBroken  called when the worker failed altogether */
export function openSoundDesk(onBroken: () => void): SoundDesk {
  const worker = new Worker(new URL('./sound.worker.ts', import.meta.url), { type: 'module', name: handedOn() });
  let over = false;
  worker.onerror = () => {
    if (!over) onBroken();
  };
  return {
    api: wrap<SoundApi>(worker),
    heard: (onProgress) =>
      proxy((done: number) => {
        if (!over) onProgress(done);
      }),
    end() {
      over = true;
      worker.terminate();
    },
  };
}
