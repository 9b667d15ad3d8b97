import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { interval, width } from '#core/model/units/index.ts';
import type { DelayTerm } from './graph.ts';
import { delayMeasurements, difference, type Measurements, settle, settleDelay, uncertain } from './offset.ts';

const term = (key: string, low: number, nominal: number, high: number): DelayTerm => ({
  key,
  label: key,
  ms: interval(low, nominal, high),
  kind: low === high ? 'standard' : 'typical',
  source: 'a test',
});
type Measured = Measurements[number];
const measured = (id: string, mean: number, signs: Record<string, 1 | -1>, more: Partial<Measured> = {}): Measured => ({
  kind: 'delay',
  id,
  label: id,
  takenAt: '2026-11-25T10:00:00Z',
  sourceId: 's',
  listenerId: 'l',
  terms: Object.entries(signs).map(([figure, sign]) => ({ figure, sign })),
  ms: { mean, sd: 1, count: 4 },
  offsetMs: mean,
  ...more,
});
const mic = term('camera.sound', 10, 40, 80);
const lens = term('camera.picture', 33, 50, 67);
const air = term('air', 4.4, 4.4, 4.4);
const call = term('call', 40, 120, 400);

describe('audio minus video', () => {
  it('loses what both go through, however uncertain it is', () => {
    const terms = difference([air, mic, call], [lens, call]);
    expect(terms.map((t) => [t.term.key, t.count])).toEqual([
      ['air', 1],
      ['camera.sound', 1],
      ['camera.picture', -1],
    ]);
    expect(uncertain(terms).map((t) => t.term.key)).toEqual(['camera.sound', 'camera.picture']);
    // Gone through twice on one side, once on the other: once is left.
    expect(difference([call, call], [call])).toEqual([{ term: call, count: 1 }]);
  });
  it('is the sum of its terms, its spread the sum of theirs', () => {
    const figure = settle([], 'offset', difference([air, mic], [lens]));
    expect(figure.value).toEqual({ low: 4.4 + 10 - 67, nominal: 4.4 + 40 - 50, high: 4.4 + 80 - 33 });
    expect(figure.kind).toBe('typical');
    expect(figure.terms).toHaveLength(3);
  });
  it('knows two terms that are uncertain together by their difference, unless a take has said it', () => {
    const beside = { key: 'camera.sound', ms: interval(-16.7, 10, 16.7), source: 'one link' };
    const picture = { ...lens, beside };
    const figure = settle([], 'offset', difference([air, mic], [picture]));
    expect(figure.value.nominal).toBeCloseTo(4.4 - 10, 9);
    expect(figure.value.low).toBeCloseTo(4.4 - 16.7, 9);
    expect(figure.value.high).toBeCloseTo(4.4 + 16.7, 9);
    // Alone, or on one side both, they are as uncertain as ever.
    expect(settle([], 'delay', difference([picture], [])).value).toEqual(lens.ms);
    expect(width(settle([], 'both', difference([picture, mic], [])).value)).toBeCloseTo(34 + 70, 9);
    const take = measured('clap', -12, { 'camera.sound': 1, 'camera.picture': -1 });
    expect(settle([take], 'offset', difference([air, mic], [picture])).value.nominal).toBeCloseTo(4.4 - 12);
  });
  it('takes a measured sum for its terms, in either direction, and only where all of them stand', () => {
    const take = measured('clap', -12, { 'camera.sound': 1, 'camera.picture': -1 });
    const sound = settle([take], 'offset', difference([air, mic], [lens]));
    expect(sound.value.nominal).toBeCloseTo(4.4 - 12);
    expect(width(sound.value)).toBeCloseTo(4);
    expect(sound.kind).toBe('measured');
    // Picture minus sound: the same take, counted the other way.
    expect(settle([take], 'offset', difference([lens], [mic])).value.nominal).toBeCloseTo(12);
    // The sound alone is still what it was: a take knows the difference only.
    expect(settle([take], 'delay', difference([mic], [])).value).toEqual(mic.ms);
  });
  it('counts a measured figure as often as its terms stand there', () => {
    const take = measured('trip', 150, { call: 1 });
    expect(settle([take], 'there and back', difference([call, call], [])).value.nominal).toBe(150 + 120);
  });
  it('hears the newest take first, of one moment the one that says most', () => {
    const old = measured('old', 1, { call: 1 }, { takenAt: '2026-11-24T10:00:00Z' });
    const wide = measured('wide', 2, { call: 1, 'camera.sound': 1 });
    const narrow = measured('narrow', 3, { call: 1 });
    const drift = {
      ...measured('drift', 0, { call: 1 }),
      kind: 'drift' as const,
      deviceId: 'a',
      againstDeviceId: 'b',
      ppm: { mean: 1, sd: 1, count: 1 },
    };
    const { terms: _, ms: __, offsetMs: ___, sourceId: ____, listenerId: _____, ...asDrift } = drift;
    const sorted = delayMeasurements([old, asDrift, narrow, wide]);
    expect(sorted.map((m) => m.id)).toEqual(['wide', 'narrow', 'old']);
    expect(settle(sorted, 'delay', difference([call, mic], [])).value.nominal).toBe(2);
    expect(settle(sorted, 'delay', difference([call], [])).value.nominal).toBe(3);
  });
  it('never grows wider by a take, and is what the take says where it covers everything', () => {
    const aTerm = fc
      .tuple(fc.constantFrom('a', 'b', 'c', 'd'), fc.integer({ min: 0, max: 50 }), fc.integer({ min: 1, max: 50 }))
      .map(([key, low, span]) => ({ ...term(key, low, low + span / 2, low + span), ms: interval(5, 30, 60) }));
    fc.assert(
      fc.property(
        fc.array(aTerm, { maxLength: 6 }),
        fc.array(aTerm, { maxLength: 6 }),
        fc.integer({ min: -200, max: 200 }),
        (plus, minus, mean) => {
          const terms = difference(plus, minus);
          fc.pre(terms.length > 0 && terms.every((t) => Math.abs(t.count) === 1));
          const signs = Object.fromEntries(terms.map((t) => [t.term.key, t.count as 1 | -1]));
          const take = measured('m', mean, signs);
          expect(settle([take], '', terms).value.nominal).toBeCloseTo(mean);
          const fewer = Object.fromEntries(Object.entries(signs).slice(0, 1));
          const some = settle([measured('m', mean, fewer)], '', terms);
          expect(width(some.value)).toBeLessThanOrEqual(width(settle([], '', terms).value));
        },
      ),
    );
  });
  it('says so where nothing takes time', () => {
    expect(settleDelay([], 'delay', [])).toMatchObject({ value: { low: 0, nominal: 0, high: 0 }, kind: 'standard' });
  });
});
