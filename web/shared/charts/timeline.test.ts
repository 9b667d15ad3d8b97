import { describe, expect, it } from 'vitest';
import { layoutTimeline } from './index.ts';

const peaks = (n: number, top: number) => ({
  binMs: 10,
  low: new Float32Array(n).fill(-top / 2),
  high: Float32Array.from({ length: n }, (_, i) => (i === n >> 1 ? top : top / 10)),
});

describe('the timeline of joined takes', () => {
  it('gives each take a row, its place and its length, on one scale', () => {
    const bars = layoutTimeline(
      [
        { key: 'a', name: 'a', startMs: 0, durationMs: 6000, peaks: peaks(600, 0.5) },
        { key: 'b', name: 'b', startMs: 4000, durationMs: 4000, peaks: peaks(400, 0.001) },
      ],
      800,
      8000,
    );
    expect(bars.map((b) => [b.row, b.leftPx, b.widthPx])).toEqual([
      [0, 0, 600],
      [1, 400, 400],
    ]);
    const heights = (path: string) => [...path.matchAll(/[\d.]+ ([\d.]+)/g)].map((m) => Number(m[1]));
    const [loud, quiet] = bars.map((b) => Math.max(...heights(b.path)) - Math.min(...heights(b.path)));
    // Each is drawn as high as its row allows; what never gets louder than nothing stays flat.
    expect(loud!).toBeGreaterThan(20);
    expect(quiet!).toBeLessThan(10);
    expect(bars[1]!.path.startsWith('M400.0 ')).toBe(true);
  });
  it('draws a take too short to be seen all the same', () => {
    const [bar] = layoutTimeline(
      [{ key: 'a', name: 'a', startMs: 10, durationMs: 1, peaks: peaks(1, 1) }],
      300,
      3_600_000,
    );
    expect(bar!.widthPx).toBe(2);
    expect(bar!.path).not.toContain('NaN');
  });
});
