import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import {
  add,
  airMs,
  contains,
  dbfsFromDbu,
  dbuFromDbfs,
  dbuFromDbv,
  dbuFromSpl,
  dbuFromVolts,
  dbvFromDbu,
  driftMs,
  exactly,
  type Figure,
  FRAME_RATES,
  framesFromMs,
  hertz,
  type Interval,
  interval,
  msFromFrames,
  msFromSamples,
  nearestRate,
  negate,
  negateFigure,
  rate,
  rateName,
  samplesFromMs,
  scale,
  subtract,
  sumFigures,
  voltsFromDbu,
  width,
} from './index.ts';

const anInterval = (): fc.Arbitrary<Interval> =>
  fc
    .tuple(
      fc.double({ min: -1e4, max: 1e4, noNaN: true }),
      fc.double({ min: 0, max: 500, noNaN: true }),
      fc.double({ min: 0, max: 500, noNaN: true }),
    )
    .map(([low, a, b]) => interval(low, low + a, low + a + b));
const inside = (i: Interval) => fc.double({ min: 0, max: 1, noNaN: true }).map((t) => i.low + t * (i.high - i.low));

describe('intervals', () => {
  it('hold every sum and difference of values inside them', () => {
    fc.assert(
      fc.property(
        fc
          .tuple(anInterval(), anInterval())
          .chain(([a, b]) => fc.tuple(fc.constant(a), fc.constant(b), inside(a), inside(b))),
        ([a, b, x, y]) => {
          const slack = 1e-6;
          const sum = add(a, b);
          expect(x + y).toBeGreaterThanOrEqual(sum.low - slack);
          expect(x + y).toBeLessThanOrEqual(sum.high + slack);
          const difference = subtract(a, b);
          expect(x - y).toBeGreaterThanOrEqual(difference.low - slack);
          expect(x - y).toBeLessThanOrEqual(difference.high + slack);
        },
      ),
    );
  });
  it('stay in order when turned or scaled by a negative factor', () => {
    fc.assert(
      fc.property(anInterval(), fc.double({ min: -5, max: 5, noNaN: true }), (a, k) => {
        const s = scale(a, k);
        expect(s.low).toBeLessThanOrEqual(s.nominal);
        expect(s.nominal).toBeLessThanOrEqual(s.high);
        expect(negate(negate(a))).toEqual(a);
      }),
    );
  });
  it('refuse what is not in order or not finite', () => {
    expect(() => interval(2, 1, 3)).toThrow(RangeError);
    expect(() => interval(0, 1, Number.POSITIVE_INFINITY)).toThrow(RangeError);
    expect(() => interval(Number.NaN, 1, 2)).toThrow(RangeError);
  });
  it('know their limits', () => {
    expect(contains(interval(1, 2, 3), 3)).toBe(true);
    expect(contains(interval(1, 2, 3), 3.01)).toBe(false);
    expect(width(exactly(4))).toBe(0);
  });
});

describe('decibels', () => {
  it('agree with the published values', () => {
    expect(dbuFromVolts(0.7746)).toBeCloseTo(0, 3);
    expect(dbuFromDbv(0)).toBeCloseTo(2.218, 3);
    expect(dbuFromDbv(-10)).toBeCloseTo(-7.78, 2);
    expect(dbuFromVolts(2)).toBeCloseTo(8.24, 2);
    expect(dbfsFromDbu(4, { fullScaleDbu: 24 })).toBe(-20);
    // A moving-coil microphone at 94 dB SPL gives its sensitivity.
    expect(dbuFromSpl(94, -55)).toBeCloseTo(dbuFromDbv(-55), 10);
  });
  it('come back from every scale', () => {
    fc.assert(
      fc.property(
        fc.double({ min: -140, max: 40, noNaN: true }),
        fc.double({ min: 4, max: 24, noNaN: true }),
        (dbu, full) => {
          expect(dbuFromVolts(voltsFromDbu(dbu))).toBeCloseTo(dbu, 9);
          expect(dbuFromDbv(dbvFromDbu(dbu))).toBeCloseTo(dbu, 9);
          expect(dbuFromDbfs(dbfsFromDbu(dbu, { fullScaleDbu: full }), { fullScaleDbu: full })).toBeCloseTo(dbu, 9);
        },
      ),
    );
  });
});

