import { z } from 'zod';
import { parseRigText, RigError } from '#core/model/rig/index.ts';
import { tally } from '#core/rules/index.ts';
import { isTooLarge } from '#core/signal/index.ts';

/** How a rig was judged: its verdict in numbers, or why there is none. */
export const Judged = z.discriminatedUnion('kind', [
  z.strictObject({
    kind: z.literal('tally'),
    /** Of `toFix`, what stops the session. Judgments kept before 1 December 2026 lack it. */
    blockers: z.int().default(0),
    toFix: z.int(),
    toWatch: z.int(),
    toDo: z.int(),
    measured: z.int(),
  }),
  /** It would take longer, or more memory, than is given. */
  z.strictObject({ kind: z.literal('too-large') }),
  /** It cannot be read: by a newer program, broken, of unknown types. */
  z.strictObject({ kind: z.literal('unreadable'), says: z.string() }),
]);
export type Judged = z.infer<typeof Judged>;

export function judge(document: string): Judged {
  try {
    const rig = parseRigText(document);
    if (isTooLarge(rig)) return { kind: 'too-large' };
    const { stops, fixes, watches } = tally(rig);
    return {
      kind: 'tally',
      blockers: stops,
      toFix: stops + fixes,
      toWatch: watches,
      toDo: rig.tasks.length,
      measured: rig.measurements.filter((m) => m.kind !== 'offset').length,
    };
  } catch (error) {
    if (!(error instanceof RigError)) throw error;
    return { kind: 'unreadable', says: error.message };
  }
}
