import fc from 'fast-check';
import { beforeAll, describe, expect, it } from 'vitest';
import { testFft } from './fft.testkit.ts';
import { type FftOf, seededNormal } from './index.ts';

let fftOf: FftOf;
beforeAll(async () => {
  fftOf = await testFft();
});
const noise = (values: number, seed: number) => Float32Array.from({ length: values }, seededNormal(seed));

/** The plain way: the piece at each lag against the short sound, conjugated, round the corner. */
function plainly(piece: Float32Array, short: Float32Array, size: number): Float64Array {
  const out = new Float64Array(2 * size);
  for (let lag = 0; lag < size; lag++)
    for (let n = 0; n < short.length / 2; n++) {
      const at = (lag + n) % size;
      const [xr, xi, yr, yi] = [piece[2 * at]!, piece[2 * at + 1]!, short[2 * n]!, short[2 * n + 1]!];
      out[2 * lag]! += xr * yr + xi * yi;
      out[2 * lag + 1]! += xi * yr - xr * yi;
    }
  return out;
}

describe('a correlator', () => {
  it('holds short sounds against kept pieces as the plain way does', () => {
    fc.assert(
      fc.property(fc.constantFrom(32, 64, 128), fc.integer({ min: 1, max: 16 }), fc.nat(1000), (size, length, seed) => {
        const correlator = fftOf.correlator(size);
        const pieces = [noise(2 * size, seed), noise(2 * size, seed + 1)];
        const numbers = pieces.map((p) => correlator.keep(p));
        const short = noise(2 * length, seed + 2);
        correlator.against(short);
        numbers.forEach((number, i) => {
          const got = correlator.withPiece(number);
          const due = plainly(pieces[i]!, short, size);
          const most = Math.max(...due.map(Math.abs));
          due.forEach((v, k) => {
            expect(Math.abs(got[k]! - v)).toBeLessThan(1e-4 * most + 1e-5);
          });
        });
        correlator.free();
      }),
      { numRuns: 25 },
    );
  });
  it('forgets the short sound before when another one is held against it', () => {
    const size = 64;
    const correlator = fftOf.correlator(size);
    const number = correlator.keep(noise(2 * size, 1));
    correlator.against(noise(40, 2));
    correlator.against(new Float32Array(2 * 8));
    expect(Math.max(...correlator.withPiece(number).map(Math.abs))).toBeLessThan(1e-6);
    correlator.free();
  });
});

describe('a complex transform', () => {
  it('turns a tone of one turn an n-th into one bin, and comes back as it was', () => {
    const size = 64;
    const fft = fftOf.complex(size);
    const tone = Float32Array.from({ length: 2 * size }, (_, i) => {
      const angle = (2 * Math.PI * 5 * (i >> 1)) / size;
      return i % 2 === 0 ? Math.cos(angle) : Math.sin(angle);
    });
    const spectrum = new Float32Array(2 * size);
    fft.forward(tone, spectrum);
    const size5 = Math.hypot(spectrum[10]!, spectrum[11]!);
    expect(size5).toBeCloseTo(size, 3);
    for (let k = 0; k < size; k++)
      if (k !== 5) expect(Math.hypot(spectrum[2 * k]!, spectrum[2 * k + 1]!)).toBeLessThan(1e-3);
    const back = new Float32Array(2 * size);
    fft.inverse(spectrum, back);
    back.forEach((v, i) => {
      expect(v).toBeCloseTo(tone[i]!, 4);
    });
  });
});
