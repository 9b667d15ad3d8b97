export { type BandLevel, bandLevels } from './bands.ts';
export { PERHAPS_FROM } from './chance.ts';
export { type BandEdge, edgesOf, PRESENT_DB } from './edges.ts';
export { type Join, whatIsKnown } from './known.ts';
export {
  RESPONSE_STEP_MS,
  readTap,
  SHORTEST_S,
  type TapReading,
  type TuneHeard,
  type TuneReading,
  wanderMs,
} from './read.ts';
export { AFTER_MS, BEFORE_MS } from './response.ts';
export { renderTune, SILENCE_S, TUNE_S, TUNES, tuneOf } from './tune.ts';
