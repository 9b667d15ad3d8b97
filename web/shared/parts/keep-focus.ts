import { useEffect } from 'react';
import { focusOr } from './focus.ts';

/** What can have the focus by Tab; no field: letters typed there would no longer be keys of the page. */
const FOCUSABLE = 'a[href], button:not(:disabled), [tabindex="0"]';
/** No further out than this is looked for what comes next: beyond it is another matter. */
const EDGES = 'main, .frame-body, .frame, body';

/** Where the focus was: the controls around it, from the closest outward, and which of them it was. */
interface Spot {
  readonly element: Element;
  /** It was in a dialog: gone with that, the dialog gives the focus back. */
  readonly dialog: Element | null;
  readonly around: readonly { readonly group: Element; readonly index: number }[];
}

function spotOf(element: Element): Spot {
  const around: { group: Element; index: number }[] = [];
  for (let group = element.parentElement; group && !group.matches(EDGES); group = group.parentElement)
    around.push({ group, index: [...group.querySelectorAll(FOCUSABLE)].indexOf(element) });
  return { element, dialog: element.closest('[role=dialog]'), around };
}

/** A part of the page with a meaning of its own: where it is empty for a moment, one waits for what comes into it. */
const PARTS = 'section, aside, form, table, ul, ol';

const controlsIn = (group: Element): HTMLElement[] =>
  [...group.querySelectorAll<HTMLElement>(FOCUSABLE)].filter((e) => e.checkVisibility?.() ?? true);
const inPlace = (group: Element, index: number): HTMLElement | undefined => {
  const now = controlsIn(group);
  return now[Math.min(Math.max(0, index), now.length - 1)];
};

/**
 * What is in its place now, in the closest group that is still there: the next control, or the last; or a part of the
 * page that has none just now.
 */
function successorOf({ around }: Spot): { readonly to: HTMLElement; readonly waitsAt: number | null } | null {
  for (const { group, index } of around) {
    if (!group.isConnected) continue;
    const to = inPlace(group, index);
    if (to) return { to, waitsAt: null };
    if (group.matches(PARTS) && group instanceof HTMLElement) return { to: group, waitsAt: index };
  }
  return null;
}

/**
 * Keeps the focus where work goes on. A control that does something is often gone by that: an answered question, a fix
 * that was made, a row that was removed. Then what came in its place has the focus, or the page.
 */
export function useKeptFocus(): void {
  useEffect(() => {
    let spot: Spot | null = null;
    let waiting: { group: HTMLElement; index: number } | null = null;
    let frame = 0;
    const remember = ({ target }: FocusEvent) => {
      if (target === waiting?.group) return;
      waiting = null;
      if (target instanceof Element && target !== document.body) spot = spotOf(target);
    };
    const isGone = ({ element, dialog }: Spot) =>
      dialog?.isConnected !== false &&
      (document.activeElement === document.body || document.activeElement === null) &&
      (!element.isConnected || element.matches(':disabled'));
    const move = () => {
      if (!spot || !isGone(spot)) return;
      const next = successorOf(spot);
      if (next?.waitsAt != null) {
        waiting = { group: next.to, index: next.waitsAt };
        next.to.tabIndex = -1;
      }
      focusOr(next?.to ?? null);
    };
    const look = () => {
      if (waiting && document.activeElement === waiting.group) inPlace(waiting.group, waiting.index)?.focus();
      else if (spot && isGone(spot)) {
        // What the page itself puts the focus on comes first: a frame is left for it.
        cancelAnimationFrame(frame);
        frame = requestAnimationFrame(move);
      }
    };
    const observer = new MutationObserver(look);
    observer.observe(document.body, {
      childList: true,
      subtree: true,
      attributes: true,
      attributeFilter: ['disabled'],
    });
    document.addEventListener('focusin', remember);
    return () => {
      observer.disconnect();
      cancelAnimationFrame(frame);
      document.removeEventListener('focusin', remember);
    };
  }, []);
}
