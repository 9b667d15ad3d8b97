import { type Remote, transfer, wrap } from 'comlink';
import type { EarsApi } from './ears.worker.ts';
import type { ScanApi } from './scan.worker.ts';

/** Records inputs and reads rounds of a scan, each beside the page, until it is closed. */
export interface ScanDesk {
  listen(inputId: string, track: MediaStreamTrack): void;
  readonly take: Remote<EarsApi>['take'];
  readonly readRound: Remote<ScanApi>['readRound'];
  close(): void;
}

/** Whether this browser can choose outputs and hand out what inputs capture. */
export const canScan = (): boolean =>
  typeof AudioContext !== 'undefined' &&
  'setSinkId' in AudioContext.prototype &&
  typeof MediaStreamTrackProcessor !== 'undefined';

export function openScanDesk(): ScanDesk {
  const ears = new Worker(new URL('./ears.worker.ts', import.meta.url), { type: 'module' });
  const reader = new Worker(new URL('./scan.worker.ts', import.meta.url), { type: 'module' });
  const remote = wrap<EarsApi>(ears);
  return {
    listen: (inputId, track) => {
      // The types of a page know it of pictures alone.
      const { readable } = new MediaStreamTrackProcessor({ track: track as MediaStreamVideoTrack });
      void remote.listen(
        inputId,
        performance.timeOrigin,
        transfer(readable as unknown as ReadableStream<AudioData>, [readable]),
      );
    },
    take: remote.take,
    readRound: wrap<ScanApi>(reader).readRound,
    close: () => {
      ears.terminate();
      reader.terminate();
    },
  };
}
