import type { PlanCell } from '#core/model/rig/index.ts';

/** The cell with a part of it set; without it, where it is undefined. */
export function without<K extends keyof PlanCell>(cell: PlanCell, part: K, value: PlanCell[K] | undefined): PlanCell {
  const { [part]: _before, ...rest } = cell;
  return (value === undefined ? rest : { ...rest, [part]: value }) as PlanCell;
}

/** The field of the card that one key goes to. */
export const LEVEL_ID = 'wanted-level';
