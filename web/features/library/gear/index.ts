export { GearScreen } from './GearScreen.tsx';
