export { type Aligned, type Alignment, alignListener } from './align.ts';
export {
  type AlignOptions,
  type AllAligned,
  alignAll,
  type Lack,
  type PairAligned,
  recordedListeners,
  type SolveProgram,
} from './align-all.ts';
export { type Clash, clashesOf } from './clashes.ts';
export { aimOf, type GainsFound, ladderFor, type Moved, setTheGains } from './gains.ts';
export { allMutes, type MuteChoice, type MuteSeen, mutesFor, mutesOn } from './mutes.ts';
export { type Cost, type CostKind, POINTS, totalOf } from './price.ts';
export { type HighsModule, programsOver } from './program.ts';
export type { Second } from './search.ts';
export { type Left, type Made, type MadeSo, solveRouting } from './solve-routing.ts';
export type { Wrong } from './wrongs.ts';
