export { RunScreen } from './RunScreen.tsx';
