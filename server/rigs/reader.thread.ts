import '#words/core.ts';
import { parentPort } from 'node:worker_threads';
import { RigError } from '#core/model/rig/index.ts';
import { HttpProblem } from '../http/problem.ts';
import { readRig } from './made.ts';
import type { ReadAnswer, ReadAsked } from './reader.ts';

parentPort!.on('message', async ({ n, bytes }: ReadAsked) => {
  parentPort!.postMessage(await answer(n, bytes));
});

async function answer(n: number, bytes: Uint8Array | null): Promise<ReadAnswer> {
  try {
    return { n, made: await readRig(bytes) };
  } catch (error) {
    if (error instanceof RigError)
      return { n, rigError: { code: error.code, path: error.path, message: error.message } };
    if (error instanceof HttpProblem)
      return { n, refused: { status: error.status, title: error.title, detail: error.message } };
    throw error;
  }
}
