export { SyncTestScreen } from './SyncTestScreen.tsx';
