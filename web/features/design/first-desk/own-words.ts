import { z } from 'zod';
import type { OwnWords } from '#core/routing/grammar/index.ts';
import { keep, readKept } from '#web/shared/store/index.ts';

const NAME = 'mellow-tap.words';
const Words = z.record(z.string(), z.string());

/** What someone at this computer calls types of theirs. */
export const ownWords = (): OwnWords => new Map(Object.entries(readKept(NAME, Words) ?? {}));

/** Remembers a word on this computer. */
export const remember = (words: OwnWords): boolean => keep(NAME, Object.fromEntries(words));
