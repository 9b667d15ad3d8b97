export { RescueScreen } from './RescueScreen.tsx';
export { VersionsScreen } from './VersionsScreen.tsx';
