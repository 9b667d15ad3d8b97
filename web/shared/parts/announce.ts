import { useSyncExternalStore } from 'react';
import type { State } from '#core/signal/index.ts';

/** What was just made, undone, imported, saved or refused: said in one place, whatever page did it. */
interface Announcement {
  /** The same text said again is another announcement. */
  readonly id: number;
  readonly state: State;
  readonly says: string;
  readonly at: number;
  /** It is said of each step of a rig; what a page says of it counts more. */
  readonly isStep: boolean;
  /** What can be done about it at once; where that can be done nowhere else, it stays. */
  readonly act?: {
    readonly label: string;
    /** What it does to what, for those who don't see the text beside it. */
    readonly name: string;
    readonly run: () => void;
    readonly stays?: boolean;
  };
}

let made = 0;
let shown: Announcement | null = null;
const listeners = new Set<() => void>();
const show = (next: Announcement | null): void => {
  shown = next;
  for (const listener of listeners) listener();
};

/** Says it until the next one, or for a while; what went wrong stays until it is closed. */
export const announce = (state: State, says: string, act?: Announcement['act']): void =>
  show({ id: ++made, state, says, at: Date.now(), isStep: false, ...(act && { act }) });

/** What a page said of a step a moment ago is not talked over. */
const MOMENT_MS = 500;

/** Says a step that was made or undone, unless its page has said it better. */
export function announceStep(says: string, act: NonNullable<Announcement['act']>): void {
  const at = Date.now();
  if (shown && !shown.isStep && at - shown.at < MOMENT_MS) return;
  show({ id: ++made, state: 'good', says, at, isStep: true, act });
}

export const closeAnnouncement = (): void => show(null);

const subscribe = (listener: () => void) => {
  listeners.add(listener);
  return () => void listeners.delete(listener);
};

export const useAnnouncement = (): Announcement | null => useSyncExternalStore(subscribe, () => shown);
