import type { Rig } from '#core/model/rig/index.ts';
import { solveRouting } from './solve-routing.ts';
import { keyOf, type Wrong } from './wrongs.ts';

/** A wish that cannot be had together with another one by any setting: without the second, the first can. */
export interface Clash {
  readonly wrong: Wrong;
  readonly with: { readonly sourceId: string; readonly listenerId: string };
}

/** Each wish that is tried costs a search. */
const MAX_TRIED = 16;
const EVALUATIONS_EACH = 250;

/**
 * With which other wish of the plan one that was left clashes: each is given up in turn, those at the same listener or
 * of the same source first, and the search tried again. Empty where no single one frees it.
 */
export function clashesOf(rig: Rig, wrong: Wrong): Clash[] {
  const near = (c: Rig['plan'][number]): number =>
    Number(c.listenerId === wrong.listenerId) + Number(c.sourceId === wrong.sourceId);
  const others = rig.plan
    .filter((c) => c.want !== 'may' && near(c) < 2)
    .sort((a, b) => near(b) - near(a))
    .slice(0, MAX_TRIED);
  return others.flatMap((cell): Clash[] => {
    const without = { ...rig, plan: rig.plan.map((c) => (c === cell ? { ...c, want: 'may' as const } : c)) };
    const { left } = solveRouting(without, undefined, EVALUATIONS_EACH);
    if (left.some((l) => keyOf(l) === keyOf(wrong))) return [];
    return [{ wrong, with: { sourceId: cell.sourceId, listenerId: cell.listenerId } }];
  });
}
