import { type RefObject, useEffect, useRef, useState } from 'react';

/** The width of an element in pixels, followed as it changes. */
export function useWidth<T extends HTMLElement>(initial = 800): [RefObject<T | null>, number] {
  const ref = useRef<T>(null);
  const [width, setWidth] = useState(initial);
  useEffect(() => {
    const element = ref.current;
    if (!element) return;
    const observer = new ResizeObserver(([entry]) => setWidth(Math.floor(entry!.contentRect.width)));
    observer.observe(element);
    return () => observer.disconnect();
  }, []);
  return [ref, width];
}
