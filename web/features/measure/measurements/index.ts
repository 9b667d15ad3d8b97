export { MeasurementsScreen } from './MeasurementsScreen.tsx';
