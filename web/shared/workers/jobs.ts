import { proxy, type Remote, wrap } from 'comlink';
import type { Apart, Diagnosis, MenuClick, Offset, Stretch } from '#core/audio/measure/index.ts';
import type { Bindings } from '#core/desk-tests/drawn/index.ts';
import type { ScanRead } from '#core/desk-tests/scan/index.ts';
import type { Explanation, Players, StandInDesk, TakeRead } from '#core/desk-tests/tap-test/index.ts';
import type { TapReading } from '#core/desk-tests/tunes/index.ts';
import type { Ahead, NextStep } from '#core/live/next/index.ts';
import type { Lineup } from '#core/live/troubleshoot/index.ts';
import type { Rig } from '#core/model/rig/index.ts';
import type { Drawing, Seats, Shape, Wire } from '#core/output/layout/index.ts';
import type { Option, Whole } from '#core/routing/plan/index.ts';
import type { AlignOptions, AllAligned } from '#core/routing/suggest/index.ts';
import { handedOn, workers as say } from '#words/index.ts';
import type { Region } from './cells.ts';
import type { SmallFrame } from './frames.ts';
import type { Progress, TakeLook } from './look.ts';
import type { JoinedTakes, MeasureApi } from './measure.worker.ts';
import type { NextApi } from './next.worker.ts';
import type { RigApi } from './rig.worker.ts';
import type { MadeFile, SlateApi, SlateFilm } from './slate.worker.ts';
import type { TakeSource } from './take-source.ts';
import type { Drill, TapApi, TrackTapped } from './tap.worker.ts';

/** A job in progress: its result, and how to stop it. */
export interface Job<T> {
  readonly result: Promise<T>;
  stop(): void;
}

type OnProgress = (progress: Progress) => void;

/** Each job has a worker of its own, so that stopping it is ending it. */
function inWorker<Api, T>(worker: Worker, failed: string, run: (api: Remote<Api>) => Promise<T>): Job<T> {
  const broke = new Promise<never>((_, reject) => {
    worker.onerror = () => reject(new Error(say.reloadPageAndTry({ failed })));
  });
  const stop = () => worker.terminate();
  return { result: Promise.race([run(wrap<Api>(worker)), broke]).finally(stop), stop };
}

/** Nothing is heard of a job's progress once it is over. */
function withProgress<Api, T>(
  worker: Worker,
  failed: string,
  onProgress: OnProgress,
  run: (api: Remote<Api>, onProgress: OnProgress) => Promise<T>,
): Job<T> {
  let over = false;
  const heard = proxy((progress: Progress) => {
    if (!over) onProgress(progress);
  });
  const job = inWorker<Api, T>(worker, failed, (api) => run(api, heard));
  const stop = () => {
    over = true;
    job.stop();
  };
  return {
    stop,
    result: job.result.finally(() => {
      over = true;
    }),
  };
}

const start = <T>(
  onProgress: OnProgress,
  run: (worker: Remote<MeasureApi>, onProgress: OnProgress) => Promise<T>,
): Job<T> =>
  withProgress<MeasureApi, T>(
    new Worker(new URL('./measure.worker.ts', import.meta.url), { type: 'module', name: handedOn() }),
    say.measuringFailed(),
    onProgress,
    run,
  );

/** Writes a slate to be played by a console or a player. */
export const makeSlate = (what: 'film' | 'sound', film: SlateFilm, onProgress: OnProgress): Job<MadeFile> =>
  withProgress<SlateApi, MadeFile>(
    new Worker(new URL('./slate.worker.ts', import.meta.url), { type: 'module', name: handedOn() }),
    say.couldntCreateFile(),
    onProgress,
    (worker, heard) => (what === 'sound' ? worker.sound(film) : worker.film(film, heard)),
  );

/** Sets a large map out beside the page. */
export const setOut = (shapes: readonly Shape[], wires: readonly Wire[], last: Seats | undefined): Job<Drawing> =>
  inWorker<RigApi, Drawing>(rigWorker(), say.couldntDrawMap(), (api) => api.layout(shapes, wires, last));

/** Looks for what makes a rig as its plan wants it: the fewest settings, then leads and devices, and what clashes. */
export const searchMakeItSo = (rig: Rig): Job<Whole> =>
  inWorker<RigApi, Whole>(rigWorker(), say.searchFailed(), (api) => api.makeWhole(rig));

/** Plans what is to be done until a rig is ready; a first step comes before the whole of it. */
export const planNext = (rig: Rig, last: Rig | null, onFirst: (step: NextStep) => void): Job<Ahead> =>
  inWorker<NextApi, Ahead>(
    new Worker(new URL('./next.worker.ts', import.meta.url), { type: 'module', name: handedOn() }),
    say.couldntPlan(),
    (api) => api.planAhead(rig, last, proxy(onFirst)),
  );

