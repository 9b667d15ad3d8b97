import { say } from '#core/routing/suggest/sayings.ts';
import { wordingOf } from '../../said.ts';

export const solve = wordingOf(say, {
  couldNotSolve: 'Couldn’t calculate the delays ({status}). Nothing changed. Please report this rig.',
});
