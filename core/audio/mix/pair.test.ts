import { beforeAll, describe, expect, it } from 'vitest';
import { loudnessMeter } from '#core/audio/measure/index.ts';
import { filterInPlace, highPass } from '#core/audio/process/index.ts';
import { testFft } from '#core/audio/samples/fft.testkit.ts';
import { type FftOf, recordingOf, resample } from '#core/audio/samples/index.ts';
import { voice } from '#core/desk-tests/stand-ins/index.ts';
import { pairSounds, pairTakes, stretchOf } from './index.ts';

const RATE = 32_000;
const SECONDS = 20;
let fftOf: FftOf;
beforeAll(async () => {
  fftOf = await testFft();
});
const talk = voice(190)(RATE * SECONDS, RATE, 9).map((v, i) => (i > 4 * RATE ? v : 0));
const lufs = (sides: readonly Float32Array[]) => {
  const meter = loudnessMeter(2, RATE);
  meter.push(sides);
  return meter.result().integratedLufs!;
};

describe('two takes for a blind trial', () => {
  it('are equally loud, and say the same words at the same time, whatever their rate and start', async () => {
    // The second began 1.2345 s later, at another rate, thinner and 14 dB lower.
    const thin = talk.map((v) => v * 0.2);
    filterInPlace(thin, [highPass(300, RATE)]);
    const other = resample(thin, 1.2345 * RATE, RATE / 24_000, 18 * 24_000);
    const pair = await pairTakes(fftOf, recordingOf([talk], RATE), recordingOf([other], 24_000), 8);
    expect(pair.sameSound).toBe(true);
    expect(pair.apartLu).toBeLessThan(0.1);
    expect(Math.abs(lufs(pair.a) - lufs(pair.b))).toBeLessThan(0.1);
    expect(pair.fromS[0] - pair.fromS[1]).toBeCloseTo(1.2345, 3);
    let [xy, xx, yy] = [0, 0, 0];
    const x = pair.a[0]!.slice();
    filterInPlace(x, [highPass(300, RATE)]);
    pair.b[0]!.forEach((v, i) => {
      xy += v * x[i]!;
      xx += x[i]! * x[i]!;
      yy += v * v;
    });
    expect(xy / Math.sqrt(xx * yy)).toBeGreaterThan(0.98);
  });
  it('of different words are each heard from where most is said', async () => {
    const other = voice(120)(RATE * SECONDS, RATE, 77);
    const pair = await pairTakes(fftOf, recordingOf([talk], RATE), recordingOf([other, other], RATE), 6);
    expect(pair.sameSound).toBe(false);
    expect(pair.fromS[0]).toBeGreaterThan(3.5);
    expect(pair.apartLu).toBeLessThan(0.1);
  });
  it('cannot be had of silence', async () => {
    const silence = recordingOf([new Float32Array(RATE * 9)], RATE);
    await expect(pairTakes(fftOf, recordingOf([talk], RATE), silence, 6)).rejects.toMatchObject({
      code: 'silent',
      said: { params: { which: 'B' } },
    });
    expect(() => pairSounds([talk], [new Float32Array(talk.length)], RATE, 0)).toThrow('measure.trackIsSilentCheck');
  });
  it('never clip, however spiky one of them is', () => {
    const spiky = talk.map((v, i) => (i % 16_000 === 0 ? 1 : v * 0.05));
    const { a, b } = pairSounds([talk], [spiky], RATE, 0);
    for (const x of [...a, ...b]) expect(x.reduce((m, v) => Math.max(m, Math.abs(v)), 0)).toBeLessThanOrEqual(0.9001);
    expect(lufs(a)).toBeCloseTo(lufs(b), 1);
  });
});

describe('what settings are tried on', () => {
  it('is the part in which most is said', async () => {
    const { fromS, toS, channels } = await stretchOf(recordingOf([talk], RATE), 10);
    expect(fromS).toBeGreaterThan(3.5);
    expect(toS - fromS).toBeCloseTo(10, 6);
    expect(channels[0]).toHaveLength(10 * RATE);
  });
});
