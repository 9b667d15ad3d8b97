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
export { planEdit, proposePlan, STARTS, startPlan } from './propose.ts';
export { ownVoiceAt, returnWays } from './returns.ts';
export { type Bridge, makeWhole, type Whole } from './whole.ts';
