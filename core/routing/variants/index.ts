export { type Comparison, compareRigs, type Difference, type Figures, figuresFor } from './compare.ts';
export { countByKind, FAILURE_KINDS, type Failure, type FailureKind, failuresOf } from './failures.ts';
export { type Item, shoppingList } from './shopping.ts';
