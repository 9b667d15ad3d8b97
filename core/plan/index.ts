export { type Proposed, planEdit, proposePlan, STARTS, type Start, startPlan } from './propose.ts';
export { type OwnVoice, ownVoiceAt, type ReturnWay, returnWays } from './returns.ts';
export { type Bridge, makeWhole, type Whole } from './whole.ts';
