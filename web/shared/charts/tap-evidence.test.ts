import { describe, expect, it } from 'vitest';
import { playersOf } from '#core/desk-tests/tap-test/index.ts';
import { readingsAt } from '#core/desk-tests/tap-test/taptest.testkit.ts';
import { BEFORE_MS, RESPONSE_STEP_MS } from '#core/desk-tests/tunes/index.ts';
import { demoRig } from '#web/web.testkit.tsx';
import { layoutTapArrivals, layoutTapBands, layoutTapSeconds } from './index.ts';
import { EVIDENCE, layoutTapLateness } from './tap-evidence.ts';

const rig = demoRig();
const heard = readingsAt(rig, [], ['stream'], playersOf(rig), 1)[0]!.tunes.find((t) => t.heard)!.heard!;
const points = (path: string) => [...path.matchAll(/(-?[\d.]+),(-?[\d.]+)/g)].map(([, x, y]) => [Number(x), Number(y)]);

describe('the chart of arrivals', () => {
  const at = (ms: number) => Math.round((ms + BEFORE_MS) / RESPONSE_STEP_MS);
  const response = new Array<number>(at(1500)).fill(-70);
  response[at(0)] = 0;
  response[at(210)] = -9;
  const way = (afterMs: number) => ({ afterMs, underDb: 9, perhapsReflection: false });
  it('is as wide as what is worth seeing, and no wider', () => {
    const near = layoutTapArrivals({ response, seconds: { ways: [], noneAboveDb: -30 } });
    const far = layoutTapArrivals({ response, seconds: { ways: [way(210)], noneAboveDb: -30 } });
    expect(near.zeroPx).toBeGreaterThan(far.zeroPx);
    const labels = far.xTicks.map((t) => t.text);
    expect(labels).toContain('200');
    expect(near.xTicks.map((t) => t.text)).not.toContain('200');
    for (const { px } of [...near.xTicks, ...far.xTicks]) {
      expect(px).toBeGreaterThanOrEqual(EVIDENCE.left);
      expect(px).toBeLessThanOrEqual(EVIDENCE.width);
    }
  });
  it('reaches back to what comes before the strongest', () => {
    const early = layoutTapArrivals({ response, seconds: { ways: [way(-160)], noneAboveDb: -30 } });
    expect(early.seconds[0]!.px).toBeLessThan(early.zeroPx);
    expect(early.seconds[0]!.px).toBeGreaterThanOrEqual(EVIDENCE.left);
    expect(early.xTicks.some((t) => t.text.startsWith('−'))).toBe(true);
  });
  it('has its peak at zero, a mark on every other way, and stays in its room', () => {
    const layout = layoutTapArrivals({ response, seconds: { ways: [way(210)], noneAboveDb: -30 } });
    const all = points(layout.path);
    const top = all.reduce((a, b) => (b[1]! < a[1]! ? b : a));
    expect(Math.abs(top[0]! - layout.zeroPx)).toBeLessThan(2);
    expect(layout.seconds[0]!.label).toBe('210.0 ms, −9 dB');
    // The mark sits on the curve, wherever the figure beside it is.
    const quieter = layoutTapArrivals({
      response,
      seconds: { ways: [{ ...way(210), underDb: 13 }], noneAboveDb: -30 },
    });
    expect(quieter.seconds[0]!.py).toBeCloseTo(layout.seconds[0]!.py, 6);
    const [, peak] = all.filter(([x]) => Math.abs(x! - layout.seconds[0]!.px) < 2).sort((a, b) => a[1]! - b[1]!)[0]!;
    expect(layout.seconds[0]!.py).toBeCloseTo(peak!, 0);
    for (const [x, y] of all) {
      expect(x).toBeGreaterThanOrEqual(EVIDENCE.left - 1);
      expect(x).toBeLessThanOrEqual(EVIDENCE.width);
      expect(y).toBeGreaterThanOrEqual(EVIDENCE.top - 0.1);
      expect(y).toBeLessThanOrEqual(EVIDENCE.height - EVIDENCE.bottom + 0.1);
    }
  });
});

describe('the chart of seconds', () => {
  it('has a bar for each second, as high as it stands out, and chance as a line', () => {
    const blocks = Array.from({ length: 15 }, (_, i) => ({ standsOut: i, lateMs: 0, db: -20 }));
    const { bars, usualPx, xTicks } = layoutTapSeconds({ blocks });
    expect(bars).toHaveLength(15);
    expect(bars[0]!.height).toBe(0);
    expect(bars[14]!.height).toBeGreaterThan(bars[7]!.height);
    expect(bars[14]!.py).toBeCloseTo(EVIDENCE.top, 6);
    expect(usualPx).toBeLessThan(bars[1]!.py);
    expect(xTicks.map((t) => t.text)).toEqual(['0', '5', '10']);
  });
});

describe('the chart of a band', () => {
  it('draws what was told, and leaves hollow what was not', () => {
    const bands = heard.bands.map((b, i) => ({ ...b, db: i === 0 ? null : -3 * i }));
    const { dots, path, xTicks } = layoutTapBands({ bands });
    expect(dots.map((d) => d.there)).toEqual(bands.map((b) => b.db !== null));
    expect(points(path)).toHaveLength(bands.length - 1);
    const ys = dots.slice(1).map((d) => d.py);
    expect([...ys].sort((a, b) => a - b)).toEqual(ys);
    expect(xTicks[0]!.text).toBe('80');
    expect(xTicks.some((t) => t.text.endsWith('k'))).toBe(true);
  });
  it('marks how loud at most what did not stand out may be', () => {
    const bands = heard.bands.map((b, i) => ({ ...b, db: i < 6 ? 0 : null, atMostDb: i < 6 ? null : -24 }));
    const { dots, atMost } = layoutTapBands({ bands });
    expect(dots).toHaveLength(6);
    expect(atMost).toHaveLength(bands.length - 6);
    for (const { px, py } of atMost) {
      expect(px).toBeGreaterThan(dots.at(-1)!.px);
      expect(py).toBeGreaterThan(dots[0]!.py);
    }
  });
});

describe('the chart of how late each second comes', () => {
  const blocks = [-12, 0, 3, 30, 8].map((lateMs, i) => ({ lateMs, standsOut: i === 2 ? 1 : 9, db: -20 }));
  it('has a dot for each, later higher, zero between, and all in its room', () => {
    const { dots, zeroPx, yTicks, xTicks } = layoutTapLateness({ blocks });
    expect(dots[3]!.py).toBeLessThan(dots[4]!.py);
    expect(dots[0]!.py).toBeGreaterThan(zeroPx);
    expect(dots[1]!.py).toBeCloseTo(zeroPx, 6);
    for (const { px, py } of dots) {
      expect(px).toBeGreaterThan(EVIDENCE.left);
      expect(px).toBeLessThan(EVIDENCE.width);
      expect(py).toBeGreaterThanOrEqual(EVIDENCE.top);
      expect(py).toBeLessThanOrEqual(EVIDENCE.height - EVIDENCE.bottom);
    }
    expect(yTicks.map((t) => t.text)).toContain('0');
    expect(xTicks.map((t) => t.text)).toEqual(['0']);
  });
  it('leaves hollow what does not stand out, and is not stretched by it', () => {
    const far = blocks.map((b, i) => (i === 2 ? { ...b, lateMs: 400 } : b));
    const { dots } = layoutTapLateness({ blocks: far });
    expect(dots.map((d) => d.isClear)).toEqual([true, true, false, true, true]);
    expect(dots[3]!.py).toBeCloseTo(layoutTapLateness({ blocks }).dots[3]!.py, 6);
  });
});
