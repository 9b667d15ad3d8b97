import { say } from '#core/desk-tests/drawn/sayings.ts';
import { wordingOf } from '../../said.ts';

export const drawn = wordingOf(say, {
  monitors: 'This computer plays {input} through {output}: its sound settings or an app monitor the input.',
  isMonitored: 'Look in the computer’s sound settings and in every open app: is {input} monitored through {output}?',
  isNotMonitored: 'Nothing monitors it.',
  endMonitoring: 'Turn off monitoring of {input}.',
  isPluggedTo: 'A cable that isn’t drawn runs from {from} to {to}.',
  isCableBetween: 'Is there a cable from {from} to {to}?',
  unplugIt: 'Turn volumes down, then unplug the cable from {from} to {to}.',
  isHeardBy: '{to} picks up {from} through the air.',
  doesItHear: 'Cover {to}, or turn {from} down: does the level drop?',
  keepApart: 'Turn {from} down, or move {to} away from it.',
  noItIsNot: 'No.',
  figure: 'scan: {says}',
  reads: '{figure}: {ms} ms',
});
