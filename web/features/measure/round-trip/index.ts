export { RoundTripScreen } from './RoundTripScreen.tsx';
