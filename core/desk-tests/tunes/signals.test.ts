import { beforeAll, describe, expect, it } from 'vitest';
import { band, filterInPlace } from '#core/audio/process/index.ts';
import { testFft } from '#core/audio/samples/fft.testkit.ts';
import { type FftOf, recordingOf, seededNormal } from '#core/audio/samples/index.ts';
import { bandsOf } from './bands.ts';
import { BASE_HZ, type Baseband, evened, eveningOf, medianOf, readBaseband, tuneBaseband } from './baseband.ts';
import { finest, holdAt, msOf } from './fine.ts';
import { renderTune, SILENCE_S } from './index.ts';

let fftOf: FftOf;
beforeAll(async () => {
  fftOf = await testFft();
});
const powerOf = (x: Baseband, from = 0, to = x.length / 2): number => {
  let sum = 0;
  for (let i = 2 * from; i < 2 * to; i++) sum += x[i]! ** 2;
  return sum / (to - from);
};
/** How alike two are, 0 to 1, whatever their carriers' phase. */
function likeness(a: Baseband, b: Baseband, lag: number): number {
  let [re, im] = [0, 0];
  const n = Math.min(a.length / 2 - lag, b.length / 2);
  for (let i = 0; i < n; i++) {
    const [p, q, r, s] = [a[2 * (i + lag)]!, a[2 * (i + lag) + 1]!, b[2 * i]!, b[2 * i + 1]!];
    re += p * r + q * s;
    im += q * r - p * s;
  }
  return Math.hypot(re, im) / n / Math.sqrt(powerOf(a, lag, lag + n) * powerOf(b, 0, n));
}

describe('a take as baseband', () => {
  it.each([44_100, 48_000, 32_000, 16_000])(
    'at %i Hz is what its tune is made of straight from the notes',
    async (rate) => {
      const sound = renderTune(4, rate);
      const read = await readBaseband(recordingOf([sound], rate));
      expect(read.length / 2 / BASE_HZ).toBeCloseTo(sound.length / rate, 2);
      // The lowest glides are in the take and are not looked for.
      expect(likeness(read, tuneBaseband(4), SILENCE_S * BASE_HZ)).toBeGreaterThan(0.85);
      expect(likeness(read, tuneBaseband(5), SILENCE_S * BASE_HZ)).toBeLessThan(0.1);
    },
  );
  it('has a channel that is the wrong way round taken from the other, and one that is silent at half', async () => {
    const sound = renderTune(4, 16_000);
    const none = await readBaseband(recordingOf([sound, sound.map((v) => -v)], 16_000));
    expect(powerOf(none)).toBeLessThan(1e-12);
    const half = await readBaseband(recordingOf([sound, new Float32Array(sound.length)], 16_000));
    const whole = await readBaseband(recordingOf([sound], 16_000));
    expect(powerOf(half) / powerOf(whole)).toBeCloseTo(0.25, 3);
  });
  it('of a clock that is off is as much longer, and begins part of a sample late where that is asked', () => {
    const [plain, fast, late] = [tuneBaseband(3), tuneBaseband(3, 200), tuneBaseband(3, 0, 0.5)];
    expect(fast.length).toBeGreaterThanOrEqual(plain.length);
    // By its end a tune on a clock 200 ppm off lies 12 samples beside the other.
    expect(likeness(plain, fast, 0)).toBeLessThan(0.7);
    expect(likeness(plain, late, 0)).toBeGreaterThan(0.6);
    expect(likeness(plain, late, 0)).toBeLessThan(0.999);
  });
});

