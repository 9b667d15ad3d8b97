import { useState } from 'react';
import { type Task, useWorkList } from '#web/shared/jobs/index.ts';
import { newId } from '#web/shared/store/index.ts';
import { notesFrom, offsetOf, rememberFile, sourceOf, type TakeOffset, useSendTake } from '#web/shared/take/index.ts';
import { lookAtTake, type Progress, type TakeLook } from '#web/shared/workers/index.ts';
import { syncTest as say } from '#words/index.ts';

/** A take of the heap: what it says, or why nothing; neither until it has been read. */
export interface HeapItem {
  readonly id: string;
  readonly name: string;
  readonly read: TakeOffset | null;
  readonly says: string | null;
}

export interface Heap {
  readonly items: readonly HeapItem[];
  /** The reading of a take, under way or failed. */
  taskOf(id: string): Task | null;
  addFiles(files: readonly File[]): void;
  addKept(takes: readonly { readonly id: string; readonly name: string }[]): void;
  again(id: string): void;
  remove(id: string): void;
}

/** Takes that are looked at one after another; files go to the server when they have been read. */
export function useHeap(): Heap {
  const [items, setItems] = useState<readonly HeapItem[]>([]);
  const { tasks, run, again, drop } = useWorkList();
  const send = useSendTake();
  const add = async (id: string, name: string, file?: File) => {
    if (items.some((i) => i.id === id)) return;
    setItems((all) => [...all, { id, name, read: null, says: null }]);
    const start = (heard: (p: Progress) => void) => lookAtTake(sourceOf(id), false, heard);
    const look = await run({ id, name, lane: 'batch', start });
    if (!look) return;
    const read = offsetOf(look, notesFrom(look));
    setItems((all) => all.map((i) => (i.id === id ? { ...i, read, says: read ? null : whyNothing(look) } : i)));
    if (file) await send(id, file);
  };
  return {
    items,
    taskOf: (id) => tasks.find((t) => t.id === id) ?? null,
    addFiles(chosen) {
      for (const file of chosen) {
        const id = newId();
        rememberFile(id, file);
        void add(id, file.name, file);
      }
    },
    addKept(takes) {
      for (const { id, name } of takes) void add(id, name);
    },
    again,
    remove(id) {
      drop(id);
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
