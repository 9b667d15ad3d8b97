import { sayersOf } from '#core/base/said/index.ts';

/** Codes that variant reports, with their parameters. Their sentences are in words/en/core/variants.ts. */
export const say = sayersOf('variant', {
  poweredElsewhere: { device: 'name' },
  otherComputer: { device: 'name' },
  ways: { from: 'name', to: 'name' },
  partIn: { part: 'text', cable: 'text' },
  settingFromTo: { device: 'name', setting: 'text', before: 'text', after: 'text' },
});
