export { InBackground } from './InBackground.tsx';
export { queue, type Task } from './queue.ts';
export { useJob } from './useJob.ts';
export { isUnderWay, useWork, useWorkList, type Work, type WorkList } from './useWork.ts';
export { failureOf, WorkLine } from './WorkLine.tsx';
