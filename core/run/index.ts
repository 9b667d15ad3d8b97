export { CAUTIONS, type Caution, type Occasion, orderDown, orderUp, type Step, type StepKind } from './order.ts';
