import { useCallback, useEffect, useMemo, useRef, useSyncExternalStore } from 'react';
import { type Asked, queue, type Task } from './queue.ts';

/** Jobs of a component: they end when it is left, but for those that go on in the background. */
export interface WorkList {
  readonly tasks: readonly Task[];
  /** Lines a job up under an id; the result is null where it was dropped. */
  run<T>(asked: Asked<T>): Promise<T | null>;
  stop(id: string): void;
  again(id: string): void;
  drop(id: string): void;
}

const { stop, again, drop } = queue;

export function useWorkList(): WorkList {
  const ids = useRef<readonly string[]>([]);
  const all = useSyncExternalStore(queue.subscribe, queue.tasks);
  const tasks = useMemo(() => all.filter((t) => ids.current.includes(t.id)), [all]);
  useEffect(
    () => () => {
      for (const id of ids.current) drop(id);
      ids.current = [];
    },
    [],
  );
  const run = useCallback(<T>(asked: Asked<T>) => {
    const id = asked.id ?? crypto.randomUUID();
    if (!asked.background) ids.current = [...ids.current, id];
    return queue.add({ ...asked, id }).result.finally(() => {
      ids.current = ids.current.filter((other) => other !== id);
    });
  }, []);
  return useMemo(() => ({ tasks, run, stop, again, drop }), [tasks, run]);
}

/** One job of a component at a time. */
export interface Work {
  /** Null at rest. */
  readonly task: Task | null;
  /** Puts a job in place of the one before. */
  run<T>(asked: Asked<T>): Promise<T | null>;
  stop(): void;
  again(): void;
  drop(): void;
}

export function useWork(): Work {
  const list = useWorkList();
  const task = list.tasks.at(-1) ?? null;
  const current = useRef<string | null>(null);
  const onIt = useCallback((act: (id: string) => void) => {
    if (current.current !== null) act(current.current);
  }, []);
  const run = useCallback(
    <T>(asked: Asked<T>) => {
      onIt(drop);
      current.current = crypto.randomUUID();
      return list.run({ ...asked, id: current.current });
    },
    [list.run, onIt],
  );
  const acts = useMemo(
    () => ({ run, stop: () => onIt(stop), again: () => onIt(again), drop: () => onIt(drop) }),
    [run, onIt],
  );
  return { task, ...acts };
}

/** @returns whether a job is waiting for its turn or at work */
export const isUnderWay = (task: Task | null): task is Task => task?.state === 'waiting' || task?.state === 'running';
