import { proxy, transfer, wrap } from 'comlink';
import type { WatchState } from '#core/audio/measure/index.ts';
import { workers as say } from '#words/index.ts';
import type { WatchApi } from './watch.worker.ts';

/** An input that is watched beside the page, until it is closed. */
export interface TrackWatch {
  setUsual(lufs: number | null): void;
  close(): void;
}

/** Whether this browser hands out what inputs capture. */
export const canWatchTracks = (): boolean => typeof MediaStreamTrackProcessor !== 'undefined';

export function watchTrack(
  track: MediaStreamTrack,
  expects: { readonly voice: boolean },
  onState: (state: WatchState) => void,
  onBroken: (why: string) => void,
): TrackWatch {
  const worker = new Worker(new URL('./watch.worker.ts', import.meta.url), { type: 'module' });
  worker.onerror = () => onBroken(say.reloadPageAndTry({ failed: say.watchStopped() }));
  const remote = wrap<WatchApi>(worker);
  // The types of a page know it of pictures alone.
  const { readable } = new MediaStreamTrackProcessor({ track: track as MediaStreamVideoTrack });
  void remote.watch(transfer(readable as unknown as ReadableStream<AudioData>, [readable]), expects, proxy(onState));
  return { setUsual: (lufs) => void remote.setUsual(lufs), close: () => worker.terminate() };
}
