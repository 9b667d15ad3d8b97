import { core } from '../words/index.ts';

/** A code of core as it stands without words: 'check.masked(...)'; and an object put into a text. */
export const UNSAID = new RegExp(`(?<![\\w/.])(${[...Object.keys(core), 'list'].join('|')})\\.[a-z]\\w+\\(|\\[object`);
