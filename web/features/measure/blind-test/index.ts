export { BlindTestScreen } from './BlindTestScreen.tsx';
