import { createHash } from 'node:crypto';
import { readFileSync } from 'node:fs';
import { Worker } from 'node:worker_threads';
import { Judged, judge } from './judged.ts';

/** Judges documents one after another. */
export interface Judge {
  /** Which program judges: what another one has said is asked for anew. */
  readonly name: string;
  judge(document: string): Promise<Judged>;
  close(): Promise<void>;
}

/** What is too large is known by counting, the same on every machine; this is for what counting does not foresee. */
const LONGEST_MS = 120_000;
const MOST_MEMORY_MB = 512;

/** In a thread, with bounds on time and memory; what breaks them is 'too large', and the thread is begun anew. */
export function threadJudge(script: string, longestMs = LONGEST_MS): Judge {
  let worker: Worker | null = null;
  let tail: Promise<unknown> = Promise.resolve();
  const ask = (document: string): Promise<Judged> =>
    new Promise((resolve) => {
      worker ??= new Worker(script, { resourceLimits: { maxOldGenerationSizeMb: MOST_MEMORY_MB } });
      const thread = worker;
      const timer = setTimeout(() => end({ kind: 'too-large' }), longestMs);
      const end = (judged: Judged, keep = false): void => {
        clearTimeout(timer);
        thread.removeAllListeners();
        if (!keep) {
          // A thread that dies says so again: nobody listens any more, and that is no reason to end the process.
          thread.on('error', () => undefined);
          void thread.terminate();
          if (worker === thread) worker = null;
        } else thread.unref();
        resolve(judged);
      };
      thread.ref();
      thread.once('message', (answer) => end(Judged.parse(answer), true));
      thread.once('error', (error: NodeJS.ErrnoException) =>
        end(
          error.code === 'ERR_WORKER_OUT_OF_MEMORY' || error instanceof RangeError
            ? { kind: 'too-large' }
            : { kind: 'unreadable', says: 'The checks failed at this rig. Export it, and tell us.' },
        ),
      );
      thread.postMessage(document);
    });
  return {
    name: createHash('sha256').update(readFileSync(script)).digest('hex').slice(0, 16),
    judge(document) {
      const answer = tail.then(() => ask(document));
      tail = answer.catch(() => undefined);
      return answer;
    },
    async close() {
      await worker?.terminate();
    },
  };
}

/** On the spot: for tools that wait anyway. */
export const ownJudge: Judge = {
  name: 'own',
  judge: async (document) => judge(document),
  close: async () => undefined,
};
