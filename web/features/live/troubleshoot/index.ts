export { TroubleScreen } from './TroubleScreen.tsx';
