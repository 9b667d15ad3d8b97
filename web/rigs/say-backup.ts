import type { Restored } from '#api/index.ts';
import { count } from '#web/parts/index.ts';

const MINUTE_MS = 60_000;
const HOUR_MS = 60 * MINUTE_MS;
const DAY_MS = 24 * HOUR_MS;

/** How long ago, in the unit that fits. */
export function sayAge(ms: number): string {
  if (ms < MINUTE_MS) return 'just now';
  if (ms < HOUR_MS) return `${Math.floor(ms / MINUTE_MS)} min ago`;
  if (ms < DAY_MS) return `${Math.floor(ms / HOUR_MS)} h ago`;
  return `${count(Math.floor(ms / DAY_MS), 'day')} ago`;
}

/** What restoring a backup does, a sentence each. */
export function sayRestored(restored: Restored): string[] {
  const { rigsNew, rigsUndeleted, rigsBeside, rigsSame, takesNew, takesWithoutFile } = restored;
  const lines = [
    rigsNew > 0 && `Adds ${count(rigsNew, 'rig')} with every version and the log.`,
    rigsUndeleted > 0 && `Brings back ${count(rigsUndeleted, 'deleted rig')}.`,
    rigsBeside.length > 0 &&
      `Adds ${rigsBeside.map((name) => `“${name}”`).join(', ')} beside the rig of that name, which is different now.`,
    takesNew > 0 && `Adds ${count(takesNew, 'take')}.`,
    takesWithoutFile > 0 &&
      `${count(takesWithoutFile, 'take')} in it ${takesWithoutFile === 1 ? 'has' : 'have'} no file: a daily copy leaves them where they were.`,
    rigsSame > 0 && `${count(rigsSame, 'rig')} ${rigsSame === 1 ? 'is' : 'are'} the same already.`,
  ].filter((line) => line !== false);
  return lines.length > 0 ? lines : ['Everything in it is here already.'];
}
