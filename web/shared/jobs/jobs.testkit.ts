import type { Task } from './queue.ts';
import type { Work } from './useWork.ts';

/** A job at work, or as far as the test says. */
export const aTask = (more: Partial<Task> = {}): Task => ({
  id: 'task',
  name: 'take.wav',
  state: 'running',
  what: 'measuring',
  done: 0,
  leftS: null,
  error: null,
  background: false,
  ...more,
});

/** Work at rest, or as the test says. */
export const someWork = (more: Partial<Work> = {}): Work => ({
  task: null,
  run: async () => null,
  stop: () => undefined,
  again: () => undefined,
  drop: () => undefined,
  ...more,
});
