export {
  MEASURE_IDS,
  MEASURES,
  type MeasureId,
  type Option,
  OWN,
  optionsFor,
  scoresOf,
  USUAL_WEIGHTS,
  type Weights,
} from './options.ts';
export { type Proposed, planEdit, proposePlan, STARTS, type Start, startPlan } from './propose.ts';
export { type OwnVoice, ownVoiceAt, type ReturnWay, returnWays } from './returns.ts';
export { type Bridge, makeWhole, type Whole } from './whole.ts';
