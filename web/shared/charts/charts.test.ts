import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { evaluate, TOLERANCES } from '#core/signal/index.ts';
import { demoRig } from '#web/web.testkit.tsx';
import { layoutArrivals } from './arrivals.ts';
import {
  brightnessPath,
  heldWithin,
  type LaneData,
  msOf,
  pxOf,
  timeTicks,
  unseen,
  wavePath,
  wholeView,
  zoomAbout,
} from './lane-layout.ts';
import { layoutSmallArrivals } from './small-arrivals.ts';

describe('the arrival chart', () => {
  const rig = demoRig();
  const pairs = evaluate(rig).pairs.filter((p) => p.listenerId === 'stream');
  const [tolerance] = TOLERANCES;
  const layout = layoutArrivals(rig, pairs, pairs, tolerance!, 600);
  it('puts every whisker inside the plot, and marks between their whiskers', () => {
    expect(layout.rows).toHaveLength(6);
    for (const row of layout.rows) {
      for (const mark of row.marks) {
        expect(mark.lowPx).toBeGreaterThanOrEqual(0);
        expect(mark.highPx).toBeLessThanOrEqual(600);
        expect(mark.lowPx).toBeLessThanOrEqual(mark.atPx);
        expect(mark.atPx).toBeLessThanOrEqual(mark.highPx);
        // Early is left of the picture, late is right of it.
        expect(Math.sign(mark.atPx - layout.zeroPx)).toBe(Math.sign(mark.offsetMs));
      }
    }
  });
  it('shows two ways of one source apart, and the rest by their offset', () => {
    const couchGame = layout.rows.find((r) => r.source.id === 'couch-game')!;
    expect(couchGame.dimension).toMatchObject({ kind: 'apart' });
    expect(couchGame.marks.filter((m) => m.main)).toHaveLength(1);
    expect(layout.rows.find((r) => r.source.id === 'wren')!.dimension).toMatchObject({ kind: 'offset' });
  });
  it('has the tolerance around the picture, and nothing moved where nothing is tried', () => {
    expect(layout.tolerancePx.from).toBeLessThan(layout.zeroPx);
    expect(layout.tolerancePx.to).toBeGreaterThan(layout.zeroPx);
    expect(layout.rows.every((r) => r.beforePx === null)).toBe(true);
    expect(layout.ticks.some((t) => t.ms === 0)).toBe(true);
  });
  it('draws nothing for a listener without a picture', () => {
    const backup = evaluate(rig).pairs.filter((p) => p.listenerId === 'backup');
    expect(layoutArrivals(rig, backup, backup, tolerance!, 600).rows).toEqual([]);
  });
});

describe('small charts of all listeners', () => {
  const rig = demoRig();
  const now = evaluate(rig);
  const [tolerance] = TOLERANCES;
  it('have one scale, and a mark for every offset, hollow where it stood before', () => {
    const later = {
      ...now,
      pairs: now.pairs.map((p) =>
        p.listenerId === 'stream' && p.sourceId === 'couch' && p.ways[0]?.offset
          ? { ...p, ways: [{ ...p.ways[0], offset: { ...p.ways[0].offset, value: { low: -5, nominal: 0, high: 5 } } }] }
          : p,
      ),
    };
    const ids = rig.listeners.map((l) => l.id);
    const laid = layoutSmallArrivals(later, now, ids, () => tolerance!, 400);
    const offsets = now.pairs.filter((p) => p.ways[0]?.offset);
    expect(laid.flatMap((l) => l.rows)).toHaveLength(offsets.length);
    expect(new Set(laid.map((l) => l.zeroPx))).toEqual(new Set([200]));
    const couch = laid.find((l) => l.listenerId === 'stream')!.rows.find((r) => r.sourceId === 'couch')!;
    expect(couch).toMatchObject({ atPx: 200, met: true });
    expect(couch.beforePx!).toBeLessThan(200);
    const still = laid.flatMap((l) => l.rows).filter((r) => r !== couch);
    expect(still.every((r) => r.beforePx === null)).toBe(true);
    expect(still.some((r) => !r.met)).toBe(true);
    expect(laid.some((l) => l.listenerId === 'backup')).toBe(false);
  });
});

