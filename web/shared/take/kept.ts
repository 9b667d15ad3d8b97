import type { z } from 'zod';

const nameOf = (what: string, takeIds: readonly string[]): string => `mellow-tap.${what}.${takeIds.join('.')}`;

/** Settings for these takes in this browser; null where there are none, or they can't be read. */
export function readKept<T>(what: string, takeIds: readonly string[], schema: z.ZodType<T>): T | null {
  try {
    const text = localStorage.getItem(nameOf(what, takeIds));
    return text === null ? null : schema.parse(JSON.parse(text));
  } catch {
    return null;
  }
}

/** Keeps it across reloads; a browser that keeps nothing loses it with the page. */
export function keep(what: string, takeIds: readonly string[], value: unknown): void {
  try {
    localStorage.setItem(nameOf(what, takeIds), JSON.stringify(value));
  } catch {
    // No room, or none allowed: it works on without.
  }
}
