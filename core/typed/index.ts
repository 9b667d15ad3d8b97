export { facetOf } from './facets.ts';
export { type Chain, type Fits, type Hop, type Item, readChains, titleOf } from './grammar.ts';
export { type Mention, type OwnWords, ownKey, readMention } from './mention.ts';
export type { Joint } from './phrases.ts';
export { tokensOf } from './tokens.ts';
