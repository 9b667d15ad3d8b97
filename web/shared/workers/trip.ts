import { type Remote, wrap } from 'comlink';
import { handedOn } from '#words/index.ts';
import type { TripApi } from './trip.worker.ts';

/** Reads round trips beside the page, one repeat after another, until it is closed. */
export function openTripReader(): { read: Remote<TripApi>['read']; close(): void } {
  const worker = new Worker(new URL('./trip.worker.ts', import.meta.url), { type: 'module', name: handedOn() });
  return { read: wrap<TripApi>(worker).read, close: () => worker.terminate() };
}
