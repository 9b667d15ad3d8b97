export { SyncScreen } from './SyncScreen.tsx';
