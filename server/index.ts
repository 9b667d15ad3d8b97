export { verifyFolder } from './backup/verify.ts';
export { HttpProblem, StartError, storageProblem } from './http/problem.ts';
export { openServer } from './start/app.ts';
export { HeldError, holderOf } from './storage/lock.ts';
