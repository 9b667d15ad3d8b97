export { LineMapView } from './LineMapView.tsx';
