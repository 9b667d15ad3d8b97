import { sum } from 'd3-array';
import type { CSSProperties, PointerEvent } from 'react';
import type { Drawing } from '#core/output/layout/index.ts';
import { wire as say } from '#words/index.ts';
import type { View } from './useView.ts';

interface Props {
  readonly drawing: Drawing;
  readonly view: View;
  readonly pageW: number;
  readonly pageH: number;
  readonly onCenter: (x: number, y: number) => void;
}

const MAX_W = 168;
const MAX_H = 96;

const EDGE_PX = 8;
type Size = readonly [width: number, height: number];

/** The corner of the page where it hides the least of the boxes; the one at the lower left where they are alike. */
function cornerOf({ boxes }: Drawing, view: View, [pageW, pageH]: Size, [width, height]: Size): CSSProperties {
  const corners = [
    { left: EDGE_PX, top: pageH - EDGE_PX - height },
    { left: pageW - EDGE_PX - width, top: pageH - EDGE_PX - height },
    { left: pageW - EDGE_PX - width, top: EDGE_PX },
    { left: EDGE_PX, top: EDGE_PX },
  ];
  const shared = (from: number, to: number, low: number, high: number) =>
    Math.max(0, Math.min(to, high) - Math.max(from, low));
  const hidden = corners.map(({ left, top }) =>
    sum([...boxes.values()], ({ xPx, yPx, widthPx, heightPx }) => {
      const [x, y] = [(xPx - view.x) * view.scale, (yPx - view.y) * view.scale];
      return (
        shared(x, x + widthPx * view.scale, left, left + width) *
        shared(y, y + heightPx * view.scale, top, top + height)
      );
    }),
  );
  return corners[hidden.indexOf(Math.min(...hidden))]!;
}

/** All of a map that is not all in view, small; what is in view under the highlighter. Pressed, it goes there. */
export function MiniMap({ drawing, view, pageW, pageH, onCenter }: Props) {
  const [seenW, seenH] = [pageW / view.scale, pageH / view.scale];
  const isAll = view.x <= 0 && view.y <= 0 && view.x + seenW >= drawing.widthPx && view.y + seenH >= drawing.heightPx;
  if (isAll) return null;
  const scale = Math.min(MAX_W / drawing.widthPx, MAX_H / drawing.heightPx);
  const go = (e: PointerEvent<SVGSVGElement>) => {
    if (e.buttons !== 1) return;
    const box = e.currentTarget.getBoundingClientRect();
    onCenter((e.clientX - box.left) / scale, (e.clientY - box.top) / scale);
  };
  const [width, height] = [drawing.widthPx * scale, drawing.heightPx * scale];
  return (
    <svg
      className="map-mini"
      style={cornerOf(drawing, view, [pageW, pageH], [width, height])}
      width={width}
      height={height}
      viewBox={`0 0 ${drawing.widthPx} ${drawing.heightPx}`}
      role="img"
      aria-label={say.wholeMap()}
      onPointerDown={go}
      onPointerMove={go}
    >
      <title>{say.wholeMap()}</title>
      <rect className="map-mini-view" x={view.x} y={view.y} width={seenW} height={seenH} />
      {[...drawing.boxes].map(([id, { xPx, yPx, widthPx, heightPx }]) => (
        <rect
          key={id}
          x={xPx}
          y={yPx}
          width={widthPx}
          height={heightPx}
          fill="none"
          stroke="var(--ink2)"
          strokeWidth={1 / scale}
        />
      ))}
    </svg>
  );
}
