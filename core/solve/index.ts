export { type Aligned, type Alignment, alignListener } from './align.ts';
