export { type Comparison, compareRigs, type Difference, type Figures, figuresFor } from './compare.ts';
export { countByKind, FAILURE_KINDS, type FailureKind, failuresOf } from './failures.ts';
export { shoppingList } from './shopping.ts';
