import { useEffect } from 'react';

const MARK = 'data-tour';

/**
 * Marks what a step points at while it is on the page, and hears when it is used.
 * @param at  CSS selector; the first that is there is meant
 */
export function usePoint(at: string | null, onTouch: () => void): void {
  useEffect(() => {
    if (at === null) return;
    let marked: Element | null = null;
    const mark = () => {
      const now = document.querySelector(at);
      if (now === marked && now?.hasAttribute(MARK)) return;
      marked?.removeAttribute(MARK);
      now?.setAttribute(MARK, '');
      marked = now;
    };
    const hear = ({ target }: Event) => target instanceof Node && marked?.contains(target) && onTouch();
    // Pages come and are drawn anew: at most once a frame it is looked for.
    let frame = 0;
    const observer = new MutationObserver(() => {
      cancelAnimationFrame(frame);
      frame = requestAnimationFrame(mark);
    });
    observer.observe(document.body, { childList: true, subtree: true });
    mark();
    document.addEventListener('pointerup', hear);
    document.addEventListener('keydown', hear);
    return () => {
      observer.disconnect();
      cancelAnimationFrame(frame);
      marked?.removeAttribute(MARK);
      document.removeEventListener('pointerup', hear);
      document.removeEventListener('keydown', hear);
    };
  }, [at, onTouch]);
}
