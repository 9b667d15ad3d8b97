import type { Drawing, Point } from '#core/output/layout/index.ts';

/** A text of the map and where it stands: its middle, and its baseline. */
export interface MapLabel {
  readonly id: string;
  readonly text: string;
  readonly xPx: number;
  readonly yPx: number;
}

/** A part of the page, px. */
export interface Area {
  readonly left: number;
  readonly top: number;
  readonly right: number;
  readonly bottom: number;
}

/** A letter of the map's face is at most so wide against its height, and so much of it is above the baseline. */
const LETTER = 0.6;
const ASCENT = 0.8;
/** Between a text and what is beside it, px. */
const APART_PX = 3;
const CELL_PX = 80;
/** More cells than a map is high. */
const COLUMN = 1 << 20;

/** Where anything stands, by cells of the page: what a text is compared with is near it. */
class Grid {
  private readonly cells = new Map<number, Area[]>();
  add(area: Area): void {
    for (const key of this.keys(area)) {
      const cell = this.cells.get(key);
      if (cell) cell.push(area);
      else this.cells.set(key, [area]);
    }
  }
  isFree(area: Area): boolean {
    for (const key of this.keys(area)) if (this.cells.get(key)?.some((other) => overlap(area, other))) return false;
    return true;
  }
  private keys({ left, top, right, bottom }: Area): number[] {
    const keys: number[] = [];
    const [lastX, lastY] = [Math.floor(right / CELL_PX), Math.floor(bottom / CELL_PX)];
    for (let x = Math.floor(left / CELL_PX); x <= lastX; x++)
      for (let y = Math.floor(top / CELL_PX); y <= lastY; y++) keys.push(x * COLUMN + y);
    return keys;
  }
}

const EVERYWHERE: Area = {
  left: Number.NEGATIVE_INFINITY,
  top: Number.NEGATIVE_INFINITY,
  right: Number.POSITIVE_INFINITY,
  bottom: Number.POSITIVE_INFINITY,
};
const cut = (a: Area, b: Area): Area => ({
  left: Math.max(a.left, b.left),
  top: Math.max(a.top, b.top),
  right: Math.min(a.right, b.right),
  bottom: Math.min(a.bottom, b.bottom),
});
const overlap = (a: Area, b: Area): boolean =>
  a.left < b.right && b.left < a.right && a.top < b.bottom && b.top < a.bottom;

/** Stretches of a line, as broad as it is drawn. */
const stretches = (points: readonly Point[], widthPx: number): Area[] =>
  points.slice(1).map(([x, y], i) => {
    const [a, b] = points[i]!;
    const half = widthPx / 2;
    return {
      left: Math.min(a, x) - half,
      right: Math.max(a, x) + half,
      top: Math.min(b, y) - half,
      bottom: Math.max(b, y) + half,
    };
  });

/**
 * Texts beside their lines where nothing else is: no box, no line, no mark, no other text. What finds no room is left
 * out; it is told when the line is pointed at.
 * @param wanted  texts by the id of their line, the most wanted first
 * @param widthOf  how broad a line is drawn, px
 * @param marks   middles of round marks, with their radius
 * @param within  the part of the page that is looked at; what is outside of it costs nothing
 */
export function placeLabels(
  { boxes, wires }: Pick<Drawing, 'boxes' | 'wires'>,
  wanted: readonly { readonly id: string; readonly text: string }[],
  letterPx: number,
  widthOf: (id: string) => number,
  marks: readonly { readonly x: number; readonly y: number; readonly r: number }[] = [],
  within: Area = EVERYWHERE,
): MapLabel[] {
  const all = new Grid();
  const grid = {
    add: (area: Area) => overlap(area, within) && all.add(cut(area, within)),
    isFree: (area: Area) => overlap(area, within) && all.isFree(area),
  };
  for (const { xPx, yPx, widthPx, heightPx } of boxes.values())
    grid.add({ left: xPx, top: yPx, right: xPx + widthPx, bottom: yPx + heightPx });
  for (const [id, points] of wires) for (const stretch of stretches(points, widthOf(id))) grid.add(stretch);
  for (const { x, y, r } of marks) grid.add({ left: x - r, top: y - r, right: x + r, bottom: y + r });
  return wanted.flatMap(({ id, text }): MapLabel[] => {
    const points = wires.get(id);
    if (!points) return [];
    const width = text.length * LETTER * letterPx;
    for (const { xPx, yPx } of seats(points, width, letterPx, widthOf(id))) {
      const area = {
        left: xPx - width / 2 - APART_PX,
        right: xPx + width / 2 + APART_PX,
        top: yPx - ASCENT * letterPx,
        bottom: yPx + (1 - ASCENT) * letterPx,
      };
      if (!grid.isFree(area)) continue;
      grid.add(area);
      return [{ id, text, xPx, yPx }];
    }
    return [];
  });
}

/** Where a text may stand along its line: over and under its level stretches, the longest first. */
function* seats(
  points: readonly Point[],
  width: number,
  letterPx: number,
  linePx: number,
): Generator<Pick<MapLabel, 'xPx' | 'yPx'>> {
  const level = points
    .slice(1)
    .map(([x, y], i) => ({ from: points[i]!, x, y }))
    .filter(({ from, x, y }) => from[1] === y && Math.abs(from[0] - x) > width)
    .sort((a, b) => Math.abs(b.from[0] - b.x) - Math.abs(a.from[0] - a.x));
  for (const { from, x, y } of level)
    for (const part of [0.5, 0.25, 0.75])
      for (const yPx of [
        y - linePx / 2 - APART_PX - (1 - ASCENT) * letterPx,
        y + linePx / 2 + APART_PX + ASCENT * letterPx,
      ])
        yield { xPx: from[0] + (x - from[0]) * part, yPx };
}
