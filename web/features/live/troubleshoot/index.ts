export { TroubleshootScreen } from './TroubleshootScreen.tsx';
