export { Decide } from './Decide.tsx';
export { type Trying, useTrial } from './useTrial.ts';
