import { wrap } from 'comlink';
import type { Rig } from '#core/model/rig/index.ts';
import type { TriedFix } from '#core/rules/index.ts';
import { handedOn, workers as say } from '#words/index.ts';
import type { FixesApi } from './fix-api.ts';

/** Fixes of the findings of one rig after another, until it is closed. */
export interface FixFinder {
  open(rig: Rig): Promise<void>;
  /**
   * @returns null where another was asked for meanwhile
   * @throws where the worker ended by itself
   */
  fixesOf(findingId: string): Promise<readonly TriedFix[] | null>;
  close(): void;
}

export function openFixFinder(): FixFinder {
  const worker = new Worker(new URL('./fixes.worker.ts', import.meta.url), { type: 'module', name: handedOn() });
  const remote = wrap<FixesApi>(worker);
  const broke = new Promise<never>((_, reject) => {
    worker.onerror = () => reject(new Error(say.reloadPageAndTry({ failed: say.searchFailed() })));
  });
  broke.catch(() => undefined);
  return {
    open: (rig) => Promise.race([remote.open(rig), broke]),
    fixesOf: (findingId) => Promise.race<readonly TriedFix[] | null>([remote.fixesOf(findingId), broke]),
    close: () => worker.terminate(),
  };
}
