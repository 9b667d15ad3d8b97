import type { Restored } from '#api/index.ts';

import { rigs as say } from '#words/index.ts';

const MINUTE_MS = 60_000;
const HOUR_MS = 60 * MINUTE_MS;
const DAY_MS = 24 * HOUR_MS;

/** How long ago, in the unit that fits. */
export function sayAge(ms: number): string {
  if (ms < MINUTE_MS) return say.justNow();
  if (ms < HOUR_MS) return say.minAgo({ MINUTE_MS: Math.floor(ms / MINUTE_MS) });
  if (ms < DAY_MS) return say.hAgo({ HOUR_MS: Math.floor(ms / HOUR_MS) });
  return say.dayAgo({ day: Math.floor(ms / DAY_MS) });
}

/** What restoring a backup does, a sentence each. */
export function sayRestored(restored: Restored): string[] {
  const { rigsNew, rigsUndeleted, rigsBeside, rigsSame, takesNew, takesWithoutFile } = restored;
  const lines = [
    rigsNew > 0 && say.addsRigWithEvery({ rig: rigsNew }),
    rigsUndeleted > 0 && say.bringsBackDeletedRig({ rig: rigsUndeleted }),
    rigsBeside.length > 0 && say.addsNextToRig({ join: rigsBeside.map((name) => `“${name}”`).join(', ') }),
    takesNew > 0 && say.addsTake({ take: takesNew }),
    takesWithoutFile > 0 && say.takeInItHas({ take: takesWithoutFile }),
    rigsSame > 0 && say.rigIsSameAlready({ rig: rigsSame }),
  ].filter((line) => line !== false);
  return lines.length > 0 ? lines : [say.everythingInItIs()];
}
