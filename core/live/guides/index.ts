export { GUIDES } from './all/index.ts';
export { asking, type Chosen, castOf, type Followed, followGuide, nameOf, wantOfStep } from './follow.ts';
export type { Guide, GuidePage, Sought } from './guide.ts';
export { type Proposal, proposalFor } from './propose.ts';
