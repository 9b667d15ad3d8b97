import { say } from '#core/live/next/sayings.ts';
import { wordingOf } from '../../said.ts';

/** What to do next, and why. */
export const next = wordingOf(say, {
  settingTask: '{settingId}: {value} → {now}{unit}',
  unplugCableFrom: 'Unplug the cable from {from}',
  cableThatNoLonger: 'A cable that no longer exists',
  socketPair: '{from} → {to}',
  changeCableM: 'Change the cable {way}: {lengthM} m',
  connectMCable: 'Connect {way} ({lengthM} m cable)',
  setOne: 'On {device}, set {setting} to {value}.',
  setSeveral: 'On {device}, set {settings}.',
  setOnSeveral: 'Set {settings}.',
  settingTo: '{setting} to {value}',
  deviceSettingTo: '{setting} on {device} to {value}',
  moreSettings: '{count, plural, one {# more setting} other {# more settings}}',
  labelled: '{label}.',
  inMoment: 'In the moment {moment}: {says}',
  delaysWhy:
    '{count, plural, one {One source isn’t} other {# sources aren’t}} in sync with the video. These delays bring every destination as close as the devices allow.',
  taskAt: '{device}: {task}.',
  taskWhy: 'It’s on the to-do list: drawn, but not done at the desk yet.',
  lookWhy:
    '{doubts, plural, one {A different answer changes what # destination gets.} other {A different answer changes # results.}}',
  lookWhyFinding: 'If it’s as assumed: {says}',
  decide: 'Decide: {says}',
  decideWhy:
    'Nothing that was tried in the model clears this. Do what it says at the desk, change the plan, or accept it with a reason.',
  measure: 'Measure {listener}: record three claps in front of the camera, and open the take.',
  measureWhy:
    '{count, plural, one {For one source} other {For # sources}} the typical delays can’t tell whether it’s in sync. A take can.',
  measureMixWhy: 'Levels and delays are still typical figures here. A take shows what really goes out.',
  describeDevices: 'Add the devices on your desk.',
  describeEnds: 'Say which sounds there are, and who listens.',
  describePlan: 'Say who must hear what.',
  describeWhy: 'Without it, nothing can be checked.',
  rehearse: 'Rehearse: start a session, and go through {count, plural, one {# step} other {# steps and checks}}.',
  rehearseWhy: 'Only a run-through shows that everything works together.',
});
