export { type ClockReading, clockBetween, clockLine, onPage } from './clock.ts';
export { compareScans, type ScanChange } from './compare.ts';
export {
  type Emission,
  type Heard,
  isClear,
  isLoudEnough,
  joinReads,
  linksOf,
  type RoundRead,
  readRound,
  sightOf,
} from './rounds.ts';
export {
  Scan,
  type ScanInput,
  type ScanLink,
  type ScanLinkSeen,
  type ScanRead,
} from './scan.ts';
export {
  EARLIEST_S,
  FIRST_DBFS,
  LIMITS_DBFS,
  lengthOfRound,
  roundLevelDbfs,
  SLOT_S,
  sweep,
  USUAL_LIMIT_DBFS,
} from './sweep.ts';
