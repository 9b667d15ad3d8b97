export type { BandLevel } from './bands.ts';
export { FOUND_FROM, PERHAPS_FROM } from './chance.ts';
export { type BandEdge, type BandEdges, edgesOf, PRESENT_DB } from './edges.ts';
export { type Join, type Known, whatIsKnown } from './known.ts';
export {
  RESPONSE_STEP_MS,
  readTap,
  type TapOptions,
  type TapReading,
  type TuneHeard,
  type TuneReading,
  type Word,
  wanderMs,
} from './read.ts';
export { AFTER_MS, BEFORE_MS, type Seconds, type SecondWay } from './response.ts';
export { type Glide, renderTune, SILENCE_S, TUNE_S, TUNES, tuneOf } from './tune.ts';
