import { parentPort, workerData } from 'node:worker_threads';
import { type FrameRange, measurePart } from '#core/audio/measure/index.ts';
import { openWav } from '#core/audio/samples/index.ts';
import { openFile } from './edges.ts';

/** A part of a file. */
export interface LevelsWork {
  readonly path: string;
  readonly asItIs: boolean;
  readonly range: FrameRange;
}

/** Another core's side: it opens the file for itself, measures its part and answers once. */
const { path, asItIs, range } = workerData as LevelsWork;
const file = await openFile(path);
try {
  parentPort!.postMessage(await measurePart(await openWav(file, { asItIs }), range));
} finally {
  await file.close();
}
