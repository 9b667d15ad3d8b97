import { type Remote, wrap } from 'comlink';
import type { PortRef, Rig } from '#core/model/rig/index.ts';
import { handedOn, workers as say } from '#words/index.ts';
import type { HeardLoop, ListenApi } from './listen.worker.ts';

let worker: Worker | null = null;
let api: Remote<ListenApi> | null = null;

/** Renders what is heard at a place; one worker does it all, since it keeps the stand-ins that it has made. */
export function renderLoop(rig: Rig, at: PortRef, seconds: number, sampleRateHz: number): Promise<HeardLoop> {
  if (!worker || !api) {
    worker = new Worker(new URL('./listen.worker.ts', import.meta.url), { type: 'module', name: handedOn() });
    api = wrap<ListenApi>(worker);
  }
  const broke = new Promise<never>((_, reject) => {
    worker!.onerror = () => {
      worker = null;
      api = null;
      reject(new Error(say.couldntRenderWhatIs()));
    };
  });
  return Promise.race([api.render(rig, at, seconds, sampleRateHz) as Promise<HeardLoop>, broke]);
}
