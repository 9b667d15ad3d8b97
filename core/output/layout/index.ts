export { layout } from './layout.ts';
export {
  type Drawing,
  heightOf,
  type Placed,
  type Point,
  portOffset,
  type Seats,
  type Shape,
  type Wire,
} from './types.ts';
