import { sayDisagreement, sayPlan, sayWander, type TapCell } from '#core/desk-tests/tap-test/index.ts';
import type { Rig } from '#core/model/rig/index.ts';
import { listenerIn, sourceIn } from '#core/model/rig/index.ts';
import { textOf } from '#words/index.ts';

type Kind = TapCell['disagreements'][number]['kind'];

/** What is the matter with a reading, the gravest first. @param leftOut  what is said elsewhere */
export const sentencesOf = (rig: Rig, cell: TapCell, leftOut?: Kind): string[] => {
  const apart = cell.disagreements
    .filter((d) => d.kind !== leftOut)
    .sort((a, b) => b.weight - a.weight)
    .map((d) => textOf(sayDisagreement(rig, cell, d)));
  const plan = sayPlan(rig, cell);
  return plan ? [...apart, textOf(plan)] : apart;
};

/** A line of what does not agree, and the reading that it leads to. */
export interface ApartLine {
  readonly cell: TapCell;
  readonly says: string;
}

/** Reading by reading; that the delay moves is all of a take's, and said once. */
export function apartLines(rig: Rig, apart: readonly TapCell[]): ApartLine[] {
  const wandering = new Map<string, TapCell[]>();
  for (const cell of apart)
    if (cell.read?.heard?.wander) wandering.set(cell.listenerId, [...(wandering.get(cell.listenerId) ?? []), cell]);
  return [
    ...apart.flatMap((cell): ApartLine[] => {
      const says = sentencesOf(rig, cell, 'wanders').join(' ');
      return says ? [{ cell, says }] : [];
    }),
    ...[...wandering].map(([listenerId, cells]): ApartLine => {
      const moved = cells.map((c) => c.read!.heard!.wander!);
      const far = {
        earliestMs: Math.min(...moved.map((w) => w.earliestMs)),
        latestMs: Math.max(...moved.map((w) => w.latestMs)),
      };
      const names = cells.map((c) => sourceIn(rig, c.sourceId).name);
      const listener = listenerIn(rig, listenerId).name;
      return { cell: cells[0]!, says: textOf(sayWander(names, listener, far)) };
    }),
  ];
}
