export { ArrivalChart } from './ArrivalChart.tsx';
export { Lanes, type LanesProps } from './Lanes.tsx';
export { heldWithin, type LaneData, type LaneMark, type LaneView, wholeView, zoomAbout } from './lanes.ts';
export { useWidth } from './useWidth.ts';
