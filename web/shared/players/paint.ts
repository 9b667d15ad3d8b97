import { beatShare, type Slate, slateLayout, whiteBoxes } from '#core/desk-tests/slates/index.ts';

const HAND = '#6b6b6b';
const TEXT = '#bdbdbd';

/** Paints one frame over all of a canvas: what is read back in white on black, the rest in greys that do not disturb it. */
export function paintSlate(
  paint: CanvasRenderingContext2D,
  width: number,
  height: number,
  slate: Slate,
  frame: number,
  words: readonly string[],
): void {
  const layout = slateLayout(width, height);
  paint.fillStyle = '#000';
  paint.fillRect(0, 0, width, height);
  paint.fillStyle = '#fff';
  for (const b of whiteBoxes(slate, frame, layout)) paint.fillRect(b.x, b.y, b.width, b.height);
  const { words: room, flash } = layout;
  // The frame round the flash fills toward the beat, so that the eye expects it.
  const thick = Math.max(2, Math.floor(layout.cell / 12));
  paint.fillStyle = HAND;
  paint.fillRect(flash.x, flash.y + flash.height + thick, flash.width * beatShare(slate, frame), 2 * thick);
  const size = Math.max(10, Math.min(room.height / (words.length + 2.5), room.width / 9));
  paint.fillStyle = TEXT;
  paint.font = `${size}px "Sofia Sans Variable", sans-serif`;
  paint.textBaseline = 'top';
  words.forEach((line, i) => {
    paint.fillText(line, room.x, room.y + 4 * thick + size * (0.6 + 1.3 * i), room.width);
  });
}
