export { RigsScreen } from './RigsScreen.tsx';
