export { type Occasion, orderUp } from './order.ts';
export { orderDown } from './order-down.ts';
export { CAUTIONS, type Caution, type Step, type StepKind } from './step.ts';
