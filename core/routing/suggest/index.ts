export { alignListener } from './align.ts';
export {
  type AlignOptions,
  type AllAligned,
  alignAll,
  type Lack,
  recordedListeners,
  type SolveProgram,
} from './align-all.ts';
export { type Clash, clashesOf } from './clashes.ts';
export { aimOf, type GainsFound, ladderFor, setTheGains } from './gains.ts';
export { allMutes, type MuteChoice, type MuteSeen, mutesFor, mutesOn } from './mutes.ts';
export { type Cost, type CostKind, priceOfOutcome, totalOf } from './price.ts';
export { programsOver } from './program.ts';

export { type Left, type MadeSo, solveRouting } from './solve-routing.ts';
export type { Wrong } from './wrongs.ts';
