export { type TermId, TERMS } from './terms.ts';
