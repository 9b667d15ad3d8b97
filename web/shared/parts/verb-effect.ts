import { useSyncExternalStore } from 'react';
import type { Verb } from '#core/model/rig/index.ts';

/** Kept in this browser for each verb whose effect was shown. */
const keyOf = (verb: Verb): string => `mellow-explained-${verb}`;

let shown: Verb | null = null;
const listeners = new Set<() => void>();
const show = (verb: Verb | null): void => {
  shown = verb;
  for (const listener of listeners) listener();
};

/** A verb was used: the first time in this browser, its effect is explained. */
export function explainOnce(verb: Verb): void {
  const isKnown = localStorage.getItem(keyOf(verb)) !== null;
  localStorage.setItem(keyOf(verb), 'yes');
  show(isKnown ? null : verb);
}

/** The notice was read. */
export const dismissVerbEffect = (): void => show(null);

const subscribe = (listener: () => void) => {
  listeners.add(listener);
  return () => void listeners.delete(listener);
};

/** The verb whose effect is explained now, if any. */
export const useVerbEffect = (): Verb | null => useSyncExternalStore(subscribe, () => shown);
