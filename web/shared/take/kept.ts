import type { z } from 'zod';
import { keep, readKept } from '#web/shared/store/index.ts';

const nameOf = (what: string, takeIds: readonly string[]): string => `mellow-tap.${what}.${takeIds.join('.')}`;

/** Settings for these takes in this browser; null where there are none, or they can't be read. */
export const readForTakes = <T>(what: string, takeIds: readonly string[], schema: z.ZodType<T>): T | null =>
  readKept(nameOf(what, takeIds), schema);

/** Keeps them across reloads. */
export const keepForTakes = (what: string, takeIds: readonly string[], value: unknown): boolean =>
  keep(nameOf(what, takeIds), value);
