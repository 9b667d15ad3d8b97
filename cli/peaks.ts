import { existsSync } from 'node:fs';
import { availableParallelism } from 'node:os';
import { fileURLToPath } from 'node:url';
import { Worker } from 'node:worker_threads';
import type { PeakFinder } from '#core/measure/index.ts';
import type { Recording } from '#core/samples/index.ts';

/** Shorter takes are done before a thread is up. */
const WORTH_S = 30;
/** So many pieces wait at most: memory does not grow with the file. */
const WAITING = 3;

/** Peaks looked for on a second core while the first one reads and weighs; undefined where that is not worth it. */
export function peaksElsewhere({ channels, frames, sampleRateHz }: Recording): PeakFinder | undefined {
  // Built, the command stands beside the thread or in a folder below it.
  const thread = ['./peaks.js', '../peaks.js']
    .map((path) => fileURLToPath(new URL(path, import.meta.url)))
    .find((path) => existsSync(path));
  if (!thread || frames < WORTH_S * sampleRateHz || channels > 2 || availableParallelism() < 2) return undefined;
  const worker = new Worker(thread, { workerData: { channels, sampleRateHz } });
  const answers: ((answer: unknown) => void)[] = [];
  let failed: Error | null = null;
  const waiting: Promise<unknown>[] = [];
  worker.on('message', (answer) => answers.shift()?.(answer));
  worker.on('error', (error: Error) => {
    failed = error;
    for (const answer of answers.splice(0)) answer(null);
  });
  const ask = (piece: readonly Float32Array[] | null): Promise<unknown> => {
    if (failed) throw failed;
    const answer = new Promise<unknown>((resolve) => answers.push(resolve));
    worker.postMessage(piece, piece ? piece.map((x) => x.buffer as ArrayBuffer) : []);
    return answer;
  };
  return {
    async push(piece) {
      waiting.push(ask(piece));
      if (waiting.length >= WAITING) await waiting.shift();
    },
    async result() {
      await Promise.all(waiting);
      const peaks = await ask(null);
      if (failed || !peaks) throw failed ?? new Error('The second thread ended before it had answered.');
      return peaks as { samplePeak: number; truePeak: number };
    },
  };
}
