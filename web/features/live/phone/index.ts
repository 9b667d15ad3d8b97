export { HandScreen } from './HandScreen.tsx';
