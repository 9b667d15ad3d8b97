// @vitest-environment happy-dom
import { cleanup, fireEvent, render, screen } from '@testing-library/react';
import fc from 'fast-check';
import { afterEach, describe, expect, it } from 'vitest';
import type { Drawing } from '#core/output/layout/index.ts';
import { wire as say } from '#words/index.ts';
import { areaOf, partOf } from './drawn.ts';
import { MiniMap } from './MiniMap.tsx';
import { useView } from './useView.ts';

afterEach(cleanup);

const drawing: Drawing = {
  widthPx: 2000,
  heightPx: 1000,
  boxes: new Map([['mixer', { rank: 0, row: 0, xPx: 100, yPx: 50, widthPx: 156, heightPx: 60 }]]),
  wires: new Map(),
  crossings: 0,
  seats: new Map(),
};

describe('the small map', () => {
  it('is there only where not all of the map is in view', () => {
    const all = { x: 0, y: 0, scale: 0.4 };
    const { rerender } = render(
      <MiniMap drawing={drawing} view={all} pageW={820} pageH={420} onCenter={() => undefined} />,
    );
    expect(screen.queryByRole('img')).toBeNull();
    rerender(
      <MiniMap drawing={drawing} view={{ ...all, scale: 1 }} pageW={820} pageH={420} onCenter={() => undefined} />,
    );
    expect(screen.getByRole('img', { name: say.wholeMap() })).toBeTruthy();
  });
  it('goes where it is pressed, in the pixels of the map', () => {
    const went: [number, number][] = [];
    render(
      <MiniMap
        drawing={drawing}
        view={{ x: 0, y: 0, scale: 1 }}
        pageW={820}
        pageH={420}
        onCenter={(x, y) => went.push([x, y])}
      />,
    );
    const small = screen.getByRole('img');
    expect(Number(small.getAttribute('width')) / Number(small.getAttribute('height'))).toBeCloseTo(2, 6);
    fireEvent.pointerDown(small, { buttons: 1, clientX: 84, clientY: 42 });
    fireEvent.pointerMove(small, { buttons: 0, clientX: 10, clientY: 10 });
    expect(went).toHaveLength(1);
    expect(went[0]![0]).toBeCloseTo(1000, 6);
    expect(went[0]![1]).toBeCloseTo(500, 6);
  });
});

function Pane() {
  const { ref, view, dragging, fitAll } = useView(2000, 1000, 800, 400, 0.5);
  return (
    <>
      <button type="button" onClick={fitAll}>
        fit
      </button>
      <svg ref={ref} data-testid="pane" {...dragging}>
        <title>{`${view.scale.toFixed(3)} ${view.x.toFixed(0)}`}</title>
      </svg>
    </>
  );
}

describe('two fingers', () => {
  const now = () => screen.getByTestId('pane').textContent!.split(' ').map(Number) as [number, number];
  const finger = (kind: 'Down' | 'Move' | 'Up', pointerId: number, clientX: number) =>
    fireEvent[`pointer${kind}`](screen.getByTestId('pane'), { pointerId, clientX, clientY: 100, button: 0 });
  it('zoom by as much as they move apart; one of them moves the map', () => {
    render(<Pane />);
    const [opened] = now();
    expect(opened).toBe(0.5);
    finger('Down', 1, 300);
    finger('Down', 2, 500);
    finger('Move', 2, 600);
    expect(now()[0]).toBeCloseTo(0.75, 2);
    finger('Up', 2, 600);
    finger('Up', 1, 300);
    const [scale, x] = now();
    finger('Down', 1, 400);
    finger('Move', 1, 340);
    expect(now()).toEqual([scale, expect.closeTo(x + 60 / scale, 0)]);
    finger('Up', 1, 340);
    fireEvent.click(screen.getByText('fit'));
    expect(now()[0]).toBeCloseTo(0.376, 2);
  });
});

describe('the part that lengths are set for', () => {
  it('holds all of the view, and stays the same while one pans a little', () => {
    fc.assert(
      fc.property(
        fc.integer({ min: -3000, max: 3000 }),
        fc.integer({ min: -3000, max: 3000 }),
        fc.double({ min: 0.2, max: 3, noNaN: true }),
        (x, y, scale) => {
          const { left, top, right, bottom } = areaOf(partOf({ x, y, scale }, 1100, 500));
          expect(left).toBeLessThanOrEqual(x);
          expect(top).toBeLessThanOrEqual(y);
          expect(right).toBeGreaterThanOrEqual(x + 1100 / scale);
          expect(bottom).toBeGreaterThanOrEqual(y + 500 / scale);
        },
      ),
    );
    expect(partOf({ x: 10, y: 10, scale: 1 }, 1100, 500)).toBe(partOf({ x: 40, y: 30, scale: 1 }, 1100, 500));
  });
});
