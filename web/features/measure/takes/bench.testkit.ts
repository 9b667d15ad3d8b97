import { notesFrom } from '#web/shared/take/index.ts';
import { look } from '#web/shared/take/look.testkit.ts';
import type { BenchTake } from './useTake.ts';

/** A take that lies on Measure, looked at and at rest. */
export const restingTake = (id: string, more: Partial<BenchTake> = {}): BenchTake => ({
  id,
  name: `${id}.mp4`,
  look: look(),
  notes: notesFrom(look()),
  task: null,
  isUnreadable: false,
  change: () => undefined,
  stop: () => undefined,
  lookAtAll: () => undefined,
  again: () => undefined,
  saying: null,
  conflict: null,
  ...more,
});
