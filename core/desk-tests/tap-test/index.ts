export { figuresOf, levelOf, measurementOf, taken } from './apply.ts';
export type { Disagreement } from './disagree.ts';
export {
  drillTable,
  fewestTakes,
  type Guess,
  hideFault,
  judgeGuess,
  type StandInDesk,
  standInTake,
  tappable,
} from './drill.ts';
export { type AllExpected, cellKey, type Expected, expectedOf } from './expected.ts';
export { type At, type Explanation, explain } from './explain.ts';
export { type GateQuestion, gateOf } from './gate.ts';
export {
  apartOf,
  type Judged,
  judge,
  type Known,
  type TakeRead,
  type TapCell,
} from './judge.ts';
export { PLAYER_SKEW_MS, picturesOf, type TunePicture } from './picture.ts';
export { type Player, type Players, playersOf } from './players.ts';
export { NOT_UNCONNECTED, SAY_JOINS, sayDisagreement, sayPlan, sayWander, sayWay, TIME_KNOWN } from './say.ts';
export { namedIn, whoseTake } from './sort.ts';
export { type Base, MAX_LABEL, type Taken } from './taken.ts';
