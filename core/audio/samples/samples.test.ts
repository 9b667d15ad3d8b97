import fc from 'fast-check';
import FFT from 'fft.js';
import { beforeAll, describe, expect, it } from 'vitest';
import { testFft } from './fft.testkit.ts';
import {
  coarser,
  decimate,
  type FftOf,
  fftSize,
  glancePeaks,
  readPeaks,
  recordingOf,
  resample,
  seededNormal,
  seededRandom,
} from './index.ts';

const sine = (frames: number, cyclesPerSample: number, at = 0): Float32Array =>
  Float32Array.from({ length: frames }, (_, i) => Math.sin(2 * Math.PI * cyclesPerSample * (i + at)));
const worst = (a: Float32Array, b: Float32Array, edge: number): number => {
  let most = 0;
  for (let i = edge; i < a.length - edge; i++) most = Math.max(most, Math.abs(a[i]! - b[i]!));
  return most;
};

describe('the transform', () => {
  let fftOf: FftOf;
  beforeAll(async () => {
    fftOf = await testFft();
  });
  it.each([32, 1024, 16384])('of size %i agrees with another one, and comes back', (size) => {
    const normal = seededNormal(size);
    const x = Float32Array.from({ length: size }, normal);
    const spectrum = new Float32Array(size);
    fftOf(size).forward(x, spectrum);
    const other = new FFT(size);
    const expected = other.createComplexArray();
    other.realTransform(expected, Array.from(x));
    const tolerance = 2e-6 * size ** 0.5 * 4;
    expect(Math.abs(spectrum[0]! - expected[0]!)).toBeLessThan(tolerance);
    expect(Math.abs(spectrum[1]! - expected[size]!)).toBeLessThan(tolerance);
    for (let k = 1; k < size / 2; k++) {
      expect(Math.abs(spectrum[2 * k]! - expected[2 * k]!)).toBeLessThan(tolerance);
      expect(Math.abs(spectrum[2 * k + 1]! - expected[2 * k + 1]!)).toBeLessThan(tolerance);
    }
    const back = new Float32Array(size);
    fftOf(size).inverse(spectrum, back);
    expect(worst(back, x, 0)).toBeLessThan(1e-5);
  });
  it('is the same one when asked again, also after a larger one moved the memory', () => {
    const small = fftOf(64);
    fftOf(1 << 18);
    expect(fftOf(64)).toBe(small);
    const x = sine(64, 4 / 64);
    const spectrum = new Float32Array(64);
    small.forward(x, spectrum);
    expect(Math.hypot(spectrum[8]!, spectrum[9]!)).toBeCloseTo(32, 3);
  });
  it('has sizes that are powers of two', () => {
    expect([1, 33, 1024, 1025].map(fftSize)).toEqual([32, 64, 1024, 2048]);
  });
});

describe('resampling', () => {
  it('moves a tone by parts of a sample, to -66 dB up to three quarters of the band', () => {
    fc.assert(
      fc.property(
        fc.double({ min: 0, max: 1, noNaN: true }),
        fc.double({ min: 0.001, max: 0.38, noNaN: true }),
        (shift, f) => {
          const moved = resample(sine(600, f), shift, 1, 600);
          expect(worst(moved, sine(600, f, shift), 40)).toBeLessThan(10 ** (-66 / 20));
        },
      ),
      { numRuns: 40 },
    );
  });
  it('follows a clock that runs fast', () => {
    const ppm = 150e-6;
    const x = sine(48_000, 0.05);
    const fast = resample(x, 0, 1 + ppm, 40_000);
    expect(worst(fast, sine(40_000, 0.05 * (1 + ppm)), 40)).toBeLessThan(3e-4);
  });
  it('lowers the rate without folding anything back', () => {
    const factor = 5.5125;
    const inBand = resample(sine(44_100, 0.02), 0, factor, 7000);
    expect(worst(inBand, sine(7000, 0.02 * factor), 60)).toBeLessThan(1e-3);
    const above = resample(sine(44_100, 0.13), 0, factor, 7000);
    expect(worst(above, new Float32Array(7000), 60)).toBeLessThan(1e-3);
  });
  it('decimates as well, only faster, to a tenth of a decibel in the band', () => {
    expect(worst(decimate(sine(48_000, 0.05), 6), sine(8000, 0.3), 20)).toBeLessThan(0.0115);
    expect(worst(decimate(sine(48_000, 0.12), 6), new Float32Array(8000), 20)).toBeLessThan(1e-3);
  });
  it('is silence outside', () => {
    expect(resample(sine(100, 0.1), 500, 1, 50).every((v) => v === 0)).toBe(true);
  });
});

describe('peaks', () => {
  it('are the extremes of each bin, however coarse', async () => {
    const random = seededRandom(3);
    const x = Float32Array.from({ length: 10_007 }, () => random() * 2 - 1);
    const peaks = await readPeaks(recordingOf([x], 8000), 10);
    const far = coarser(peaks, 7);
    for (let b = 0; b < far.low.length; b++) {
      const part = x.subarray(b * 70, (b + 1) * 70);
      expect(far.low[b]).toBe(Math.min(...part));
      expect(far.high[b]).toBe(Math.max(...part));
    }
    expect(far.framesPerBin).toBe(70);
  });
  it('of a long recording are glanced at: nothing is made up, and only so much is read', async () => {
    const random = seededRandom(4);
    const x = Float32Array.from({ length: 400_001 }, () => random() * 2 - 1);
    let read = 0;
    const whole = recordingOf([x], 8000);
    const counted = {
      ...whole,
      readMono: (start: number, count: number) => {
        read += count;
        return whole.readMono(start, count);
      },
    };
    const glance = await glancePeaks(counted, 100);
    const full = await readPeaks(whole, glance.framesPerBin);
    expect(glance.low).toHaveLength(full.low.length);
    for (let b = 0; b < full.low.length; b++) {
      expect(glance.low[b]).toBeGreaterThanOrEqual(full.low[b]!);
      expect(glance.high[b]).toBeLessThanOrEqual(full.high[b]!);
      expect(glance.high[b]).toBeGreaterThan(0.9);
    }
    expect(read).toBeLessThan(0.6 * x.length);
  });
});

describe('seeded numbers', () => {
  it('are the same for the same seed, and as random as they say', () => {
    const a = seededNormal(7);
    const b = seededNormal(7);
    let [sum, squares] = [0, 0];
    for (let i = 0; i < 20_000; i++) {
      const v = a();
      expect(v).toBe(b());
      sum += v;
      squares += v * v;
    }
    expect(Math.abs(sum / 20_000)).toBeLessThan(0.03);
    expect(squares / 20_000).toBeCloseTo(1, 1);
  });
});
