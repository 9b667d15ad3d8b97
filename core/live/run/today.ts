import type { Rig } from '#core/model/rig/index.ts';
import type { Finding } from '#core/rules/index.ts';
import { evaluationAt } from '#core/signal/index.ts';
import { budgetsOf } from './budgets.ts';
import { checksOf, type DayCheck } from './checks.ts';
import type { ListId } from './journal.ts';
import { type Occasion, orderUp } from './order.ts';
import type { Session } from './session.ts';
import type { Step } from './step.ts';

type UpList = Exclude<ListId, 'checks' | 'down'>;
const UP: readonly UpList[] = ['first', 'standing', 'since'];

/** What is done on a day: the steps up, then the checks. */
export interface Today {
  readonly list: UpList;
  readonly steps: readonly Step[];
  readonly checks: readonly DayCheck[];
}

/** Steps of a list of the day. */
export function stepsUp(rig: Rig, list: UpList, last: Rig | null): Step[] {
  const occasion: Occasion =
    list === 'since' ? (last ? { kind: 'since', last } : { kind: 'standing' }) : { kind: list };
  return orderUp(rig, occasion);
}

/**
 * The list of a day: the one that was begun; else only what changed since it was last good, or everything.
 * @param last  the rig at the end of the last session that went well
 */
export const listOfDay = (session: Session | null, last: Rig | null): UpList =>
  UP.find((list) => Object.keys(session?.ticks[list] ?? {}).length > 0) ?? (last ? 'since' : 'first');

/**
 * @param told  what batteries hold and disks have free, by the name of its budget
 * @param findings  of the rig, where they are known already
 */
export const todayOf = (
  rig: Rig,
  list: UpList,
  last: Rig | null,
  told?: Session['gauges'],
  findings?: readonly Finding[],
): Today => ({
  list,
  steps: stepsUp(rig, list, last),
  checks: checksOf(rig, budgetsOf(rig, told), evaluationAt(rig, null), findings),
});

/** What comes next on that day: the first item that no one has ticked and that waits for none. */
export function nextOfToday(
  { list, steps, checks }: Today,
  session: Session,
): { readonly list: ListId; readonly item: Step | DayCheck; readonly at: number; readonly of: number } | null {
  const ticks = session.ticks[list];
  const step = steps.find((s) => !ticks[s.id] && s.after.every((id) => ticks[id] || !steps.some((o) => o.id === id)));
  const musts = checks.filter((c) => c.must);
  const of = steps.length + musts.length;
  const done = steps.filter((s) => ticks[s.id]).length + musts.filter((c) => session.ticks.checks[c.id]).length;
  if (step) return { list, item: step, at: done + 1, of };
  const check = musts.find((c) => !session.ticks.checks[c.id]);
  return check ? { list: 'checks', item: check, at: done + 1, of } : null;
}

const CHANGES: ReadonlySet<Step['kind']> = new Set(['plug', 'unplug', 'set']);

/** Cables and devices that are otherwise than they were when it was last good. */
export const changedSince = (rig: Rig, last: Rig): number =>
  orderUp(rig, { kind: 'since', last }).filter((s) => CHANGES.has(s.kind)).length;

/** What is known to be as it was when it was last good. */
export interface Unchanged {
  readonly cables: number;
  /** Devices whose settings are all as they were. */
  readonly deviceIds: readonly string[];
}

export function unchangedSince(rig: Rig, last: Rig): Unchanged {
  const before = new Map(last.cables.map((c) => [c.id, JSON.stringify([c.from, c.to])]));
  const settings = new Map(last.devices.map((d) => [d.id, valuesOf(d)]));
  return {
    cables: rig.cables.filter((c) => c.medium === 'lead' && before.get(c.id) === JSON.stringify([c.from, c.to])).length,
    deviceIds: rig.devices.flatMap((d) => (settings.get(d.id) === valuesOf(d) ? [d.id] : [])),
  };
}

const valuesOf = ({ typeId, settings }: Rig['devices'][number]): string =>
  JSON.stringify([typeId, Object.entries(settings).map(([id, { value }]) => [id, value])]);
