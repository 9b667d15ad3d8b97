import { z } from 'zod';
import type { Entry } from '#core/live/troubleshoot/index.ts';
import { SYMPTOM_IDS } from '#core/live/troubleshoot/index.ts';
import { keep, readKept } from '#web/shared/store/index.ts';

const Id = z.string().max(64);
const Key = z.string().max(300);
const Entries = z
  .array(
    z.discriminatedUnion('kind', [
      z.strictObject({
        kind: z.literal('complaint'),
        complaint: z.strictObject({ symptomId: z.enum(SYMPTOM_IDS), listenerId: Id, sourceId: Id.nullable() }),
      }),
      z.strictObject({ kind: z.literal('works'), listenerId: Id, sourceId: Id }),
      z.strictObject({ kind: z.literal('look'), key: Key, answer: z.string().max(400) }),
      z.strictObject({ kind: z.literal('skipped'), key: Key }),
    ]),
  )
  .max(200);

const nameOf = (rigId: string): string => `mellow.trouble.${rigId}`;

/** Reports and answers so far, kept in this browser over a reload. */
export const readEntries = (rigId: string): readonly Entry[] => readKept(nameOf(rigId), Entries) ?? [];

export const keepEntries = (rigId: string, entries: readonly Entry[]): boolean =>
  keep(nameOf(rigId), entries.length === 0 ? null : entries);
