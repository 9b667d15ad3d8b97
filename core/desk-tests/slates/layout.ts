import { CODE_BITS, codeOf } from './code.ts';
import { framesABeat, framesALoop, isLit, type Slate } from './film.ts';

/** Cells of the panel, each bit beside its inverse; around them a black margin and a white ring, each a cell wide. */
const CELL_COLUMNS = 8;
const CELL_ROWS = 4;
const FRAME_CELLS = 2;
/** The panel in cells, ring included. */
export const PANEL_COLUMNS = CELL_COLUMNS + 2 * FRAME_CELLS;
export const PANEL_ROWS = CELL_ROWS + 2 * FRAME_CELLS;
/** The gap in the upper side of the ring, in cells: it shows which way up the panel is. */
export const GAP = { from: 2, to: 4 } as const;

/** Middle of a cell of a bit, or of the bit's inverse, in cells from the panel's corner. */
export function cellAt(bit: number, inverse: boolean): { x: number; y: number } {
  const at = 2 * bit + (inverse ? 1 : 0);
  return { x: FRAME_CELLS + (at % CELL_COLUMNS) + 0.5, y: FRAME_CELLS + Math.floor(at / CELL_COLUMNS) + 0.5 };
}

export interface Box {
  readonly x: number;
  readonly y: number;
  readonly width: number;
  readonly height: number;
}

/** Positions in a picture of this size: the panel on the left, the flash and the text on the right. */
export interface SlateLayout {
  readonly cell: number;
  readonly panel: Box;
  readonly flash: Box;
  readonly words: Box;
}

/** Whole pixels wherever cells meet, so that no edge is soft. Upright screens have the rest below. */
export function slateLayout(width: number, height: number): SlateLayout {
  const upright = height > width;
  const cell = Math.floor(
    upright
      ? Math.min(width / (PANEL_COLUMNS + 2), (height * 0.6) / (PANEL_ROWS + 2))
      : Math.min((width * 0.72) / (PANEL_COLUMNS + 2), height / (PANEL_ROWS + 2)),
  );
  const size = { width: cell * PANEL_COLUMNS, height: cell * PANEL_ROWS };
  const panel = upright
    ? { x: Math.floor((width - size.width) / 2), y: cell, ...size }
    : { x: cell, y: Math.floor((height - size.height) / 2), ...size };
  const right = upright
    ? {
        x: panel.x,
        y: panel.y + panel.height + cell,
        width: panel.width,
        height: height - panel.y - panel.height - 2 * cell,
      }
    : {
        x: panel.x + panel.width + cell,
        y: panel.y,
        width: width - panel.x - panel.width - 2 * cell,
        height: panel.height,
      };
  const half = Math.floor(right.height / 2);
  return {
    cell,
    panel,
    flash: { ...right, height: half },
    words: { ...right, y: right.y + half, height: right.height - half },
  };
}

/** The white devices of one frame, on black: ring, cells, and the flash when it is lit. */
export function whiteBoxes(slate: Slate, frame: number, layout: SlateLayout): Box[] {
  const { cell, panel, flash } = layout;
  const at = ((frame % framesALoop(slate.rate)) + framesALoop(slate.rate)) % framesALoop(slate.rate);
  const box = (x: number, y: number, width: number, height: number): Box => ({
    x: panel.x + x * cell,
    y: panel.y + y * cell,
    width: width * cell,
    height: height * cell,
  });
  const boxes = [
    box(0, 0, GAP.from, 1),
    box(GAP.to, 0, PANEL_COLUMNS - GAP.to, 1),
    box(0, PANEL_ROWS - 1, PANEL_COLUMNS, 1),
    box(0, 1, 1, PANEL_ROWS - 2),
    box(PANEL_COLUMNS - 1, 1, 1, PANEL_ROWS - 2),
  ];
  const bits = codeOf(at, slate.id);
  for (let bit = 0; bit < CODE_BITS; bit++) {
    const { x, y } = cellAt(bit, bits[bit] === -1);
    boxes.push(box(x - 0.5, y - 0.5, 1, 1));
  }
  if (isLit(at, slate.rate)) boxes.push(flash);
  return boxes;
}

/** How far the hand of the beat has gone, 0 to 1: it makes the coming flash easy to expect. */
export const beatShare = (slate: Slate, frame: number): number =>
  (frame % framesABeat(slate.rate)) / framesABeat(slate.rate);
