export { firstStep, planAhead } from './ahead.ts';
export { type Readiness, readiness } from './ready.ts';
export type { Ahead, NextStep } from './step.ts';
export { stillOpen } from './still.ts';
export { placeOfTask, sayTask } from './tasks.ts';
