import { sayersOf } from '#core/said/index.ts';

/** What units says, and what each needs. Its words stand in words/en/core/units.ts. */
export const say = sayersOf('units', {
  fullScaleAt: { dbu: 'text' },
  dbuIs: {},
  dbvIs: {},
  rmsOfSine: {},
  vuIs: {},
  peakOfSine: {},
  sineOnBothSides: {},
  ofFullScale: {},
});
