import { parentPort, workerData } from 'node:worker_threads';
import { peakMeter } from '#core/measure/index.ts';

/** The other core's side: pieces come, each is answered; nothing but a question ends it. */
const { channels, sampleRateHz } = workerData as { channels: number; sampleRateHz: number };
const meter = peakMeter(channels, sampleRateHz);
parentPort!.on('message', (piece: Float32Array[] | null) => {
  if (piece) meter.push(piece);
  parentPort!.postMessage(piece ? null : meter.result());
  if (!piece) parentPort!.close();
});
