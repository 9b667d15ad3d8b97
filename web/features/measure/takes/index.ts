export { TakesScreen } from './TakesScreen.tsx';
