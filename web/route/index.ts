export { RouteScreen } from './RouteScreen.tsx';
