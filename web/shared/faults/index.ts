export { FaultCard } from './FaultCard.tsx';
