import { Worker } from 'node:worker_threads';
import { server as say } from '#words/index.ts';
import { HttpProblem } from './problem.ts';

/** What a thread answers: a value, or a refusal in a sentence. */
export type Answer<T> = { readonly value: T } | { readonly refused: { status: number; title: string; detail: string } };

interface Bounds {
  readonly memoryMb: number;
  /** What is said where the memory does not suffice. */
  readonly tooLarge: string;
}

/** Runs a script once, in a thread with a bound on its memory. @throws HttpProblem that the thread has answered, 413 where it broke the bound */
export function inThread<T>(script: string, data: unknown, { memoryMb, tooLarge }: Bounds): Promise<T> {
  return new Promise((resolve, reject) => {
    const worker = new Worker(script, { workerData: data, resourceLimits: { maxOldGenerationSizeMb: memoryMb } });
    worker.once('message', (answer: Answer<T>) => {
      if ('value' in answer) resolve(answer.value);
      else reject(new HttpProblem(answer.refused.status, answer.refused.title, answer.refused.detail));
    });
    worker.on('error', (error: NodeJS.ErrnoException) =>
      reject(error.code === 'ERR_WORKER_OUT_OF_MEMORY' ? new HttpProblem(413, say.tooLarge(), tooLarge) : error),
    );
    worker.once('exit', () => reject(new Error('The thread ended before it had answered.')));
  });
}

/** The answer of a job, as it is sent from the thread. */
export async function answerOf<T>(job: () => Promise<T>): Promise<Answer<T>> {
  try {
    return { value: await job() };
  } catch (error) {
    if (!(error instanceof HttpProblem)) throw error;
    return { refused: { status: error.status, title: error.title, detail: error.message } };
  }
}
