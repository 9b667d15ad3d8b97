export { Decide } from './Decide.tsx';
export { useTrial } from './useTrial.ts';