describe('the lanes', () => {
  const WIDTH = 800;
  it('keep the place under the pointer while they are zoomed, and never leave the take', () => {
    fc.assert(
      fc.property(
        fc.integer({ min: 1000, max: 10_000_000 }),
        fc.array(
          fc.record({ px: fc.integer({ min: 0, max: WIDTH }), factor: fc.double({ min: 0.3, max: 3, noNaN: true }) }),
          { maxLength: 12 },
        ),
        (wholeMs, moves) => {
          let view = wholeView(WIDTH, wholeMs);
          for (const { px, factor } of moves) {
            const under = msOf(view, px);
            const next = zoomAbout(view, px, factor, WIDTH, wholeMs);
            const shown = WIDTH * next.msPerPx;
            const atEdge = next.startMs <= 0 || next.startMs + shown >= wholeMs;
            if (!atEdge) expect(msOf(next, px)).toBeCloseTo(under, 3);
            expect(next.startMs).toBeLessThan(wholeMs);
            expect(next.startMs + shown).toBeGreaterThan(0);
            expect(next.msPerPx).toBeGreaterThanOrEqual(0.1);
            view = next;
          }
        },
      ),
    );
  });
  it('lead from time to pixel and back', () => {
    const view = { startMs: 500, msPerPx: 2.5 };
    expect(pxOf(view, msOf(view, 123))).toBeCloseTo(123, 9);
    expect(heldWithin({ startMs: -9000, msPerPx: 1 }, WIDTH, 5000).startMs).toBeCloseTo(-8, 6);
  });
  const sound: LaneData = {
    key: 'a/claps',
    label: 'sound',
    note: '',
    kind: 'sound',
    marks: [],
    shiftMs: 0,
    reach: 1,
    peaks: [
      {
        binMs: 1,
        low: new Float32Array(1000).fill(-0.1),
        high: Float32Array.from({ length: 1000 }, (_, i) => (i === 500 ? 1 : 0.1)),
      },
    ],
  };
  it('draw a click where it is, shifted with the take, at every zoom', () => {
    const top = (path: string): number => {
      const points = path
        .slice(1, -1)
        .split('L')
        .map((p) => p.split(',').map(Number));
      return points.reduce((best, p) => (p[1]! < best[1]! ? p : best))[0]!;
    };
    expect(top(wavePath(sound, { startMs: 0, msPerPx: 1.25 }, WIDTH))).toBe(400);
    expect(top(wavePath({ ...sound, shiftMs: 125 }, { startMs: 0, msPerPx: 1.25 }, WIDTH))).toBe(500);
    expect(top(wavePath(sound, { startMs: 450, msPerPx: 0.25 }, WIDTH))).toBe(200);
    expect(
      wavePath(
        { ...sound, kind: 'picture' as const, peaks: undefined } as unknown as LaneData,
        { startMs: 0, msPerPx: 1 },
        WIDTH,
      ),
    ).toBe('');
  });
  it('break the brightness where the picture was not looked at', () => {
    const times = (from: number) => Float64Array.from({ length: 30 }, (_, f) => from + f * 20);
    const lane: LaneData = {
      key: 'a/flashes',
      label: '',
      note: '',
      kind: 'picture',
      marks: [],
      shiftMs: 0,
      pieces: [1000, 5000].map((t) => ({ timesMs: times(t), mean: new Float32Array(30).fill(9) })),
    };
    const view = wholeView(WIDTH, 8000);
    expect(brightnessPath(lane, view, WIDTH).match(/M/g)).toHaveLength(2);
    expect(unseen(lane, view, WIDTH, 8000).map((g) => [Math.round(g.fromPx), Math.round(g.toPx)])).toEqual([
      [0, 100],
      [158, 500],
      [558, 800],
    ]);
  });
  it('stay short however many frames a take has, and lose no flash', () => {
    const frames = 60 * 60 * 10;
    const mean = new Float32Array(frames).fill(20);
    mean[12_345] = 200;
    const lane: LaneData = {
      key: 'a/flashes',
      label: '',
      note: '',
      kind: 'picture',
      marks: [],
      shiftMs: 0,
      pieces: [{ timesMs: Float64Array.from({ length: frames }, (_, f) => (f * 1000) / 60), mean }],
    };
    const path = brightnessPath(lane, wholeView(WIDTH, 600_000), WIDTH);
    expect(path.match(/[ML]/g)!.length).toBeLessThan(5 * WIDTH);
    const heights = path
      .split(/[ML]/)
      .slice(1)
      .map((p) => Number(p.split(',')[1]));
    expect(Math.min(...heights)).toBe(8);
    // Looked at closely, each frame is a step of its own.
    const close = brightnessPath(lane, { startMs: 205_000, msPerPx: 1 }, WIDTH);
    expect(close.match(/[ML]/g)!.length).toBeLessThan(2 * (WIDTH / (1000 / 60)) + 6);
  });
  it('have a readable axis from minutes to milliseconds', () => {
    expect(timeTicks(wholeView(WIDTH, 3_600_000), WIDTH)[1]!.decimals).toBe(0);
    expect(timeTicks({ startMs: 1000, msPerPx: 0.1 }, WIDTH)[1]!.decimals).toBe(2);
  });
});
