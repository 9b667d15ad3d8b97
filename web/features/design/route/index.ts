export { cellsOf } from './cells.ts';
export { RouteScreen } from './RouteScreen.tsx';
