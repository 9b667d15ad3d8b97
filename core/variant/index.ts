export { type Comparison, compareRigs, type Difference, type Figures } from './compare.ts';
export { countByKind, FAILURE_KINDS, type Failure, type FailureKind, failuresOf } from './failures.ts';
