import type { Text } from '#core/base/said/index.ts';
import type { DayCheck, ListId, Step, Ticks } from '#core/live/run/index.ts';
import { run as say } from '#words/index.ts';

/** Something of a list that is ticked: a step of an order, or a check. */
export interface Item {
  readonly id: string;
  readonly says: Text;
  readonly why: Text;
  readonly cautions: Step['cautions'];
  /** Ids of items that come before it. */
  readonly after: readonly string[];
}

export type Way = Exclude<ListId, 'checks'>;
export const WAYS: readonly (readonly [Way, string])[] = [
  ['first', say.fullSetupFromScratch()],
  ['standing', say.alreadyCabledPowerUp()],
  ['since', say.onlyWhatChangedSince()],
  ['down', say.shutDown()],
];

export const itemOfCheck = ({ id, says, why }: DayCheck): Item => ({ id, says, why, cautions: [], after: [] });

/** The next item: the first open one that depends on no open one; null when all is done. */
export const nextItem = (items: readonly Item[], ticks: Ticks): Item | null =>
  items.find((s) => !ticks[s.id] && s.after.every((a) => ticks[a] || !items.some((o) => o.id === a))) ?? null;

/** Open items that one rests on: doing it now would break the order. */
export const openBefore = (item: Item, items: readonly Item[], ticks: Ticks): readonly Item[] =>
  items.filter((s) => item.after.includes(s.id) && !ticks[s.id]);

/** The item that was ticked last; null for none. */
export const lastTicked = (items: readonly Item[], ticks: Ticks): Item | null =>
  items
    .filter((s) => ticks[s.id])
    .reduce<Item | null>((last, s) => (last && ticks[last.id]!.at > ticks[s.id]!.at ? last : s), null);
