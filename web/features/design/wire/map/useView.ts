import { type PointerEvent, useCallback, useEffect, useRef, useState } from 'react';

/** The part of the map that is shown, in its own pixels. */
export interface View {
  readonly x: number;
  readonly y: number;
  /** Screen pixels for one of the map's. */
  readonly scale: number;
}

const STEP = 1.25;
const CLOSEST = 3;
const FARTHEST = 0.12;
const MARGIN = 12;

const clampScale = (scale: number): number => Math.min(CLOSEST, Math.max(FARTHEST, scale));

/** The view that holds all of a drawing; small ones are not blown up. */
export function fitView(widthPx: number, heightPx: number, pageW: number, pageH: number): View {
  const scale = clampScale(Math.min(1, (pageW - 2 * MARGIN) / widthPx, (pageH - 2 * MARGIN) / heightPx));
  return { scale, x: (widthPx - pageW / scale) / 2, y: (heightPx - pageH / scale) / 2 };
}

/** Zooms about a point of the page. */
export function zoomAt(view: View, factor: number, pageX: number, pageY: number): View {
  const scale = clampScale(view.scale * factor);
  const by = 1 / view.scale - 1 / scale;
  return { scale, x: view.x + pageX * by, y: view.y + pageY * by };
}

/** A view that has a place in it: moved no more than needed. */
export function bringIn(view: View, pageW: number, pageH: number, x: number, y: number, roomPx = 60): View {
  const [w, h] = [pageW / view.scale, pageH / view.scale];
  const into = (from: number, size: number, at: number) =>
    Math.min(Math.max(from, at + roomPx - size), Math.max(at - roomPx, at + roomPx - size));
  return { ...view, x: into(view.x, w, x), y: into(view.y, h, y) };
}

/** Pan by dragging, zoom by wheel, by keys and to fit; fitted again until someone moves it. */
export function useView(widthPx: number, heightPx: number, pageW: number, pageH: number) {
  const [own, setOwn] = useState<View | null>(null);
  const fitted = fitView(widthPx, heightPx, pageW, pageH);
  const view = own ?? fitted;
  const now = useRef(view);
  now.current = view;
  const zoom = useCallback(
    (factor: number, x = pageW / 2, y = pageH / 2) => setOwn(zoomAt(now.current, factor, x, y)),
    [pageW, pageH],
  );
  const ref = useRef<SVGSVGElement>(null);
  useEffect(() => {
    const svg = ref.current;
    if (!svg) return;
    // React listens to wheels passively; the page must not scroll along.
    const wheel = (e: WheelEvent) => {
      if (!e.ctrlKey && !e.metaKey && !e.shiftKey && Math.abs(e.deltaY) < 1) return;
      e.preventDefault();
      const box = svg.getBoundingClientRect();
      zoom(e.deltaY < 0 ? STEP : 1 / STEP, e.clientX - box.left, e.clientY - box.top);
    };
    svg.addEventListener('wheel', wheel, { passive: false });
    return () => svg.removeEventListener('wheel', wheel);
  }, [zoom]);
  const drag = useRef<{ x: number; y: number; from: View } | null>(null);
  return {
    ref,
    view,
    moved: own !== null,
    closer: () => zoom(STEP),
    farther: () => zoom(1 / STEP),
    fitAll: () => setOwn(null),
    show: (x: number, y: number) => {
      if (own) setOwn(bringIn(own, pageW, pageH, x, y));
    },
    dragging: {
      onPointerDown: (e: PointerEvent) => {
        if (e.button === 0) drag.current = { x: e.clientX, y: e.clientY, from: now.current };
      },
      onPointerMove: (e: PointerEvent) => {
        const d = drag.current;
        if (!d) return;
        const [dx, dy] = [e.clientX - d.x, e.clientY - d.y];
        if (own || Math.hypot(dx, dy) > 4)
          setOwn({ ...d.from, x: d.from.x - dx / d.from.scale, y: d.from.y - dy / d.from.scale });
      },
      onPointerUp: () => {
        drag.current = null;
      },
      onPointerLeave: () => {
        drag.current = null;
      },
    },
  };
}
