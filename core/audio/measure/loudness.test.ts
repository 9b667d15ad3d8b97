import { describe, expect, it } from 'vitest';
import { dbFromRatio } from '#core/model/units/index.ts';
import { loudnessMeter } from './index.ts';

describe('loudness', () => {
  const sine = (db: number, seconds: number, rate: number, hz = 997): Float32Array => {
    const k = 10 ** (db / 20);
    return Float32Array.from({ length: seconds * rate }, (_, i) => k * Math.sin((2 * Math.PI * hz * i) / rate));
  };
  const measured = (channels: readonly Float32Array[], rate: number, piece = channels[0]!.length) => {
    const meter = loudnessMeter(channels.length, rate);
    for (let at = 0; at < channels[0]!.length; at += piece) meter.push(channels.map((c) => c.subarray(at, at + piece)));
    return meter.result();
  };
  const joined = (...parts: Float32Array[]): Float32Array => {
    const out = new Float32Array(parts.reduce((n, p) => n + p.length, 0));
    parts.reduce((at, p) => {
      out.set(p, at);
      return at + p.length;
    }, 0);
    return out;
  };
  it.each([8000, 16_000, 44_100, 48_000, 96_000])('reads a stereo sine of -23 dBFS as -23 LUFS at %i Hz', (rate) => {
    const x = sine(-23, 20, rate, rate < 16_000 ? 500 : 997);
    const read = measured([x, x], rate);
    // At 500 Hz the weighting gives 0.7 dB less than at 997 Hz, where it is the offset.
    const off = rate < 16_000 ? 0.8 : 0.1;
    expect(Math.abs(read.integratedLufs! + 23)).toBeLessThan(off);
    expect(Math.abs(read.maxMomentaryLufs! - read.integratedLufs!)).toBeLessThan(0.1);
    expect(Math.abs(read.maxShortTermLufs! - read.integratedLufs!)).toBeLessThan(0.1);
    expect(measured([x], rate).integratedLufs!).toBeCloseTo(read.integratedLufs! - dbFromRatio(Math.SQRT2), 2);
  });
  it('gates as EBU Tech 3341 wants: cases 3 to 5', () => {
    const rate = 48_000;
    const s = (db: number, seconds: number) => sine(db, seconds, rate, 1000);
    const cases = [
      joined(s(-36, 10), s(-23, 60), s(-36, 10)),
      joined(s(-72, 10), s(-36, 10), s(-23, 60), s(-36, 10), s(-72, 10)),
      joined(s(-26, 20), s(-20, 20.1), s(-26, 20)),
    ];
    for (const x of cases) expect(Math.abs(measured([x, x], rate, 4800).integratedLufs! + 23)).toBeLessThan(0.1);
  });
  it('has the range of EBU Tech 3342: cases 1 to 3', () => {
    const rate = 48_000;
    const s = (db: number) => sine(db, 20, rate, 1000);
    for (const [range, ...dbs] of [
      [10, -20, -30],
      [5, -20, -15],
      [20, -40, -20],
    ])
      expect(Math.abs(measured([joined(...dbs.map(s)), joined(...dbs.map(s))], rate).rangeLu! - range!)).toBeLessThan(
        1,
      );
  });
  it('is the same in pieces of any length, and null for silence', () => {
    const x = sine(-20, 5, 44_100);
    const whole = measured([x, x], 44_100);
    for (const piece of [1000, 4410, 7777]) {
      const read = measured([x, x], 44_100, piece);
      for (const key of ['integratedLufs', 'maxMomentaryLufs', 'maxShortTermLufs', 'rangeLu'] as const)
        expect(read[key]).toBeCloseTo(whole[key]!, 9);
    }
    expect(measured([new Float32Array(48_000 * 4)], 48_000)).toEqual({
      integratedLufs: null,
      rangeLu: null,
      maxMomentaryLufs: null,
      maxShortTermLufs: null,
    });
  });
});
