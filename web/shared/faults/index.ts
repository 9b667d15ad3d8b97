export { FaultCard } from './FaultCard.tsx';
export { sayOdds } from './say.ts';
export { lineupOf, useLineup } from './useLineup.ts';
