export { MeasuredScreen } from './MeasuredScreen.tsx';
