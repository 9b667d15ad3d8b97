import { say } from '#core/audio/mix/sayings.ts';
import { wordingOf } from '../../said.ts';

export const mix = wordingOf(say, {
  rate: '{hz} Hz',
  track: 'track {number}',
  notSameLoudness: 'The two could not be brought to the same loudness. Choose longer takes.',
});
