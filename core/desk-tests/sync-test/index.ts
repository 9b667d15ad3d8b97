export type { Cause } from './causes.ts';
export { type ListeningDelay, listeningDelays } from './listening.ts';
export { type NextTake, nextTakes } from './next-take.ts';
export { type PathTake, pathIntoRig, settingsOn, type TestedPath, type TestedTake, testTable } from './test-table.ts';
