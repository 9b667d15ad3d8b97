export { VariantsScreen } from './VariantsScreen.tsx';
