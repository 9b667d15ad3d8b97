export { ScanScreen } from './ScanScreen.tsx';
