export { LineMapView } from './LineMapView.tsx';
export { MapPicture } from './MapPicture.tsx';
