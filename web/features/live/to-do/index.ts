export { DeskScreen } from './DeskScreen.tsx';
