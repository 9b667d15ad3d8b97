import { createHash } from 'node:crypto';
import { readFileSync } from 'node:fs';
import { Worker } from 'node:worker_threads';
import { server as say } from '#words/index.ts';
import { Judged, judge } from './judged.ts';

/** Judges documents one after another. */
export interface Judge {
  /** Which program judges: what another one has said is asked for again. */
  readonly name: string;
  judge(document: string): Promise<Judged>;
  close(): Promise<void>;
}

/** What is too large is known by counting, the same on every machine; this is for what counting does not foresee. */
const LONGEST_MS = 120_000;
const MAX_MEMORY_MB = 512;

interface Thread {
  readonly worker: Worker;
  /** What waits for its answer; null while it is idle. */
  answer: ((judged: Judged) => void) | null;
}

/** In a thread, with bounds on time and memory; what breaks them is 'too large', and the thread is begun again. */
export function threadJudge(script: string, longestMs = LONGEST_MS): Judge {
  let thread: Thread | null = null;
  let tail: Promise<unknown> = Promise.resolve();
  const begin = (): Thread => {
    const worker = new Worker(script, { resourceLimits: { maxOldGenerationSizeMb: MAX_MEMORY_MB } });
    const begun: Thread = { worker, answer: null };
    const end = (judged: Judged): void => {
      if (thread === begun) thread = null;
      begun.answer?.(judged);
    };
    worker.on('message', (answer) => begun.answer?.(Judged.parse(answer)));
    worker.on('error', (error: NodeJS.ErrnoException) =>
      end(
        error.code === 'ERR_WORKER_OUT_OF_MEMORY' || error instanceof RangeError
          ? { kind: 'too-large' }
          : { kind: 'unreadable', says: say.checksFailedAtThis() },
      ),
    );
    worker.on('exit', () => end({ kind: 'too-large' }));
    // It keeps no process that has nothing else to do.
    worker.unref();
    return begun;
  };
  const ask = (document: string): Promise<Judged> =>
    new Promise((resolve) => {
      thread ??= begin();
      const asked = thread;
      const timer = setTimeout(() => {
        if (thread === asked) thread = null;
        void asked.worker.terminate();
      }, longestMs);
      asked.answer = (judged) => {
        clearTimeout(timer);
        asked.answer = null;
        resolve(judged);
      };
      asked.worker.postMessage(document);
    });
  return {
    name: createHash('sha256').update(readFileSync(script)).digest('hex').slice(0, 16),
    judge(document) {
      const answer = tail.then(() => ask(document));
      tail = answer.catch(() => undefined);
      return answer;
    },
    async close() {
      await thread?.worker.terminate();
    },
  };
}

/** On the spot: for tools that wait anyway. */
export const ownJudge: Judge = {
  name: 'own',
  judge: async (document) => judge(document),
  close: async () => undefined,
};
