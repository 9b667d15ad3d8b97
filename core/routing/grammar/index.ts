export { isNamedAgain } from './again.ts';
export type { Chain, Fits, Hop, Item } from './chain.ts';
export { facetOf } from './facets.ts';
export { readChains, titleOf } from './grammar.ts';
export { isPlural, type OwnWords, ownKey, readMention } from './mention.ts';
export type { Joint } from './phrases.ts';
export { tokensOf } from './tokens.ts';
