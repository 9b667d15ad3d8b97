import { beforeAll, describe, expect, it } from 'vitest';
import { testFft } from '#core/audio/samples/fft.testkit.ts';
import { type FftOf, recordingOf, seededNormal } from '#core/audio/samples/index.ts';
import { diagnose, spectrogramOf, thirdOctaves } from './index.ts';

const RATE = 32_000;
let fftOf: FftOf;
beforeAll(async () => {
  fftOf = await testFft();
});
const view = { fromS: 0, toS: 4, columns: 200, rows: 90, lowHz: 50, highHz: 12_800 };
const rowOf = (hz: number) => Math.floor((view.rows * Math.log(hz / view.lowHz)) / Math.log(view.highHz / view.lowHz));

describe('a spectrogram', () => {
  it('has a sine in its row, at its level, and only while it lasts', async () => {
    for (const hz of [440, 1000, 5000]) {
      const x = Float32Array.from({ length: 4 * RATE }, (_, i) =>
        i >= RATE && i < 3 * RATE ? 0.1 * Math.sin((2 * Math.PI * hz * i) / RATE) : 0,
      );
      const { db } = await spectrogramOf(fftOf, recordingOf([x], RATE), view);
      const column = (c: number) => db.subarray(c * view.rows, (c + 1) * view.rows);
      const loudest = column(100).reduce((best, v, r, all) => (v > all[best]! ? r : best), 0);
      expect(Math.abs(loudest - rowOf(hz))).toBeLessThanOrEqual(1);
      // Between two bins a Hann window reads 1.4 dB low.
      expect(column(100)[loudest]!).toBeGreaterThan(-21.5);
      expect(column(100)[loudest]!).toBeLessThan(-19.9);
      expect(Math.max(...column(20))).toBeLessThan(-100);
      expect(Math.max(...column(180))).toBeLessThan(-100);
    }
  });
  it('is the same whether its columns are read together or one by one, and beyond the end it is silent', async () => {
    const normal = seededNormal(4);
    const recording = recordingOf([Float32Array.from({ length: 40 * RATE }, () => 0.1 * normal())], RATE);
    const near = await spectrogramOf(fftOf, recording, { ...view, fromS: 10, toS: 11, columns: 10 });
    const far = await spectrogramOf(fftOf, recording, { ...view, fromS: 0, toS: 80, columns: 40 });
    const levels = [near.db.slice(0, 5 * view.rows), far.db.slice(0, 5 * view.rows)].map((db) =>
      db.filter((v) => Number.isFinite(v)).reduce((a, b, _, all) => a + b / all.length, 0),
    );
    // The louder of three windows stands some 3 dB over one of them.
    expect(Math.abs(levels[0]! - levels[1]!)).toBeLessThan(5);
    expect(far.db.slice(21 * view.rows).every((v) => v === Number.NEGATIVE_INFINITY)).toBe(true);
  });
});

describe('third octaves', () => {
  it('have a sine in its own band, and all of the noise that falls into each', async () => {
    const normal = seededNormal(7);
    const white = Float32Array.from({ length: 20 * RATE }, () => 0.05 * normal());
    const { spectra } = await diagnose(fftOf, recordingOf([white], RATE));
    const bands = thirdOctaves(spectra[0]!);
    expect(bands.map((b) => Math.round(b.hz))).toContain(1000);
    const densityDb = 10 * Math.log10((2 * 0.05 ** 2) / (RATE / 2));
    for (const { hz, lowHz, highHz, db } of bands)
      if (hz > 100) expect(Math.abs(db - densityDb - 10 * Math.log10(highHz - lowHz))).toBeLessThan(1);
    const tone = Float32Array.from({ length: 5 * RATE }, (_, i) => 0.1 * Math.sin((2 * Math.PI * 1000 * i) / RATE));
    const alone = thirdOctaves((await diagnose(fftOf, recordingOf([tone], RATE))).spectra[0]!);
    const one = alone.find((b) => Math.round(b.hz) === 1000)!;
    expect(one.db).toBeCloseTo(-20, 1);
    expect(alone.filter((b) => b.db > -60)).toEqual([one]);
  });
});
