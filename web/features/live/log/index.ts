export { LogScreen } from './LogScreen.tsx';
