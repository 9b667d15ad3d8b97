export { undrawnDevices } from './add.ts';
export { type Bindings, bindingsOf, computerOfScan, computersIn, drawnDevices } from './bind.ts';
export { explainScan } from './explain.ts';
export { scanFigures } from './figures.ts';
export { type Held, type HeldPath, holdAgainst } from './held.ts';
