import type { WatchState } from '#core/audio/measure/index.ts';
import { watch as say } from '#words/index.ts';
import type { Watched } from './kept.ts';
import { type OpenWatch, openWatch } from './open.ts';

/** An input that is watched as long as the rig is open, whichever view one looks at. */
export interface Watcher {
  readonly id: string;
  /** What it is called by this computer. */
  readonly name: string;
  /** Which listener of the rig it carries. */
  readonly listenerId: string;
  readonly state: WatchState | null;
  /** The device that carried this before, where it is another one now; null where it is the same, or none was known. */
  readonly before: string | null;
  /** Why it stopped; null while it runs. */
  readonly gone: string | null;
}

interface Running {
  watcher: Watcher;
  open: OpenWatch | null;
}

const LOOK_MS = 1000;

let running: Running[] = [];
let shown: readonly Watcher[] = [];
let timer: ReturnType<typeof setInterval> | undefined;
const listeners = new Set<() => void>();

const announce = (): void => {
  shown = running.map((r) => r.watcher);
  for (const listener of listeners) listener();
};
const look = (): void => {
  for (const r of running) if (r.open && r.watcher.gone === null) r.watcher = { ...r.watcher, state: r.open.state() };
  announce();
};

/** All that is watched, for `useSyncExternalStore`. */
export const watchers = {
  subscribe(listener: () => void): () => void {
    listeners.add(listener);
    return () => listeners.delete(listener);
  },
  snapshot: (): readonly Watcher[] => shown,
  /**
   * @param expects  what has to come there by the plan, and what carried it last time
   * @returns what carries it now
   * @throws Error with a sentence, where the input cannot be opened
   */
  async start(
    inputId: string | null,
    listenerId: string,
    { voice = false, before }: { readonly voice?: boolean; readonly before?: Watched | undefined } = {},
  ): Promise<Watched> {
    const one: Running = {
      watcher: { id: inputId ?? '', name: '', listenerId, state: null, before: null, gone: null },
      open: null,
    };
    one.open = await openWatch(inputId, { voice }, (why) => {
      one.watcher = { ...one.watcher, gone: why };
      announce();
    });
    const { inputId: id, inputs } = one.open;
    watchers.stop(id);
    const name = inputs.find((i) => i.id === id)?.name ?? say.inputTitle();
    const isOther = before !== undefined && before.inputId !== id && before.name !== name;
    one.watcher = { ...one.watcher, id, name, before: isOther ? before.name : null };
    running = [...running, one];
    timer ??= setInterval(look, LOOK_MS);
    announce();
    return { listenerId, inputId: id, name };
  },
  stop(id: string): void {
    for (const r of running) if (r.watcher.id === id) r.open?.stop();
    running = running.filter((r) => r.watcher.id !== id);
    if (running.length === 0) {
      clearInterval(timer);
      timer = undefined;
    }
    announce();
  },
  stopAll(): void {
    for (const r of [...running]) watchers.stop(r.watcher.id);
  },
  /** As loud as it was in the last half minute is usual from now on, and so is its device. */
  callUsual(id: string): void {
    const one = running.find((r) => r.watcher.id === id);
    if (!one) return;
    one.open?.setUsual(one.watcher.state?.usualLufs ?? null);
    one.watcher = { ...one.watcher, before: null };
    announce();
  },
};
