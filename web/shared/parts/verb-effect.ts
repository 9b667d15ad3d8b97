import type { Verb } from '#core/model/rig/index.ts';
import { common } from '#words/index.ts';

/** Kept in this browser for each verb whose effect was shown. */
const keyOf = (verb: Verb): string => `mellow-explained-${verb}`;

let unsaid: Verb | null = null;

/** A verb is used: the first time in this browser, its effect is explained with what it did. */
export function explainOnce(verb: Verb): void {
  unsaid = localStorage.getItem(keyOf(verb)) === null ? verb : null;
  localStorage.setItem(keyOf(verb), 'yes');
}

/** The explanation that goes with the step just made, once; empty where it is known. */
export function takeVerbEffect(): string {
  const verb = unsaid;
  unsaid = null;
  if (verb === null) return '';
  return verb === 'done' ? common.alreadyDoneEffect() : common.addToDoEffect();
}
