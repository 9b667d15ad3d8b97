export { TERMS, type TermId } from './terms.ts';
