import { existsSync } from 'node:fs';
import { availableParallelism } from 'node:os';
import { fileURLToPath } from 'node:url';
import { Worker } from 'node:worker_threads';
import { type Levels, type LevelsPart, levelsOf, levelsRanges, measurePart } from '#core/audio/measure/index.ts';
import type { Recording } from '#core/audio/samples/index.ts';
import type { LevelsWork } from './levels.thread.ts';

/** A shorter take is done before another thread is up. */
const WORTH_S = 60;
/** More of them wait for the disk. */
const MAX_THREADS = 4;

/**
 * The levels of a WAV file, a part of it on each core.
 * @throws MeasureError for tracks that belong to no speakers, and for samples that are no numbers
 */
export async function levelsOfFile(path: string, recording: Recording, asItIs: boolean): Promise<Levels> {
  // Built, the command stands beside the thread or in a folder below it.
  const thread = ['./levels.js', '../levels.js']
    .map((at) => fileURLToPath(new URL(at, import.meta.url)))
    .find((at) => existsSync(at));
  const cores = Math.min(MAX_THREADS, availableParallelism());
  const seconds = recording.frames / recording.sampleRateHz;
  const parts = thread && seconds >= WORTH_S * cores ? cores : 1;
  const [own, ...others] = levelsRanges(recording, parts);
  const elsewhere = others.map((range) =>
    // A part that failed there is read here, where what is wrong can be told.
    askThread(thread!, { path, asItIs, range }).catch(() => measurePart(recording, range)),
  );
  return levelsOf(await Promise.all([measurePart(recording, own!), ...elsewhere]));
}

const askThread = (thread: string, work: LevelsWork): Promise<LevelsPart> =>
  new Promise((done, failed) => {
    const worker = new Worker(thread, { workerData: work });
    worker.once('message', done);
    worker.once('error', failed);
    worker.once('exit', () => failed(new Error('The thread ended before it had answered.')));
  });
