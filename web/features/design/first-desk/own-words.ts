import { z } from 'zod';
import type { OwnWords } from '#core/routing/grammar/index.ts';

const KEY = 'mellow-tap.words';
const Words = z.record(z.string(), z.string());

/** What someone at this computer calls types of theirs; nothing where it cannot be read. */
export function ownWords(): OwnWords {
  try {
    return new Map(Object.entries(Words.parse(JSON.parse(localStorage.getItem(KEY) ?? '{}'))));
  } catch {
    return new Map();
  }
}

/** Remembers a word on this computer; a browser that keeps nothing forgets it with the page. */
export function remember(words: OwnWords): void {
  try {
    localStorage.setItem(KEY, JSON.stringify(Object.fromEntries(words)));
  } catch {
    // Private windows keep nothing: the word holds for this desk.
  }
}
