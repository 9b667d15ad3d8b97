export interface Kept {
  readonly revision: number;
  readonly savedAtMs: number;
}

const MINUTE_MS = 60_000;
const HOUR_MS = 60 * MINUTE_MS;
const DAY_MS = 24 * HOUR_MS;
/** How old, and then one in how long: all of the last day, one an hour for a week, one a day for a quarter, then one a week. */
const STEPS: readonly { readonly fromMs: number; readonly everyMs: number }[] = [
  { fromMs: 90 * DAY_MS, everyMs: 7 * DAY_MS },
  { fromMs: 7 * DAY_MS, everyMs: DAY_MS },
  { fromMs: DAY_MS, everyMs: HOUR_MS },
];
/** Of a day with more versions than this, all but the newest are thinned to one per minute. */
const MAX_OF_A_DAY = 500;

/**
 * Which versions need not be kept any more. Of each span the newest stays: that is how it was left. The newest of all and
 * the first one stay always.
 * @param versions  oldest first
 * @returns revisions to drop
 */
export function thin(versions: readonly Kept[], nowMs: number): number[] {
  const drop: number[] = [];
  const first = versions[0];
  const newest = versions.at(-1);
  for (let i = 0; i < versions.length; i++) {
    const version = versions[i]!;
    const next = versions[i + 1];
    if (version === first || version === newest || !next) continue;
    const everyMs = spanOf(nowMs - version.savedAtMs, versions.length - i);
    if (everyMs && Math.floor(version.savedAtMs / everyMs) === Math.floor(next.savedAtMs / everyMs))
      drop.push(version.revision);
  }
  return drop;
}

function spanOf(ageMs: number, fromNewest: number): number | null {
  const step = STEPS.find((s) => ageMs >= s.fromMs);
  if (step) return step.everyMs;
  return fromNewest > MAX_OF_A_DAY ? MINUTE_MS : null;
}
