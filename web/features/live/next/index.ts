export { LastRig } from './LastRig.tsx';
export { NextLine } from './NextLine.tsx';
export { NextScreen } from './NextScreen.tsx';
export { Standing } from './Standing.tsx';
export { Told } from './Told.tsx';
export { AheadProvider, useConfirmed } from './useAhead.tsx';
