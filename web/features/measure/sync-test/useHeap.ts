import { useCallback, useEffect, useRef, useState } from 'react';
import { api, sayProblem, uploadTake, useAppDispatch } from '#web/shared/store/index.ts';
import { notesFrom, offsetOf, rememberFile, sourceOf, type TakeOffset } from '#web/shared/take/index.ts';
import { type Job, lookAtTake, type TakeLook } from '#web/shared/workers/index.ts';
import { syncTest as say } from '#words/index.ts';

/** A take of the heap, and how far it has come. */
export interface HeapItem {
  readonly id: string;
  readonly name: string;
  readonly state: 'waiting' | 'looking' | 'read' | 'nothing' | 'failed';
  readonly done: number;
  readonly read: TakeOffset | null;
  readonly says: string | null;
}

export interface Heap {
  readonly items: readonly HeapItem[];
  addFiles(files: readonly File[]): void;
  addKept(takes: readonly { readonly id: string; readonly name: string }[]): void;
  remove(id: string): void;
}

const fresh = (id: string, name: string): HeapItem => ({ id, name, state: 'waiting', done: 0, read: null, says: null });

/** Takes that are looked at one after another, each in a worker of its own; files go to the server when they have been read. */
export function useHeap(): Heap {
  const dispatch = useAppDispatch();
  const [items, setItems] = useState<readonly HeapItem[]>([]);
  const files = useRef(new Map<string, File>());
  const busy = useRef<{ id: string; job: Job<TakeLook> } | null>(null);
  const put = useCallback(
    (id: string, part: Partial<HeapItem>) => setItems((all) => all.map((i) => (i.id === id ? { ...i, ...part } : i))),
    [],
  );

  const next = items.find((i) => i.state === 'waiting');
  const nextId = next?.id;
  const idle = !items.some((i) => i.state === 'looking');
  useEffect(() => {
    if (!nextId || !idle) return;
    const id = nextId;
    put(id, { state: 'looking' });
    const job = lookAtTake(sourceOf(id), false, (p) => put(id, { done: p.done }));
    busy.current = { id, job };
    job.result.then(
      (look) => {
        const read = offsetOf(look, notesFrom(look));
        put(id, { state: read ? 'read' : 'nothing', read, says: read ? null : whyNothing(look) });
        const file = files.current.get(id);
        if (!file) return;
        uploadTake(id, file, file.name).then(
          () => dispatch(api.util.invalidateTags(['Takes'])),
          (error: unknown) =>
            put(id, {
              says: say.couldntBeSaved({
                error: error instanceof TypeError ? say.serverIsntResponding() : sayProblem(error),
              }),
            }),
        );
      },
      (error: unknown) => put(id, { state: 'failed', says: error instanceof Error ? error.message : String(error) }),
    );
  }, [nextId, idle, put, dispatch]);
  useEffect(() => () => busy.current?.job.stop(), []);

  const add = (more: readonly HeapItem[]) =>
    setItems((all) => [...all, ...more.filter((m) => !all.some((i) => i.id === m.id))]);
  return {
    items,
    addFiles(chosen) {
      add(
        chosen.map((file) => {
          const id = crypto.randomUUID();
          files.current.set(id, file);
          rememberFile(id, file);
          return fresh(id, file.name);
        }),
      );
    },
    addKept: (takes) => add(takes.map((t) => fresh(t.id, t.name))),
    remove(id) {
      if (busy.current?.id === id) busy.current.job.stop();
      setItems((all) => all.filter((i) => i.id !== id));
    },
  };
}

/** Why a take says nothing of sound against picture. */
function whyNothing(look: TakeLook): string {
  if (!look.picture) return say.noVideoSoTheres();
  if (!look.sound) return say.noAudioSoTheres();
  if (look.sound.chirps.length > 0) return say.syncSlateIsHeard();
  if (look.picture.slates.length > 0) return say.syncSlateIsSeen();
  return say.noSyncSlateAnd();
}
