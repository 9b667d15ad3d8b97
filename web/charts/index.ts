export { ArrivalChart } from './ArrivalChart.tsx';
export { Dimension } from './Dimension.tsx';
export { Lanes, type LanesProps } from './Lanes.tsx';
export type { LaneData, LaneMark, LaneView } from './lanes.ts';
export { useWidth } from './useWidth.ts';
