export { openServer } from './app.ts';
export { type Verified, verifyFolder } from './backup/verify.ts';
export { HeldError, holderOf } from './data/lock.ts';
export { HttpProblem, StartError, storageProblem } from './problem.ts';