describe('time', () => {
  it('counts 59.94 frames exactly: an hour is 215784.2 frames and not one more', () => {
    const ntsc = rate(60000, 1001);
    expect(framesFromMs(3_600_000, ntsc)).toBeCloseTo(215784.2158, 3);
    expect(msFromFrames(60000, ntsc)).toBe(1_001_000);
    expect(rateName(ntsc)).toBe('59.94');
    expect(rateName(rate(24000, 1001))).toBe('23.976');
  });
  it('keeps ratios in lowest terms and refuses others', () => {
    expect(rate(120, 2)).toEqual({ num: 60, den: 1 });
    expect(() => rate(0)).toThrow(RangeError);
    expect(() => rate(29.97)).toThrow(RangeError);
  });
  it('finds the known rate near a measured one, and keeps an unknown one', () => {
    for (const known of FRAME_RATES) expect(nearestRate(hertz(known) * (1 + 1e-5))).toEqual(known);
    // 59.94 and 60 are a thousandth apart: not to be mixed up.
    expect(nearestRate(59.941)).toEqual(rate(60000, 1001));
    expect(hertz(nearestRate(17.5))).toBeCloseTo(17.5, 3);
  });
  it('comes back from frames and samples', () => {
    fc.assert(
      fc.property(fc.double({ min: -1e6, max: 1e6, noNaN: true }), fc.constantFrom(...FRAME_RATES), (ms, r) => {
        expect(msFromFrames(framesFromMs(ms, r), r)).toBeCloseTo(ms, 6);
        expect(msFromSamples(samplesFromMs(ms, 44100), 44100)).toBeCloseTo(ms, 6);
      }),
    );
  });
  it('knows how fast clocks and sound go', () => {
    expect(driftMs(50, 3_600_000)).toBeCloseTo(180, 9);
    expect(airMs(1)).toBeCloseTo(2.912, 3);
    expect(airMs(10, 0)).toBeCloseTo(30.18, 2);
  });
});

describe('figures', () => {
  const figure = (kind: Figure['kind'], low: number, nominal: number, high: number): Figure => ({
    label: kind,
    value: interval(low, nominal, high),
    unit: 'ms',
    kind,
    source: 'a test',
    terms: [],
  });
  it('are as doubtful as their least certain term', () => {
    const measured = figure('measured', 9, 10, 11);
    const typical = figure('typical', 0, 5, 20);
    const set = figure('set', 3, 3, 3);
    expect(sumFigures('sum', 'ms', [measured, set], 's').kind).toBe('measured');
    const sum = sumFigures('sum', 'ms', [measured, typical, set], 's');
    expect(sum.kind).toBe('typical');
    expect(sum.value).toEqual({ low: 12, nominal: 18, high: 34 });
    expect(sum.terms).toHaveLength(3);
  });
  it('do not become typical by a term that is nothing', () => {
    expect(sumFigures('sum', 'ms', [figure('set', 4, 4, 4), figure('typical', 0, 0, 0)], 's').kind).toBe('set');
    expect(sumFigures('sum', 'ms', [], 's')).toMatchObject({ kind: 'standard', value: exactly(0) });
  });
  it('turn with their terms', () => {
    const turned = negateFigure(sumFigures('sum', 'ms', [figure('typical', 1, 2, 4)], 's'));
    expect(turned.value).toEqual({ low: -4, nominal: -2, high: -1 });
    expect(turned.terms[0]!.value).toEqual({ low: -4, nominal: -2, high: -1 });
  });
});
