export { clippingMeter } from './clipping.ts';
export { dropoutMeter } from './dropouts.ts';
export { echoOf } from './echo.ts';
export { FAULT_IDS, type Fault, type FaultId } from './fault.ts';
export { type Floor, floorMeter, hissOf, type Spectrum } from './floor.ts';
export { humOf } from './hum.ts';
export { sidesMeter } from './sides.ts';
