export {
  BOX,
  breakName,
  LAYERS,
  type Layer,
  type LineMap,
  lineMap,
  linesOf,
  type MapBox,
  type MapLine,
  MOST_STRANDS,
  STRAND_PITCH,
} from './line-map.ts';
export { stepTap, type Turn } from './walk.ts';
