export { type Alive, aliveIn } from './alive.ts';
export { effectsOf } from './effects.ts';
export { type Fault, type FaultKind, faultsOf } from './faults/index.ts';
export {
  type Entry,
  type Inquiry,
  inquire,
  type NextLook,
  nextOf,
  type Outcome,
  sayComplaint,
  THOUGHT,
  toldOf,
} from './inquiry.ts';
export { type Likely, likelyComplaints } from './likely.ts';
export { type LookBook, type LookSaid, lookBook } from './looks.ts';
export { culprit, isSeen, type Look, type LookAnswer, looksOf, type Odds, oddsOf, type Told } from './odds.ts';
export { keys as lookKeys } from './readings.ts';
export { placesOf } from './recorded/places.ts';
export type { FaultSeen, Place } from './recorded/scene.ts';
export { type Lineup, lineUp, type Suspect } from './suspects.ts';
export { type Complaint, SYMPTOM_IDS, SYMPTOMS, type Symptom, type SymptomId, toldBy } from './symptoms.ts';
