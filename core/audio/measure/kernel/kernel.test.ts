import fc from 'fast-check';
import { describe, expect, it, vi } from 'vitest';
import { levelsOf, levelsRanges, measureLevels, measurePart } from '#core/audio/measure/levels.ts';
import { loudnessMeter } from '#core/audio/measure/loudness.ts';
import { peakMeter } from '#core/audio/measure/true-peak.ts';
import { recordingOf, seededNormal, seededRandom } from '#core/audio/samples/index.ts';
import { type LevelsKernel, levelsKernel } from './index.ts';

/** Noise that swells and rests, some of it tones near the top of the band: what loudness gates and peaks hide between samples. */
function sounds(channels: number, frames: number, seed: number): Float32Array[] {
  const random = seededRandom(seed);
  return Array.from({ length: channels }, (_, c) => {
    const noise = seededNormal(seed + c);
    const [hz, level, period] = [random() * 0.5, random() * 0.5, 500 + random() * 50_000];
    return Float32Array.from({ length: frames }, (_, i) => {
      const swell = Math.max(0, Math.sin(i / period));
      return level * swell * (0.3 * noise() + Math.sin(2 * Math.PI * hz * i));
    });
  });
}

const desks = fc.record({
  channels: fc.integer({ min: 1, max: 6 }),
  sampleRateHz: fc.constantFrom(4000, 11_025, 22_050, 44_100, 48_000, 96_000, 384_000),
  frames: fc.integer({ min: 1, max: 60_000 }),
  piece: fc.integer({ min: 1, max: 30_000 }),
  seed: fc.nat(),
});

const inPieces = (channels: readonly Float32Array[], piece: number, push: (part: Float32Array[]) => void): void => {
  for (let at = 0; at < channels[0]!.length; at += piece) push(channels.map((x) => x.subarray(at, at + piece)));
};

describe('the inner loops in WebAssembly', () => {
  it('are there on this machine', () => {
    expect(levelsKernel()).not.toBeNull();
  });

  it('weigh as the plain code does, to nine digits, in pieces of any length', () => {
    fc.assert(
      fc.property(desks, fc.array(fc.constantFrom(0, 1, 1.41), { minLength: 6, maxLength: 6 }), (desk, weights) => {
        const x = sounds(desk.channels, desk.frames, desk.seed);
        const steps = (kernel: LevelsKernel | null, piece: number) => {
          const meter = loudnessMeter(desk.channels, desk.sampleRateHz, { weights, kernel });
          inPieces(x, piece, meter.push);
          return meter.steps();
        };
        const plain = steps(null, desk.frames);
        const most = Math.max(1e-12, ...plain);
        const ours = steps(levelsKernel(), desk.piece);
        expect(ours.length).toBe(plain.length);
        ours.forEach((v, i) => {
          expect(Math.abs(v - plain[i]!)).toBeLessThan(1e-9 * most);
        });
      }),
      { numRuns: 150 },
    );
  });

  it('find the same peaks as the plain code, and as every point between samples worked out', () => {
    fc.assert(
      fc.property(desks, (desk) => {
        const x = sounds(desk.channels, desk.frames, desk.seed);
        const peaks = (kernel: LevelsKernel | null, piece: number) => {
          const meter = peakMeter(desk.channels, desk.sampleRateHz, { kernel });
          inPieces(x, piece, meter.push);
          return meter.result();
        };
        const plain = peaks(null, desk.frames);
        const ours = peaks(levelsKernel(), desk.piece);
        expect(ours.samplePeak).toBe(plain.samplePeak);
        expect(Math.abs(ours.truePeak - plain.truePeak)).toBeLessThanOrEqual(1e-9 * plain.truePeak);
        expect(plain.samplePeak).toBe(Math.max(...x.map((c) => c.reduce((m, v) => Math.max(m, Math.abs(v)), 0))));
      }),
      { numRuns: 150 },
    );
  });

  it('make of parts what they make of the whole, wherever it is cut', async () => {
    await fc.assert(
      fc.asyncProperty(
        fc.integer({ min: 1, max: 5 }),
        fc.constantFrom(4000, 11_025, 22_050),
        fc.integer({ min: 1, max: 9 * 22_050 }),
        fc.nat(),
        async (parts, rate, frames, seed) => {
          const take = recordingOf(sounds(2, frames, seed), rate);
          const ranges = levelsRanges(take, parts);
          expect(ranges[0]!.from).toBe(0);
          expect(ranges.at(-1)!.to).toBe(frames);
          const whole = await measureLevels(take);
          const joined = levelsOf(await Promise.all(ranges.map((range) => measurePart(take, range))));
          for (const key of Object.keys(whole) as (keyof typeof whole)[])
            if (whole[key] === null) expect(joined[key]).toBeNull();
            else expect(Math.abs(joined[key]! - whole[key])).toBeLessThan(1e-6);
        },
      ),
      { numRuns: 60 },
    );
  });

  it('give way to the plain code where there is no WebAssembly, or one that refuses them', async () => {
    for (const api of [
      undefined,
      {
        Module: class {
          constructor() {
            throw new Error('no SIMD');
          }
        },
      },
    ]) {
      vi.stubGlobal('WebAssembly', api);
      vi.resetModules();
      const { levelsKernel: fresh } = await import('./index.ts');
      expect(fresh()).toBeNull();
    }
    vi.unstubAllGlobals();
  });
});