/** Looks for delay settings that put every listener right at once. */
export const searchAlignment = (rig: Rig, options: AlignOptions): Job<AllAligned> =>
  inWorker<RigApi, AllAligned>(rigWorker(), say.searchFailed(), (api) => api.alignAll(rig, options));

/** Draws every way to build what a rig is for, and judges it. */
export const drawWays = (rig: Rig, onProgress: OnProgress): Job<Option[]> =>
  withProgress<RigApi, Option[]>(rigWorker(), say.couldntDrawAlternatives(), onProgress, (api, heard) =>
    api.optionsFor(rig, heard),
  );

/** Runs every fault that a rig may have in the model. */
export const lineUpFaults = (rig: Rig, onProgress: OnProgress): Job<Lineup> =>
  withProgress<RigApi, Lineup>(rigWorker(), say.couldntSimulateFaults(), onProgress, (api, heard) =>
    api.lineUp(rig, heard),
  );

const rigWorker = (): Worker =>
  new Worker(new URL('./rig.worker.ts', import.meta.url), { type: 'module', name: handedOn() });

export const lookAtTake = (source: TakeSource, whole: boolean, onProgress: OnProgress): Job<TakeLook> =>
  start(onProgress, (worker, heard) => worker.look(source, whole, heard));

export const compareTakes = (first: TakeSource, second: TakeSource, onProgress: OnProgress): Job<Offset> =>
  start(onProgress, (worker, heard) => worker.offset(first, second, heard));

export const followTakes = (
  first: TakeSource,
  second: TakeSource,
  offset: Offset,
  onProgress: OnProgress,
): Job<Apart> => start(onProgress, (worker, heard) => worker.apart(first, second, offset, heard));

export const matchMenu = (source: TakeSource, region: Region, onProgress: OnProgress): Job<MenuClick[]> =>
  start(onProgress, (worker, heard) => worker.menu(source, region, heard));

export const joinAll = (sources: readonly TakeSource[], onProgress: OnProgress): Job<JoinedTakes> =>
  start(onProgress, (worker, heard) => worker.join(sources, heard));

export const diagnoseTake = (source: TakeSource, channel: number | null, onProgress: OnProgress): Job<Diagnosis> =>
  start(onProgress, (worker, heard) => worker.diagnose(source, channel, heard));

export const correctTake = (source: TakeSource, stretches: readonly Stretch[], onProgress: OnProgress): Job<Blob> =>
  start(onProgress, (worker, heard) => worker.correct(source, stretches, heard));

export const framesBetween = (source: TakeSource, fromMs: number, toMs: number, widthPx: number): Job<SmallFrame[]> =>
  start(
    () => undefined,
    (worker) => worker.frames(source, fromMs, toMs, widthPx),
  );

const tap = <T>(onProgress: OnProgress, run: (worker: Remote<TapApi>, onProgress: OnProgress) => Promise<T>): Job<T> =>
  withProgress<TapApi, T>(
    new Worker(new URL('./tap.worker.ts', import.meta.url), { type: 'module', name: handedOn() }),
    say.readingTapTestFailed(),
    onProgress,
    run,
  );

/** Reads every track of a take for tunes. */
export const readTapTake = (source: TakeSource, ids: readonly number[], onProgress: OnProgress): Job<TrackTapped[]> =>
  tap(onProgress, (worker, heard) => worker.read(source, ids, heard));

/** Lets stand-ins play at a stand-in desk, records one listener, and reads the take. */
export const tapStandIn = (
  rig: Rig,
  desk: StandInDesk,
  listenerId: string,
  players: Players,
  onProgress: OnProgress,
): Job<TapReading | null> => tap(onProgress, (worker, heard) => worker.standIn(rig, desk, listenerId, players, heard));

export const explainTap = (
  rig: Rig,
  takes: readonly TakeRead[],
  players: Players,
  onProgress: OnProgress,
): Job<Explanation[]> => tap(onProgress, (worker, heard) => worker.explain(rig, takes, players, heard));

export const explainScanAt = (
  rig: Rig,
  scan: ScanRead,
  bindings: Bindings,
  onProgress: OnProgress,
): Job<Explanation[]> => tap(onProgress, (worker, heard) => worker.explainScan(rig, scan, bindings, heard));

export const hideFaultFor = (rig: Rig, seed: number): Job<Drill | null> =>
  tap(
    () => undefined,
    (worker) => worker.hide(rig, seed),
  );
