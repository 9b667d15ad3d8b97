import { describe, expect, it } from 'vitest';
import { DEMOS } from '#core/live/next/next.testkit.ts';
import type { Rig } from '#core/model/rig/index.ts';
import { randomDesk } from '#core/routing/wiring/random-desk.testkit.ts';
import { evaluate } from '#core/signal/index.ts';
import { LETTER_PX, lineMap, placeLabels } from './index.ts';

const DESKS: Rig[] = [...DEMOS, ...[5, 6, 7].map((seed) => randomDesk(seed, 30))];
const WIDTH_PX = 6;

/** The area of a text as the browser sets it: narrower than the bound that it was placed with. */
const areaOf = ({ text, xPx, yPx }: { text: string; xPx: number; yPx: number }) => {
  const half = (text.length * 0.55 * LETTER_PX) / 2;
  return { left: xPx - half, right: xPx + half, top: yPx - 0.75 * LETTER_PX, bottom: yPx + 0.15 * LETTER_PX };
};
type Area = ReturnType<typeof areaOf>;
const overlap = (a: Area, b: Area) => a.left < b.right && b.left < a.right && a.top < b.bottom && b.top < a.bottom;

describe('texts beside lines', () => {
  it('are on no box, no line, no mark and no other text, wherever they stand', () => {
    let placed = 0;
    for (const rig of DESKS) {
      const { drawing, lines } = lineMap(rig, evaluate(rig));
      const marks = [...drawing.boxes.values()].map((b) => ({ x: b.xPx + 20, y: b.yPx - 12, r: 12 }));
      const wanted = lines.map((l) => ({ id: l.id, text: '12 m (39 ft)' }));
      const labels = placeLabels(drawing, wanted, LETTER_PX, () => WIDTH_PX, marks);
      placed += labels.length;
      const areas = labels.map(areaOf);
      const boxes = [...drawing.boxes.values()].map(
        (b): Area => ({
          left: b.xPx,
          right: b.xPx + b.widthPx,
          top: b.yPx,
          bottom: b.yPx + b.heightPx,
        }),
      );
      const stretches = [...drawing.wires.values()].flatMap((points) =>
        points.slice(1).map(
          ([x, y], i): Area => ({
            left: Math.min(points[i]![0], x) - WIDTH_PX / 2,
            right: Math.max(points[i]![0], x) + WIDTH_PX / 2,
            top: Math.min(points[i]![1], y) - WIDTH_PX / 2,
            bottom: Math.max(points[i]![1], y) + WIDTH_PX / 2,
          }),
        ),
      );
      areas.forEach((area, i) => {
        for (const other of [...boxes, ...stretches, ...areas.slice(i + 1)]) expect(overlap(area, other)).toBe(false);
        for (const { x, y, r } of marks)
          expect(overlap(area, { left: x - r, right: x + r, top: y - r, bottom: y + r })).toBe(false);
      });
    }
    expect(placed).toBeGreaterThan(30);
  });
  it('are the same in a part of the page, where nothing outside of it is near', () => {
    for (const rig of DESKS) {
      const { drawing, lines } = lineMap(rig, evaluate(rig));
      const wanted = lines.map((l) => ({ id: l.id, text: '2 m' }));
      const within = { left: -100, top: -100, right: drawing.widthPx + 100, bottom: drawing.heightPx + 100 };
      const all = placeLabels(drawing, wanted, LETTER_PX, () => WIDTH_PX);
      expect(placeLabels(drawing, wanted, LETTER_PX, () => WIDTH_PX, [], within)).toEqual(all);
      const half = { ...within, right: drawing.widthPx / 2 };
      for (const { xPx } of placeLabels(drawing, wanted, LETTER_PX, () => WIDTH_PX, [], half))
        expect(xPx).toBeLessThan(half.right + 100);
    }
  });
  it('come as they are wanted: where there is room for one, the first has it', () => {
    const drawing = {
      boxes: new Map(),
      wires: new Map([
        [
          'a',
          [
            [0, 0],
            [100, 0],
          ] as const,
        ],
        [
          'b',
          [
            [0, 24],
            [100, 24],
          ] as const,
        ],
      ]),
    };
    const both = [
      { id: 'b', text: '3 m' },
      { id: 'a', text: '2 m' },
    ];
    const labels = placeLabels(drawing, both, LETTER_PX, () => 2);
    expect(labels.map((l) => l.id)).toEqual(['b', 'a']);
    expect(
      placeLabels(drawing, [{ id: 'a', text: 'a text that is longer than its line' }], LETTER_PX, () => 2),
    ).toEqual([]);
    expect(placeLabels(drawing, [{ id: 'gone', text: '1 m' }], LETTER_PX, () => 2)).toEqual([]);
  });
});
