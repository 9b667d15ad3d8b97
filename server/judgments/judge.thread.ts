import '#words/core.ts';
import { parentPort } from 'node:worker_threads';
import { judge } from './judged.ts';

/** A thread of its own: whatever a document costs, no request waits for it. */
parentPort!.on('message', (document: string) => parentPort!.postMessage(judge(document)));