describe('evening', () => {
  it('makes parts about equally strong that were 30 dB apart, in time and in pitch', () => {
    const normal = seededNormal(2);
    const n = 8 * BASE_HZ;
    const x = new Float32Array(2 * n);
    for (let i = 0; i < n; i++) {
      const gain = i < n / 2 ? 1 : 10 ** (-30 / 20);
      const hum = 20 * Math.cos((2 * Math.PI * 500 * i) / BASE_HZ);
      x[2 * i] = gain * (normal() + hum);
      x[2 * i + 1] = gain * (normal() + 20 * Math.sin((2 * Math.PI * 500 * i) / BASE_HZ));
    }
    const even = evened(fftOf, x, eveningOf(fftOf, x));
    const [first, second] = [powerOf(even, BASE_HZ, n / 2 - BASE_HZ), powerOf(even, n / 2 + BASE_HZ, n - BASE_HZ)];
    expect(Math.abs(10 * Math.log10(first / second))).toBeLessThan(3);
    // The tone had 26 dB more than all else together; evened it is one bin of many.
    let [re, im] = [0, 0];
    for (let i = 0; i < n / 2; i++) {
      const angle = (2 * Math.PI * 500 * i) / BASE_HZ;
      re += even[2 * i]! * Math.cos(angle) + even[2 * i + 1]! * Math.sin(angle);
      im += even[2 * i + 1]! * Math.cos(angle) - even[2 * i]! * Math.sin(angle);
    }
    expect(Math.hypot(re, im) ** 2 / (n / 2) ** 2 / first).toBeLessThan(0.1);
  });
  it('makes nothing of silence', () => {
    expect(eveningOf(fftOf, new Float32Array(2 * BASE_HZ)).gains.every((g) => g === 0)).toBe(true);
  });
  it('takes the middle of what is not nothing', () => {
    expect(medianOf(Float32Array.from([0, 5, 0, 1, 3, 0]), 1)).toBe(3);
    expect(medianOf(new Float32Array(9), 1)).toBe(0);
  });
});

describe('a tune to a part of a sample', () => {
  it('is placed, with its clock and how loud it is, where the line said so only roughly', () => {
    const [at, ppm, gain] = [5000.37, 63, 0.2];
    const tune = tuneBaseband(7, ppm, 0.37);
    const normal = seededNormal(4);
    const take = new Float32Array(2 * BASE_HZ * 21).map(() => 0.01 * normal());
    for (let i = 0; i < tune.length; i++) take[2 * 5000 + i]! += gain * tune[i]!;
    const evening = eveningOf(fftOf, take);
    const held = holdAt(fftOf, evened(fftOf, take, evening), evening, 7, 5001, 50);
    const fine = finest(held, new Array<boolean>(15).fill(true));
    expect(msOf(fine.at)).toBeCloseTo(msOf(at), 1);
    expect(Math.abs(fine.ppm - ppm)).toBeLessThan(2);
    expect(Math.abs(20 * Math.log10(fine.gain / gain))).toBeLessThan(1.5);
    expect(fine.blocks).toHaveLength(15);
    for (const b of fine.blocks) expect(b.standsOut).toBeGreaterThan(2);
  });
});

describe('the band that a tune comes through', () => {
  const rate = 32_000;
  const at = { at: (SILENCE_S + 0.5) * BASE_HZ, ppm: 0, gain: 1, phase: 0, blocks: [] };
  const read = async (spoil: (x: Float32Array) => void) => {
    const x = new Float32Array(20 * rate);
    x.set(renderTune(9, rate), rate / 2);
    spoil(x);
    const normal = seededNormal(6);
    for (let i = 0; i < x.length; i++) x[i]! += 1e-4 * normal();
    return (await bandsOf(fftOf, recordingOf([x], rate), 9, at, null)).bands;
  };
  it('is flat where nothing is on the way', async () => {
    for (const { lowHz, db } of await read(() => undefined)) {
      expect(db, `${lowHz} Hz`).not.toBeNull();
      expect(Math.abs(db!), `${lowHz} Hz`).toBeLessThan(2);
    }
  });
  it('ends where a filter ends it', async () => {
    const bands = await read((x) => {
      for (let n = 0; n < 2; n++) filterInPlace(x, band(80, 3000, rate));
    });
    const of = (hz: number) => bands.find((b) => b.lowHz === hz)!.db ?? -99;
    expect(Math.abs(of(640))).toBeLessThan(2);
    expect(of(5000)).toBeLessThan(-15);
    expect(of(10_000)).toBeLessThan(of(5000));
  });
  it('keeps the spectrum of a stretch for the next tune that lies in it', async () => {
    const x = new Float32Array(24 * rate);
    x.set(renderTune(9, rate), rate / 2);
    const first = await bandsOf(fftOf, recordingOf([x], rate), 9, at, null);
    const again = await bandsOf(fftOf, recordingOf([x], rate), 9, at, first.stretch);
    expect(again.stretch).toBe(first.stretch);
    expect(again.bands).toEqual(first.bands);
  });
});
