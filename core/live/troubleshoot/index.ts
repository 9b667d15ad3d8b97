export { type Alive, aliveIn } from './alive.ts';
export { effectsOf } from './effects.ts';
export { type DirectLook, type Fault, faultsOf, WEIGHTS as FAULT_WEIGHTS } from './faults/index.ts';
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
export { likelyComplaints } from './likely.ts';
export { lookBook } from './looks.ts';
export { culprit, isSeen, looksOf, type Odds, oddsOf, type Told } from './odds.ts';
export { keys as lookKeys } from './readings.ts';
export { placesOf } from './recorded/places.ts';

export { type Lineup, lineUp, type Suspect } from './suspects.ts';
export { type Complaint, SYMPTOM_IDS, SYMPTOMS, type SymptomId, toldBy } from './symptoms.ts';
