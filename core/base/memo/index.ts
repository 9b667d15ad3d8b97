export { memoized } from './memo.ts';
