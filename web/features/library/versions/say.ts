import type { RigVersion } from '#api/index.ts';
import { sayToFix } from '#web/shared/parts/index.ts';
import { common, versions as say } from '#words/index.ts';

const DAY = new Intl.DateTimeFormat(undefined, { dateStyle: 'full' });
const TIME = new Intl.DateTimeFormat(undefined, { timeStyle: 'medium' });

export const dayOf = (at: string): string => DAY.format(new Date(at));
export const timeOf = (at: string): string => TIME.format(new Date(at));

type Judged = RigVersion['judged'];

/** How a version was judged, in a few words. */
export function sayJudged(judged: Judged): string {
  if (!judged) return common.notChecked();
  if (judged.toFix > 0) return sayToFix(judged);
  return judged.toWatch > 0
    ? `${judged.toWatch} ${judged.toWatch === 1 ? common.warning() : say.warnings()}`
    : say.nothingToFix();
}

/** How it moved against the version before it; nothing where it did not, or one of them was never checked. */
export function sayMoved(before: Judged, now: Judged): string {
  if (!before || !now || before.toFix === now.toFix) return '';
  const by = now.toFix - before.toFix;
  return by < 0 ? say.fewer({ by: -by }) : say.more({ by });
}
