export { type LevelsKernel, levelsKernel } from './levels-kernel.ts';
