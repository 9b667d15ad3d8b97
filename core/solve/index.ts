export { type Aligned, type Alignment, alignListener } from './align.ts';
export type { Wrong } from './flips.ts';
export { type Left, type Made, type MadeSo, makeItSo } from './make-it-so.ts';
export { type MuteSeen, mutesOn } from './mutes.ts';
