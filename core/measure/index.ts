export { type Clap, findClaps } from './claps.ts';
export {
  type Brightness,
  type Flash,
  findFlashes,
  frameRateOf,
  GRID_CELLS,
  GRID_COLUMNS,
  GRID_ROWS,
  meanBrightness,
} from './flash.ts';
export { MeasureError, type MeasureErrorCode } from './measure-error.ts';
export { measureOffset, type Offset, type OffsetPoint } from './offset.ts';
export { type Mark, type MarkPair, type PictureOffset, pairMarks } from './picture-offset.ts';
