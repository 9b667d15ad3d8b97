import { useLayoutEffect } from 'react';

/** The page, for what has lost its place: the frame's own, which scrolls, or all of it. */
const pageItself = (): HTMLElement | null => document.getElementById('page') ?? document.querySelector('main');

/** Whether nothing has the focus: what had it is gone, or never had it. */
const isLost = (): boolean => document.activeElement === null || document.activeElement === document.body;

/** Puts the focus where work goes on, and that in sight; on the page where it is gone. */
export function focusOr(element: Element | null): void {
  if (element instanceof HTMLElement && element.isConnected) element.focus();
  else pageItself()?.focus({ preventScroll: true });
}

/** Where the focus was when this came it is again when it goes, if nothing else has taken it by then. */
export function useReturnFocus(): void {
  useLayoutEffect(() => {
    const before = document.activeElement === document.body ? null : document.activeElement;
    return () => {
      // What comes in its place takes the focus first.
      requestAnimationFrame(() => requestAnimationFrame(() => isLost() && focusOr(before)));
    };
  }, []);
}
