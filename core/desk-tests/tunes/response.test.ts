import { beforeAll, describe, expect, it } from 'vitest';
import { testFft } from '#core/audio/samples/fft.testkit.ts';
import { type FftOf, seededNormal } from '#core/audio/samples/index.ts';
import { BASE_HZ, type Baseband, type Evening, evened, eveningOf, tuneBaseband } from './baseband.ts';
import {
  addSource,
  gainOf,
  lagMs,
  type MeasurementStatus,
  magnitudes,
  RESPONSE_LAGS,
  responseOf,
  secondWays,
  standingOf,
} from './response.ts';

const AT = 6000;
const ID = 5;
let fftOf: FftOf;
let evening: Evening;
let even: Baseband;
let standing: MeasurementStatus;

/** A tune by ways that are so many samples later and so strong, in a little noise. */
function takeOf(ways: readonly (readonly [late: number, gain: number])[], noise = 0.3): Baseband {
  const normal = seededNormal(8);
  const take = new Float32Array(2 * BASE_HZ * 24).map(() => noise * normal());
  const tune = tuneBaseband(ID);
  for (const [late, gain] of ways)
    for (let i = 0; i < tune.length; i++) {
      // A whole sample later the carrier has turned by half a circle.
      const k = 2 * (AT + late) + i;
      if (k < take.length) take[k]! += (late % 2 === 0 ? gain : -gain) * tune[i]!;
    }
  return take;
}
const WAYS = [
  [0, 1],
  [212, 0.35],
  [-400, 0.25],
] as const;

beforeAll(async () => {
  fftOf = await testFft();
  const take = takeOf(WAYS);
  evening = eveningOf(fftOf, take);
  even = evened(fftOf, take, evening);
  standing = standingOf(fftOf, evening, ID, { at: AT, ppm: 0 });
});

const sizeAt = (size: Float32Array, ms: number): number => {
  let best = 0;
  for (let i = 0; i < size.length; i++) if (Math.abs(lagMs(i) - ms) < 0.6) best = Math.max(best, size[i]!);
  return best;
};
const msOf = (samples: number) => (1000 * samples) / BASE_HZ;

describe('the response of a way', () => {
  it('has an arrival where each is, and none elsewhere', () => {
    const response = responseOf(fftOf, even, standing);
    expect(response).toHaveLength(2 * RESPONSE_LAGS);
    const size = magnitudes(response);
    const top = size.reduce((best, v, i) => (v > size[best]! ? i : best), 0);
    expect(lagMs(top)).toBeCloseTo(0, 6);
    for (const [late] of WAYS) expect(sizeAt(size, msOf(late)) / size[top]!, `${late}`).toBeGreaterThan(0.2);
    expect(sizeAt(size, 700) / size[top]!).toBeLessThan(0.08);
  });
  it('is told by each half alone, and second ways are what is in both', () => {
    const whole = responseOf(fftOf, even, standing);
    const halves = [responseOf(fftOf, even, standing, 0), responseOf(fftOf, even, standing, 1)] as const;
    for (const half of halves) expect(sizeAt(magnitudes(half), msOf(212))).toBeGreaterThan(0);
    const { ways, noneAboveDb } = secondWays(whole, halves);
    expect(ways.map((w) => Math.round(w.afterMs)).sort((a, b) => a - b)).toEqual([-100, 53]);
    expect(ways.every((w) => !w.perhapsReflection)).toBe(true);
    expect(noneAboveDb).toBeLessThan(-18);
    // What one half has alone is chance.
    expect(secondWays(whole, [halves[0], new Float32Array(2 * RESPONSE_LAGS)]).ways).toEqual([]);
  });
});

describe('how loud a way is', () => {
  it.each([0.01, 0.1, 1])('is told where it lies, whatever lies round it (noise %f)', (noise) => {
    const take = takeOf(WAYS, noise);
    const own = eveningOf(fftOf, take);
    const x = evened(fftOf, take, own);
    const gain = (late: number) => gainOf(x, standingOf(fftOf, own, ID, { at: AT + late, ppm: 0 }));
    for (const [late, is] of WAYS) {
      const off = 20 * Math.log10(gain(late) / gain(0) / is);
      expect(Math.abs(off), `${late}`).toBeLessThan(1.5);
    }
    expect(gain(900) / gain(0)).toBeLessThan(0.1);
  });
  it('is nothing where the take is over, or silent', () => {
    expect(gainOf(even, { ...standing, first: even.length })).toBe(0);
    expect(gainOf(new Float32Array(even.length), standing)).toBe(0);
  });
});

describe('a source that is taken out of a take', () => {
  const ways = [
    { afterMs: msOf(212), underDb: 9, perhapsReflection: false },
    { afterMs: msOf(-400), underDb: 12, perhapsReflection: false },
  ];
  const without = (of: typeof ways): Baseband => {
    const rest = even.slice();
    addSource(fftOf, rest, standing, responseOf(fftOf, even, standing), of, -1);
    return rest;
  };
  it('is hardly there any more, nor are the second ways that are its own', () => {
    const gain = (x: Baseband, late: number) => gainOf(x, standingOf(fftOf, evening, ID, { at: AT + late, ppm: 0 }));
    for (const late of [0, 212]) expect(gain(without(ways), late) / gain(even, late), `${late}`).toBeLessThan(0.3);
    // What is not said to be its own stays.
    expect(gain(without([]), 212) / gain(even, 212)).toBeGreaterThan(0.6);
  });
  it('comes back as it was', () => {
    const rest = without(ways);
    addSource(fftOf, rest, standing, responseOf(fftOf, even, standing), ways, 1);
    let most = 0;
    for (let i = 0; i < rest.length; i++) most = Math.max(most, Math.abs(rest[i]! - even[i]!));
    expect(most).toBeLessThan(1e-3);
  });
});
