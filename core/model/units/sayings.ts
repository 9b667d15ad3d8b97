import { sayersOf } from '#core/base/said/index.ts';

/** Codes that units reports, with their parameters. Their sentences are in words/en/core/units.ts. */
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
