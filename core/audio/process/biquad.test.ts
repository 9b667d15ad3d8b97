import { describe, expect, it } from 'vitest';
import { dbFromPower, dbFromRatio } from '#core/model/units/index.ts';
import { type Biquad, band, bell, filterInPlace, highPass, kWeighting, lowPass, responseDb } from './index.ts';

/** What sections do to a sine, dB: measured from their answer to it, after they have settled. */
function gainDb(sections: readonly Biquad[], hz: number, rate: number): number {
  const x = Float32Array.from({ length: rate }, (_, i) => Math.sin((2 * Math.PI * hz * i) / rate));
  const dry = x.slice(rate >> 1).reduce((p, v) => p + v * v, 0);
  filterInPlace(x, sections);
  return dbFromPower(x.slice(rate >> 1).reduce((p, v) => p + v * v, 0) / dry);
}

describe('filters', () => {
  it('are 3 dB down at their corner and 12 dB an octave beyond, at any rate', () => {
    for (const rate of [16_000, 44_100, 48_000, 96_000]) {
      expect(gainDb([highPass(300, rate)], 300, rate)).toBeCloseTo(-3.01, 1);
      expect(gainDb([highPass(300, rate)], 37.5, rate)).toBeCloseTo(-36.1, 0);
      expect(gainDb([lowPass(1000, rate)], 1000, rate)).toBeCloseTo(-3.01, 1);
      expect(gainDb([lowPass(1000, rate)], 100, rate)).toBeCloseTo(0, 1);
    }
  });
  it('are none where a band has no end', () => {
    expect(band(0, Number.POSITIVE_INFINITY, 48_000)).toEqual([]);
    expect(band(0, 24_000, 48_000)).toEqual([]);
    expect(band(300, 3000, 48_000)).toHaveLength(2);
  });
  it('do to a sine what their response says, within 0.05 dB', () => {
    for (const rate of [44_100, 48_000, 96_000])
      for (const hz of [60, 250, 1000, 2500, 6000, 12_000])
        for (const sections of [
          [highPass(80, rate)],
          [bell(2500, 3, 0.9, rate)],
          [bell(400, -6, 2, rate)],
          kWeighting(rate),
        ])
          expect(Math.abs(gainDb(sections, hz, rate) - responseDb(sections, hz, rate)), `${hz} Hz`).toBeLessThan(0.05);
  });
  it('are, at their own frequency, what they are called', () => {
    expect(responseDb([bell(2500, 3, 0.9, 48_000)], 2500, 48_000)).toBeCloseTo(3, 9);
    expect(responseDb([bell(2500, -7, 4, 48_000)], 2500, 48_000)).toBeCloseTo(-7, 9);
    // A bell of quality q is half its decibels wide by hz / q, as its analog has it where the rate is far.
    const [low, high] = [0.5, -0.5].map((s) => 1000 * (Math.sqrt(1 + 1 / 16) - s / 2)) as [number, number];
    for (const hz of [low, high]) expect(responseDb([bell(1000, 6, 2, 384_000)], hz, 384_000)).toBeCloseTo(3, 1);
    // Butterworth of second order: 10 log10(1 + (corner / f)^4).
    for (const hz of [20, 40, 80, 160])
      expect(responseDb([highPass(80, 48_000)], hz, 48_000)).toBeCloseTo(-10 * Math.log10(1 + (80 / hz) ** 4), 2);
  });
  it('weight as ITU-R BS.1770-5 has it at 48 kHz, to its last digit but two', () => {
    const [shelf, lowCut] = kWeighting(48_000);
    const wanted = [1.53512485958697, -2.69169618940638, 1.19839281085285, -1.69065929318241, 0.73248077421585];
    [shelf.b0, shelf.b1, shelf.b2, shelf.a1, shelf.a2].forEach((c, i) => {
      expect(c).toBeCloseTo(wanted[i]!, 12);
    });
    expect(lowCut.a1).toBeCloseTo(-1.99004745483398, 12);
    expect(lowCut.a2).toBeCloseTo(0.99007225036621, 12);
    expect([lowCut.b0, lowCut.b1, lowCut.b2]).toEqual([1, -2, 1]);
  });
  it('weight alike at other rates, from 40 Hz to 5 kHz', () => {
    const there = kWeighting(48_000);
    for (const rate of [32_000, 44_100, 96_000])
      for (const hz of [40, 100, 500, 1000, 2000, 5000])
        expect(Math.abs(gainDb(kWeighting(rate), hz, rate) - gainDb(there, hz, 48_000))).toBeLessThan(0.2);
    expect(dbFromRatio(1)).toBe(0);
  });
});
