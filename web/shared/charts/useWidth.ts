import { type RefObject, useEffect, useRef, useState } from 'react';

/** Width and height of an element in pixels, followed as they change. */
export function useSize<T extends HTMLElement>(
  initialW: number,
  initialH: number,
): [RefObject<T | null>, number, number] {
  const ref = useRef<T>(null);
  const [[width, height], setSize] = useState([initialW, initialH]);
  useEffect(() => {
    const element = ref.current;
    if (!element) return;
    const observer = new ResizeObserver(([entry]) => {
      const now = [Math.floor(entry!.contentRect.width), Math.floor(entry!.contentRect.height)] as [number, number];
      setSize((was) => (was[0] === now[0] && was[1] === now[1] ? was : now));
    });
    observer.observe(element);
    return () => observer.disconnect();
  }, []);
  return [ref, width, height];
}

/** The width of an element in pixels, followed as it changes. */
export function useWidth<T extends HTMLElement>(initial = 800): [RefObject<T | null>, number] {
  const [ref, width] = useSize<T>(initial, 0);
  return [ref, width];
}
