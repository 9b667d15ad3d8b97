import '#words/core.ts';
import { parentPort, workerData } from 'node:worker_threads';
import { answerOf } from '../http/threads.ts';
import { type ReadJob, readArchive } from './read.ts';

parentPort!.postMessage(await answerOf(() => readArchive(workerData as ReadJob)));
