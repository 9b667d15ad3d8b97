import type { Odds } from '#core/live/troubleshoot/index.ts';
import { troubleshoot as say, textOf } from '#words/index.ts';

/** What may be the matter, in a sentence. */
export function sayOdds(odds: Odds): string {
  switch (odds.kind) {
    case 'fault':
      return textOf(odds.suspect.fault.says);
    case 'drawn':
      return say.rigDoesThisAs();
    case 'other':
      return say.somethingOutsideModel();
  }
}
