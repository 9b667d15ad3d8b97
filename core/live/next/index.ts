export { firstStep, planAhead } from './ahead.ts';
export { goalOf, type Readiness, readiness } from './ready.ts';
export type { Act, Ahead, Answered, NextStep } from './step.ts';
export { stillOpen } from './still.ts';
export { placeOfTask, sayTask } from './tasks.ts';
export { placesIn } from './where.ts';
