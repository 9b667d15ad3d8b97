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
  MAX_STRANDS,
  type MapBox,
  type MapLine,
  type MapPlan,
  planMap,
  STRAND_PITCH,
} from './line-map.ts';
export { stepTap, type Turn } from './walk.ts';
