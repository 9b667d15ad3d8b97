import { describe, expect, it } from 'vitest';
import { type Spectrum, thirdOctaves } from '#core/audio/measure/index.ts';
import { type DistanceTrack, layoutDistances, phraseFrom } from './distances.ts';
import { layoutDrift } from './drift.ts';
import { layoutSpectrum, SPECTRUM_HEIGHT, shade } from './spectra.ts';
import { outline, TAKEN_HEIGHT, takenPath, yOfTaken } from './taken.ts';

describe('a spectrogram on paper', () => {
  it('is ink where it is loud and paper where it is not, the lowest pitch at the bottom', () => {
    const view = { fromS: 0, toS: 1, columns: 2, rows: 2, lowHz: 100, highHz: 1000 };
    const db = Float32Array.of(-25, -100, Number.NEGATIVE_INFINITY, -62.5);
    const pixels = shade({ ...view, db }, [10, 20, 30]);
    const opacity = (x: number, y: number) => pixels[4 * (y * 2 + x) + 3]!;
    expect([opacity(0, 1), opacity(0, 0), opacity(1, 1)]).toEqual([255, 0, 0]);
    expect(opacity(1, 0)).toBeGreaterThan(126);
    expect(opacity(1, 0)).toBeLessThan(129);
    expect([...pixels.slice(0, 3)]).toEqual([10, 20, 30]);
  });
});

describe('a spectrum on paper', () => {
  it('has its bars over their bands, the line within the frame, each tick at its level', () => {
    const power = new Float64Array(2000).fill(1e-9);
    power[100] = 1e-2;
    const spectrum: Spectrum = { binHz: 10, power };
    const laid = layoutSpectrum(spectrum, thirdOctaves(spectrum), 800);
    const tall = laid.bars.reduce((a, b) => (b.y < a.y ? b : a));
    expect(Math.round(tall.band.hz)).toBe(1000);
    const kilo = laid.hzTicks.find((t) => t.label === '1k')!.px;
    expect(tall.x).toBeLessThan(kilo);
    expect(tall.x + tall.width).toBeGreaterThan(kilo);
    expect(laid.dbTicks.find((t) => t.db === -20)!.px).toBeCloseTo(tall.y, 0);
    const heights = [...laid.path.matchAll(/[\d.]+,([\d.]+)/g)].map((m) => Number(m[1]));
    expect(Math.max(...heights)).toBeLessThanOrEqual(SPECTRUM_HEIGHT);
    // Of many bins in a pixel the loudest is kept.
    expect(Math.min(...heights)).toBeCloseTo(tall.y, 0);
  });
});

describe('what is taken off, on paper', () => {
  it('hangs from the top by as much as is taken, the most of each pixel', () => {
    const curve = new Float32Array(100);
    curve[50] = -6;
    const path = takenPath(curve, 10);
    expect(path).toContain(`5,${yOfTaken(6).toFixed(1).replace(/\.0$/, '')}`);
    expect(yOfTaken(0)).toBe(0);
    expect(yOfTaken(40)).toBe(yOfTaken(20));
  });
  it('stands beside a wave that fills its height when it is full', () => {
    const path = outline(Float32Array.of(0.5, -0.5, 0, 0), 2, 2);
    const heights = [...path.matchAll(/[\d.]+,([\d.]+)/g)].map((m) => Number(m[1]));
    expect([Math.min(...heights), Math.max(...heights)]).toEqual([1, TAKEN_HEIGHT.wave - 1]);
  });
});

describe('a drift on paper', () => {
  const points = Array.from({ length: 12 }, (_, i) => ({
    atMs: 100_000 * i,
    offsetMs: 625 + 3.1 * i,
    z: 9,
    agrees: true,
  }));
  it('leans as the clock does, its readings on its line', () => {
    const { points: dots, lines, outside } = layoutDrift(points, { startMs: 625, ppm: 31 }, 800);
    const [line] = lines as [(typeof lines)[number]];
    expect(outside).toBe(0);
    for (const dot of dots) {
      const part = (dot.px - line.x1) / (line.x2 - line.x1);
      expect(dot.py).toBeCloseTo(line.y1 + part * (line.y2 - line.y1), 3);
    }
    // Later is further up.
    expect(line.y2).toBeLessThan(line.y1);
  });
  it('steps where a buffer was lost, each stretch on its own line', () => {
    const jump = { atMs: 550_000, withinMs: 400, stepMs: -10 };
    const lost = points.map((p) => (p.atMs > jump.atMs ? { ...p, offsetMs: p.offsetMs - 10 } : p));
    const { points: dots, lines } = layoutDrift(lost, { startMs: 625, ppm: 31, jumps: [jump] }, 800);
    expect(lines).toHaveLength(2);
    for (const [i, dot] of dots.entries()) {
      const line = lines[points[i]!.atMs > jump.atMs ? 1 : 0]!;
      const part = (dot.px - line.x1) / (line.x2 - line.x1);
      expect(dot.py).toBeCloseTo(line.y1 + part * (line.y2 - line.y1), 3);
    }
    expect(lines[1]!.y1).toBeGreaterThan(lines[0]!.y2);
  });
  it('is not blown up where nothing drifts, and says what lies outside', () => {
    const still = points.map((p, i) => ({ ...p, offsetMs: i === 5 ? 900 : 625 + 0.001 * (i % 2), agrees: i !== 5 }));
    const { points: dots, yTicks, outside } = layoutDrift(still, { startMs: 625, ppm: 0 }, 800);
    const [low, high] = [
      Math.min(...dots.map((d) => d.py)),
      Math.max(...dots.filter((d) => d.agrees).map((d) => d.py)),
    ];
    expect(high - Math.min(...dots.filter((d) => d.agrees).map((d) => d.py))).toBeLessThan(1);
    expect(low).toBeLessThan(high);
    expect(yTicks.length).toBeGreaterThan(1);
    expect(outside).toBe(1);
  });
});

describe('distances on paper', () => {
  const step = (fromS: number, underLu: number) => ({ fromS, toS: fromS + 2, underLu, wasLu: -3, near: false });
  const track: DistanceTrack = {
    key: 'game',
    name: 'Game',
    hue: 'red',
    wantedLu: 10,
    steps: [step(0, 10), step(4, 0), step(8, -5), step(12, Number.POSITIVE_INFINITY)],
  };
  const laid = layoutDistances([track], 20, 900);
  it('stand on their wish where they meet it, on the voice where they are as loud, above it where they are louder', () => {
    const [{ wantedPx, steps }] = laid.tracks as [(typeof laid.tracks)[number]];
    expect(steps).toHaveLength(3);
    expect(steps[0]!.px).toBeCloseTo(wantedPx, 9);
    expect(steps[1]!.px).toBeCloseTo(laid.voicePx, 9);
    expect(steps[2]!.px).toBeLessThan(laid.voicePx);
    expect(steps[0]!.wasPx).toBeLessThan(laid.voicePx);
    expect(laid.secondsAt(laid.pxAt(7))).toBeCloseTo(7, 9);
    expect(laid.secondsAt(-50)).toBe(0);
  });
  it('are walked by arrows from phrase to phrase', () => {
    expect(phraseFrom([track], 1, 'ArrowRight')).toBe(5);
    expect(phraseFrom([track], 5, 'ArrowLeft')).toBe(1);
    expect(phraseFrom([track], 13, 'ArrowRight')).toBeNull();
    expect(phraseFrom([track], 5, 'Enter')).toBeNull();
  });
});
