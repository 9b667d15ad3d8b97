import { say } from '#core/routing/wiring/sayings.ts';
import { wordingOf } from '../../said.ts';

export const wire = wordingOf(say, {
  wiredHeadset: 'a wired headset',
  wirelessHeadset: 'a wireless headset',
  speakerAndMic: 'a speaker and its own mic',
});
