export { layout } from './layout.ts';
export {
  type Drawing,
  heightOf,
  type Placed,
  PORT_PITCH,
  type Point,
  portOffset,
  type Seats,
  type Shape,
  type Wire,
} from './types.ts';
