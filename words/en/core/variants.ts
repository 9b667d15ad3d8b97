import { say } from '#core/routing/variants/sayings.ts';
import { wordingOf } from '../../said.ts';

export const variant = wordingOf(say, {
  poweredElsewhere: '{device}: powered from another source',
  otherComputer: '{device}: on another computer',
  ways: '{from} → {to}',
  partIn: '{part}, {cable}',
  settingFromTo: '{device}, {setting}: {before} → {after}',
});
