export { type ListeningDelay, listeningDelays } from './listening.ts';
export { type NextTake, nextTakes } from './next-take.ts';
export { type PathTake, pathIntoRig, type TestedPath, type TestedTake, testTable } from './test-table.ts';
