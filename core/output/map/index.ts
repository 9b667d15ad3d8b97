export { groupsOf, usuallyFolded } from './groups.ts';
export { type Area, type MapLabel, placeLabels } from './labels.ts';
export {
  BOX,
  type BoxFact,
  breakName,
  drawingOf,
  factsOf,
  isSetOut,
  LAYERS,
  type Layer,
  LETTER_PX,
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
