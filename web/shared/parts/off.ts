import { useEffect } from 'react';
import { announce } from './announce.ts';

/**
 * A button that can't be pressed just now, and says why: when it is pointed at, reached by Tab, or pressed.
 * @param reason  null where it can be pressed
 */
export const off = (reason: string | null) =>
  reason === null ? {} : ({ 'aria-disabled': true, 'data-off': reason, title: reason } as const);

/** Keeps buttons that are off from doing anything; pressed, by pointer or by Enter in their form, they say why. */
export function useOffReasons(): void {
  useEffect(() => {
    const hold = (event: MouseEvent) => {
      const button = event.target instanceof Element ? event.target.closest<HTMLElement>('[data-off]') : null;
      if (!button) return;
      event.preventDefault();
      event.stopPropagation();
      announce('watch', button.dataset.off!);
    };
    document.addEventListener('click', hold, true);
    return () => document.removeEventListener('click', hold, true);
  }, []);
}
