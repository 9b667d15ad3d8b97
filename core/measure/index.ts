export { MeasureError, type MeasureErrorCode } from './measure-error.ts';
export { measureOffset, type Offset, type OffsetPoint } from './offset.ts';
