import { measureLevels } from '../../core/audio/measure/index.ts';
import { openWav } from '../../core/audio/samples/index.ts';
import { openBytes } from '../../web/shared/workers/take-source.ts';

self.onmessage = async ({ data }: MessageEvent<File>) => {
  self.postMessage(await measureLevels(await openWav(await openBytes({ file: data }))));
};
