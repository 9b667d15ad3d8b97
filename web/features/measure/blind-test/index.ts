export { BlindScreen } from './BlindScreen.tsx';
