export { AlternativesScreen } from './AlternativesScreen.tsx';
