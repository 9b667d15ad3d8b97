import { beforeAll, describe, expect, it } from 'vitest';
import { band, filterInPlace } from '#core/audio/process/index.ts';
import { testFft } from '#core/audio/samples/fft.testkit.ts';
import { type FftOf, recordingOf, seededNormal } from '#core/audio/samples/index.ts';
import { type BandLevel, bandsOf } from './bands.ts';
import { BASE_HZ } from './baseband.ts';
import { type BandEdge, edgesOf } from './edges.ts';
import { renderTune, SILENCE_S } from './index.ts';
import { walled } from './scene.testkit.ts';

let fftOf: FftOf;
beforeAll(async () => {
  fftOf = await testFft();
});
const RATE = 32_000;
const TUNE = 9;

async function read(spoil: (x: Float32Array) => void, noise = 1e-3): Promise<readonly BandLevel[]> {
  const x = new Float32Array(18 * RATE);
  x.set(renderTune(TUNE, RATE), RATE / 2);
  spoil(x);
  const normal = seededNormal(6);
  for (let i = 0; i < x.length; i++) x[i]! += noise * normal();
  const at = { at: (SILENCE_S + 0.5) * BASE_HZ, ppm: 0, gain: 1, phase: 0, blocks: [] };
  return (await bandsOf(fftOf, recordingOf([x], RATE), TUNE, at, null)).bands;
}

const wall = (lowHz: number, highHz: number) => (x: Float32Array) => walled(fftOf, x, RATE, lowHz, highHz);
const slope = (lowHz: number, highHz: number) => (x: Float32Array) => filterInPlace(x, band(lowHz, highHz, RATE));

function expectAt(edge: BandEdge, hz: number): void {
  if (edge === null || edge === 'beyond') throw new Error(`${hz} Hz: ${edge}`);
  expect(edge.low, `${hz} Hz`).toBeLessThanOrEqual(hz);
  expect(edge.high, `${hz} Hz`).toBeGreaterThanOrEqual(hz);
  expect(Math.abs(Math.log2(edge.nominal / hz)), `${hz} Hz told as ${edge.nominal}`).toBeLessThan(0.25);
}

describe('where a band ends', () => {
  it.each([
    [200, 3000],
    [300, 3400],
    [250, 5500],
    [350, 7000],
    [500, 9000],
  ])('is told by a wall and by a slope alike: %i Hz to %i Hz', async (lowHz, highHz) => {
    for (const spoil of [wall, slope]) {
      const { low, high } = edgesOf(await read(spoil(lowHz, highHz)));
      expectAt(low, lowHz);
      expectAt(high, highHz);
    }
  });
  it('is beyond what a tune goes through, where all of it comes', async () => {
    expect(edgesOf(await read(() => undefined))).toEqual({ low: 'beyond', high: 'beyond' });
    expect(edgesOf(await read(slope(40, 15_000)))).toEqual({ low: 'beyond', high: 'beyond' });
  });
  it('is not told where noise drowns what would tell it', async () => {
    const drowned = await read((x) => {
      wall(0, 5000)(x);
      const normal = seededNormal(3);
      const hiss = Float32Array.from({ length: x.length }, () => 8 * normal());
      wall(4900, RATE / 2)(hiss);
      for (let i = 0; i < x.length; i++) x[i]! += hiss[i]!;
    });
    expect(edgesOf(drowned).high).toBeNull();
  });
  it('is not told of a source of which no octave stands out, nor of what no filter does', async () => {
    const flat = await read(() => undefined);
    expect(edgesOf(flat.map((b) => ({ ...b, db: null })))).toEqual({ low: null, high: null });
    // Up and down again: two ways that meet, not a band that ends.
    const comb = flat.map((b) => ({ ...b, db: { 2500: -14, 5000: 2, 10000: -16 }[b.lowHz] ?? 0 }));
    expect(edgesOf(comb).high).toBeNull();
  });
});

describe('an octave that does not stand out', () => {
  it('is so loud at most, which is little where the take is quiet there', async () => {
    const [quiet, loud] = [await read(wall(0, 4000), 1e-4), await read(wall(0, 4000), 1e-2)];
    const of = (bands: readonly BandLevel[]) => bands.find((b) => b.lowHz === 10_000)!;
    for (const b of [of(quiet), of(loud)]) expect(b.db).toBeNull();
    expect(of(quiet).atMostDb!).toBeLessThan(-60);
    expect(of(loud).atMostDb! - of(quiet).atMostDb!).toBeGreaterThan(30);
    expect(of(loud).atMostDb! - of(quiet).atMostDb!).toBeLessThan(50);
  });
  it('holds for what is there: a tone of that level would have stood out', async () => {
    const { atMostDb } = (await read(wall(0, 4000), 3e-2)).find((b) => b.lowHz === 5000)!;
    const kept = await read((x) => {
      const high = x.slice();
      wall(5000, 10_000)(high);
      wall(0, 4000)(x);
      const gain = 10 ** ((atMostDb! + 6) / 20);
      for (let i = 0; i < x.length; i++) x[i]! += gain * high[i]!;
    }, 3e-2);
    expect(kept.find((b) => b.lowHz === 5000)!.db).not.toBeNull();
  });
  it('says nothing where the take’s own rate ends before it', async () => {
    const rate = 16_000;
    const x = new Float32Array(18 * rate);
    x.set(renderTune(TUNE, rate), rate / 2);
    const at = { at: (SILENCE_S + 0.5) * BASE_HZ, ppm: 0, gain: 1, phase: 0, blocks: [] };
    const { bands } = await bandsOf(fftOf, recordingOf([x], rate), TUNE, at, null);
    expect(bands.filter((b) => b.highHz > 8000).map((b) => [b.db, b.atMostDb])).toEqual([
      [null, null],
      [null, null],
    ]);
    expect(edgesOf(bands).high).toBeNull();
  });
});
