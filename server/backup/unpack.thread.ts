import '#words/core.ts';
import { parentPort, workerData } from 'node:worker_threads';
import { answerOf } from '../http/threads.ts';
import { type UnpackJob, unpack } from './unpack.ts';

parentPort!.postMessage(await answerOf(() => unpack(workerData as UnpackJob)));
