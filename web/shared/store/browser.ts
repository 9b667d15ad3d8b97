import type { z } from 'zod';

/** What this browser keeps under a name; null where that is nothing, or nothing that can be read. */
export function readKept<T>(name: string, schema: z.ZodType<T>): T | null {
  try {
    return schema.parse(JSON.parse(localStorage.getItem(name) ?? 'null'));
  } catch {
    return null;
  }
}

/**
 * Keeps a value in this browser over a reload; null forgets it.
 * @returns false where there is no room, or none is allowed: what is not kept lasts as long as the page
 */
export function keep(name: string, value: unknown): boolean {
  try {
    if (value === null) localStorage.removeItem(name);
    else localStorage.setItem(name, JSON.stringify(value));
    return true;
  } catch {
    return false;
  }
}

/** The names that begin so. */
export function keptNames(prefix: string): string[] {
  try {
    return Array.from({ length: localStorage.length }, (_, i) => localStorage.key(i) ?? '').filter((name) =>
      name.startsWith(prefix),
    );
  } catch {
    return [];
  }
}
