import { Worker } from 'node:worker_threads';
import { RigError, type RigErrorCode } from '#core/model/rig/index.ts';
import { server as say } from '#words/index.ts';
import { HttpProblem } from '../http/problem.ts';
import { type MadeRig, readRig } from './made.ts';

/** Reads, checks and packs incoming rigs. */
export interface RigReader {
  /** @throws RigError, HttpProblem */
  read(bytes: Uint8Array | null): Promise<MadeRig>;
  close(): Promise<void>;
}

/** On the spot. */
export const ownReader: RigReader = { read: readRig, close: async () => undefined };

/** Request to the thread, and its answer. */
export interface ReadAsked {
  readonly n: number;
  readonly bytes: Uint8Array | null;
}
export type ReadAnswer = { readonly n: number } & (
  | { readonly made: MadeRig }
  | { readonly rigError: { readonly code: RigErrorCode; readonly path: string; readonly message: string } }
  | { readonly refused: { readonly status: number; readonly title: string; readonly detail: string } }
);

interface Waiting {
  readonly bytes: Uint8Array | null;
  resolve(made: MadeRig): void;
  reject(error: unknown): void;
}
const MAX_MEMORY_MB = 512;
const tooLarge = (): HttpProblem => new HttpProblem(413, say.tooLarge(), say.rigIsTooLarge());
const stopping = (): HttpProblem => new HttpProblem(503, say.stopping(), say.serverIsStoppingWhat());

/** In a thread: whatever a document costs to check, no other request waits for it. It is begun when the first one comes. */
export function threadReader(script: string): RigReader {
  let worker: Worker | null = null;
  const waiting = new Map<number, Waiting>();
  let asked = 0;
  let closed = false;
  const begin = (): Worker => {
    const begun = new Worker(script, { resourceLimits: { maxOldGenerationSizeMb: MAX_MEMORY_MB } });
    const end = (why: { code?: string } | number) => {
      if (worker !== begun) return;
      worker = null;
      // The oldest is what it broke at; the others are asked again.
      const [broken, ...others] = [...waiting];
      waiting.clear();
      const isFull = typeof why === 'object' && why.code === 'ERR_WORKER_OUT_OF_MEMORY';
      broken?.[1].reject(isFull ? tooLarge() : new Error('The thread that reads rigs has ended.', { cause: why }));
      for (const [n, one] of others) ask(n, one);
    };
    begun.on('message', (answer: ReadAnswer) => {
      const found = waiting.get(answer.n);
      waiting.delete(answer.n);
      if ('made' in answer) found?.resolve(answer.made);
      else if ('rigError' in answer)
        found?.reject(Object.assign(new RigError(answer.rigError.code, '', answer.rigError.message), answer.rigError));
      else found?.reject(new HttpProblem(answer.refused.status, answer.refused.title, answer.refused.detail));
    });
    begun.on('error', end);
    begun.on('exit', end);
    begun.unref();
    return begun;
  };
  const ask = (n: number, one: Waiting): void => {
    if (closed) {
      one.reject(stopping());
      return;
    }
    worker ??= begin();
    waiting.set(n, one);
    worker.postMessage({ n, bytes: one.bytes } satisfies ReadAsked);
  };
  return {
    read: (bytes) => new Promise((resolve, reject) => ask(++asked, { bytes, resolve, reject })),
    async close() {
      closed = true;
      const open = [...waiting.values()];
      waiting.clear();
      for (const { reject } of open) reject(stopping());
      await worker?.terminate();
    },
  };
}
