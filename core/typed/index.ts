export { type Mention, readMention } from './mention.ts';
