import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { seededNormal } from '#core/audio/samples/index.ts';
import { dropoutMeter } from './dropouts.ts';

const RATE = 48_000;
const noise = (frames: number, seed: number): Float32Array => {
  const next = seededNormal(seed);
  return Float32Array.from({ length: frames }, () => 0.1 * next());
};

function placesIn(x: Float32Array, piece: number): readonly number[] {
  const meter = dropoutMeter(1, RATE);
  for (let at = 0; at < x.length; at += piece) meter.push([x.subarray(at, at + piece)]);
  return meter.result().flatMap((f) => f.atS.map((s) => Math.round(s * RATE)));
}

const takes = fc.record({
  seed: fc.nat(),
  piece: fc.integer({ min: 25_000, max: 90_000 }),
  at: fc.integer({ min: 22_000, max: 70_000 }),
});

describe('dropouts', () => {
  it('of a buffer that comes twice are found to the sample, whatever its length and wherever pieces are cut', () => {
    fc.assert(
      fc.property(takes, fc.integer({ min: 144, max: 19_000 }), ({ seed, piece, at }, lag) => {
        const x = noise(96_000, seed);
        x.copyWithin(at, at - lag, at);
        // By chance a sample before or behind is the same too: of floats that is as good as never.
        expect(placesIn(x, piece)).toEqual([at]);
      }),
      { numRuns: 60 },
    );
  });
  it('of nothing in the midst of sound are found to the sample', () => {
    fc.assert(
      fc.property(takes, fc.integer({ min: 20, max: 20_000 }), ({ seed, piece, at }, frames) => {
        const x = noise(120_000, seed);
        x.fill(0, at, at + frames);
        // Both ends stand in the midst of a wave.
        x[at - 1] = 0.1;
        x[at + frames] = -0.1;
        expect(placesIn(x, piece)).toEqual([at]);
      }),
      { numRuns: 60 },
    );
  });
  it('are none of noise, of silence, and of a tone that repeats by itself', () => {
    const tone = Float32Array.from({ length: 96_000 }, (_, i) =>
      Math.fround(0.3 * Math.sin((2 * Math.PI * (i % 480)) / 480)),
    );
    for (const x of [noise(96_000, 3), new Float32Array(96_000), tone]) expect(placesIn(x, 50_000)).toEqual([]);
  });
});
