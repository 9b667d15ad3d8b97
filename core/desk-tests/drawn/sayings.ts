import { sayersOf } from '#core/base/said/index.ts';

/** Codes that a scan held against the drawing reports, with their parameters. Their sentences are in words/en/core/drawn.ts. */
export const say = sayersOf('drawn', {
  monitors: { input: 'name', output: 'name' },
  isMonitored: { input: 'name', output: 'name' },
  isNotMonitored: {},
  endMonitoring: { input: 'name' },
  isPluggedTo: { from: 'name', to: 'name' },
  isCableBetween: { from: 'name', to: 'name' },
  unplugIt: { from: 'name', to: 'name' },
  isHeardBy: { from: 'name', to: 'name' },
  doesItHear: { from: 'name', to: 'name' },
  keepApart: { from: 'name', to: 'name' },
  noItIsNot: {},
  figure: { says: 'text' },
  reads: { figure: 'text', ms: 'text' },
});
