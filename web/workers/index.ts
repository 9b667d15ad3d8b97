export { compareTakes, type Job, lookAtTake } from './jobs.ts';
export type { Progress, TakeLook } from './look.ts';
export type { TakeSource } from './take-source.ts';
