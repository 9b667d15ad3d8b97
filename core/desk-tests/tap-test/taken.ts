import type { Text } from '#core/base/said/index.ts';
import { applyEdit, type Edit, type Measurement, type Rig } from '#core/model/rig/index.ts';

/** A figure that the readings give, ready for the rig. */
export interface Taken {
  readonly id: string;
  readonly says: Text;
  /** One standard deviation, with its unit. */
  readonly spread: Text;
  readonly edit: Edit;
}

export interface Base {
  readonly takenAt: string;
  readonly newId: () => string;
  /** One standard deviation of a time between ways; that of a tap where absent. */
  readonly sdMs?: number;
}

export const MAX_LABEL = 120;
export const nameIn = (list: readonly { readonly id: string; readonly name: string }[], id: string): string =>
  list.find((e) => e.id === id)?.name ?? id;

/** The edit that takes a measurement in, in place of others; none where it is in already, or refused. */
export function inPlaceOf(
  rig: Rig,
  before: readonly Measurement[],
  measurement: Measurement,
  says: Text,
  spread: Text,
): Taken[] {
  if (before.some((m) => m.takenAt === measurement.takenAt)) return [];
  const edit: Edit = {
    kind: 'batch',
    edits: [
      ...before.map((m): Edit => ({ kind: 'remove-measurement', measurementId: m.id })),
      { kind: 'add-measurement', measurement },
    ],
  };
  return applyEdit(rig, edit).ok ? [{ id: measurement.id, says, spread, edit }] : [];
}
