export {
  BOX,
  breakName,
  drawingOf,
  isSetOut,
  LAYERS,
  type Layer,
  type LineMap,
  lineMap,
  linesOf,
  type MapBox,
  type MapLine,
  type MapPlan,
  MOST_STRANDS,
  planMap,
  STRAND_PITCH,
} from './line-map.ts';
export { stepTap, type Turn } from './walk.ts';
