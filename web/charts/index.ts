export { ArrivalChart } from './ArrivalChart.tsx';
export { LadderChart } from './LadderChart.tsx';
export { Lanes, type LanesProps } from './Lanes.tsx';
export { LoudnessChart } from './LoudnessChart.tsx';
export { heldWithin, type LaneData, type LaneMark, type LaneView, wholeView, zoomAbout } from './lanes.ts';
export type { Curve } from './loudness-curve.ts';
export { type LadderLayout, layoutLadder } from './rungs.ts';
export { useWidth } from './useWidth.ts';
