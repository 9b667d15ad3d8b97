import { sayersOf } from '#core/said/index.ts';

/** What variant says, and what each needs. Its words stand in words/en/core/variant.ts. */
export const say = sayersOf('variant', {
  poweredElsewhere: { device: 'name' },
  otherComputer: { device: 'name' },
  ways: { from: 'name', to: 'name' },
  partIn: { part: 'text', cable: 'text' },
  settingFromTo: { device: 'name', setting: 'text', before: 'text', after: 'text' },
});
