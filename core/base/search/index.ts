export { leadsTo, postOrder, reachedFrom, walk } from './search.ts';
