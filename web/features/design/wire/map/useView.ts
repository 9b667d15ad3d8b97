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

/**
 * The view that a map opens with: all of it, if its letters can be read then; else as much as is read, from where the
 * signal begins.
 */
export function openView(widthPx: number, heightPx: number, pageW: number, pageH: number, leastScale: number): View {
  const all = fitView(widthPx, heightPx, pageW, pageH);
  if (all.scale >= leastScale) return all;
  const scale = leastScale;
  const from = (size: number, page: number) =>
    size * scale + 2 * MARGIN <= page ? (size - page / scale) / 2 : -MARGIN / scale;
  return { scale, x: from(widthPx, pageW), y: from(heightPx, pageH) };
}

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
export function useView(widthPx: number, heightPx: number, pageW: number, pageH: number, leastScale: number) {
  /** As someone moved it; `all` as long as it is fitted. */
  const [own, setOwn] = useState<View | 'all' | null>(null);
  const view =
    own === 'all'
      ? fitView(widthPx, heightPx, pageW, pageH)
      : (own ?? openView(widthPx, heightPx, pageW, pageH, leastScale));
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
  /** Fingers that are down, by their pointers: two of them zoom. */
  const fingers = useRef(new Map<number, { x: number; y: number }>());
  const lift = (e: PointerEvent) => {
    fingers.current.delete(e.pointerId);
    drag.current = null;
  };
  return {
    ref,
    view,
    moved: own !== null,
    closer: () => zoom(STEP),
    farther: () => zoom(1 / STEP),
    fitAll: () => setOwn('all'),
    /** So that a place is in the middle. */
    center: (x: number, y: number) =>
      setOwn({ scale: now.current.scale, x: x - pageW / now.current.scale / 2, y: y - pageH / now.current.scale / 2 }),
    show: (x: number, y: number) => {
      const next = bringIn(now.current, pageW, pageH, x, y);
      if (next.x !== now.current.x || next.y !== now.current.y) setOwn(next);
    },
    dragging: {
      onPointerDown: (e: PointerEvent) => {
        fingers.current.set(e.pointerId, { x: e.clientX, y: e.clientY });
        if (e.button === 0) drag.current = { x: e.clientX, y: e.clientY, from: now.current };
      },
      onPointerMove: (e: PointerEvent) => {
        const finger = fingers.current.get(e.pointerId);
        const [other] = [...fingers.current].flatMap(([id, at]) => (id === e.pointerId ? [] : [at]));
        if (finger && other) {
          const apart = (at: { x: number; y: number }) => Math.max(1, Math.hypot(at.x - other.x, at.y - other.y));
          const moved = { x: e.clientX, y: e.clientY };
          const box = e.currentTarget.getBoundingClientRect();
          zoom(apart(moved) / apart(finger), (moved.x + other.x) / 2 - box.left, (moved.y + other.y) / 2 - box.top);
          fingers.current.set(e.pointerId, moved);
          drag.current = null;
          return;
        }
        const d = drag.current;
        if (!d) return;
        const [dx, dy] = [e.clientX - d.x, e.clientY - d.y];
        if (own || Math.hypot(dx, dy) > 4)
          setOwn({ ...d.from, x: d.from.x - dx / d.from.scale, y: d.from.y - dy / d.from.scale });
      },
      onPointerUp: lift,
      onPointerLeave: lift,
      onPointerCancel: lift,
    },
  };
}
