import { beforeAll, describe, expect, it } from 'vitest';
import { testFft } from '#core/audio/samples/fft.testkit.ts';
import { type FftOf, recordingOf, seededNormal } from '#core/audio/samples/index.ts';
import { noise, voice } from '#core/desk-tests/stand-ins/index.ts';
import { searchLags } from './search.ts';

const RATE = 8000;
let fftOf: FftOf;
beforeAll(async () => {
  fftOf = await testFft();
});
describe('the rough search', () => {
  const session = () => voice(165)(400 * RATE, RATE, 21);
  it.each([0, 2.5, -14, 29])('finds a lag of %s s nearby in a long take', async (lagS) => {
    const whole = session();
    const startS = 100;
    const ref = recordingOf([whole.slice(startS * RATE, (startS + 60) * RATE)], RATE);
    const from = Math.round((startS - lagS) * RATE);
    const other = recordingOf([whole.slice(from, from + 250 * RATE)], RATE);
    const [best] = await searchLags(fftOf, ref, other);
    expect(best!.lagS).toBeCloseTo(lagS, 2);
  });
  it('looks further, to the ends, when nothing is near', async () => {
    const whole = session();
    const ref = recordingOf([whole.slice(300 * RATE, 340 * RATE)], RATE);
    const [best] = await searchLags(fftOf, ref, recordingOf([whole], RATE));
    expect(best!.lagS).toBeCloseTo(300, 2);
  });
  it('finds what begins before the other and ends within it', async () => {
    const whole = session();
    const ref = recordingOf([whole.slice(0, 30 * RATE)], RATE);
    const other = recordingOf([whole.slice(20 * RATE, 60 * RATE)], RATE);
    const [best] = await searchLags(fftOf, ref, other);
    expect(best!.lagS).toBeCloseTo(-20, 2);
  });
  it('is as sure of an inverted copy, and hears through as loud a noise', async () => {
    const whole = session();
    const normal = seededNormal(8);
    const ref = whole.slice(50 * RATE, 90 * RATE);
    const power = Math.sqrt(ref.reduce((sum, v) => sum + v * v, 0) / ref.length);
    const other = whole.slice(45 * RATE, 95 * RATE).map((v) => -v + power * normal());
    const [best] = await searchLags(fftOf, recordingOf([ref], RATE), recordingOf([other], RATE));
    expect(best!.lagS).toBeCloseTo(5, 2);
  });
  it('does not stand out where nothing is the same, and is empty where nothing sounds', async () => {
    const scoreOf = async (a: Float32Array, b: Float32Array) =>
      (await searchLags(fftOf, recordingOf([a], RATE), recordingOf([b], RATE)))[0]?.score ?? 0;
    const same = await scoreOf(session().slice(0, 40 * RATE), session().slice(0, 60 * RATE));
    const other = await scoreOf(voice(120)(40 * RATE, RATE, 1), voice(210)(60 * RATE, RATE, 2));
    const noises = await scoreOf(noise(40 * RATE, RATE, 1), noise(60 * RATE, RATE, 2));
    expect(same).toBeGreaterThan(3 * Math.max(other, noises));
    expect(
      await searchLags(fftOf, recordingOf([new Float32Array(RATE * 9)], RATE), recordingOf([session()], RATE)),
    ).toEqual([]);
  });
});
