export { planAhead, type Surroundings } from './ahead.ts';
export { goalOf, type Readiness, readiness } from './ready.ts';
export type { Act, Ahead, NextStep } from './step.ts';
export { placeOfTask, sayTask } from './tasks.ts';
export { placesIn } from './where.ts';
