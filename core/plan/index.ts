export { type Proposed, planEdit, proposePlan } from './propose.ts';
