import { wrap } from 'comlink';
import type { DeskOptions, DeskRead } from '#core/intake/index.ts';
import { handedOn, workers as say } from '#words/index.ts';
import type { DeskApi } from './desk.worker.ts';

/** Reads one desk after another beside the page, until it is closed. */
export interface DeskReader {
  read(text: string, options: DeskOptions): Promise<DeskRead>;
  close(): void;
}

export function openDeskReader(): DeskReader {
  const worker = new Worker(new URL('./desk.worker.ts', import.meta.url), { type: 'module', name: handedOn() });
  const remote = wrap<DeskApi>(worker);
  const broke = new Promise<never>((_, reject) => {
    worker.onerror = () => reject(new Error(say.rigCouldntBeRead()));
  });
  broke.catch(() => undefined);
  return {
    read: (text, options) => Promise.race([remote.readDesk(text, options), broke]),
    close: () => worker.terminate(),
  };
}
