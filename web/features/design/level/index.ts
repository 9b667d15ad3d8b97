export { LevelScreen } from './LevelScreen.tsx';
