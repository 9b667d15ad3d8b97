import { message } from '../message.ts';

/** Which moment a change applies to. */
export const moment = {
  switchedHere: message(
    'What you switch, set or require here applies to this moment only. Delays, devices and cables are the same in every moment.',
  ),
  switchedEverywhere: message(
    'What you switch, set or require here applies to every moment that doesn’t have its own.',
  ),
  devicesCablesAndDelays: message(
    'Devices, cables and delays are the same in every moment: what you change here applies to all of them.',
  ),
  whatYouChangeHere: message('What you change here applies to every moment.'),
  selectedMoment: message('Selected moment:'),
};
