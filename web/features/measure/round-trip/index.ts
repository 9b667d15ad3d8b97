export { TripScreen } from './TripScreen.tsx';
