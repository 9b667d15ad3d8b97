import { measureLevels } from '../../core/measure/index.ts';
import { openWav } from '../../core/samples/index.ts';
import { openBytes } from '../../web/workers/take-source.ts';

self.onmessage = async ({ data }: MessageEvent<File>) => {
  self.postMessage(await measureLevels(await openWav(await openBytes({ file: data }))));
};
