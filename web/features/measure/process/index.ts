export { TreatScreen } from './TreatScreen.tsx';
