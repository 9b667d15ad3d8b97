import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { clockOf, knobDb, type LevelUnit, type Reading, readingsOf, readLevel } from './index.ts';

const R68 = { fullScaleDbu: 18 };
const told = (text: string, reference = R68): Record<LevelUnit, number> => {
  const typed = readLevel(text);
  if (typed?.kind !== 'level') throw new Error(`'${text}' is no level`);
  return Object.fromEntries(readingsOf(typed, reference).map((r: Reading) => [r.unit, r.value])) as Record<
    LevelUnit,
    number
  >;
};

describe('a level in all scales', () => {
  it('is what the standards say', () => {
    expect(told('+4 dBu')).toMatchObject({ VU: 0, dBFS: -14 });
    expect(told('+4 dBu').V).toBeCloseTo(1.228, 3);
    expect(told('0 VU', { fullScaleDbu: 24 }).dBFS).toBe(-20);
    expect(told('-10 dBV').dBu).toBeCloseTo(-7.78, 2);
    expect(told('1 V').dBV).toBeCloseTo(0, 9);
    expect(told('775 mV').dBu).toBeCloseTo(0, 1);
    expect(told('50 %').dBFS).toBeCloseTo(-6.02, 2);
    expect(told('-23 LUFS').dBTP).toBe(-23);
    expect(told('−18,5 dBFS').dBFS).toBe(-18.5);
  });
  it('comes back from every scale as it was', () => {
    fc.assert(
      fc.property(
        fc.double({ min: -60, max: 24, noNaN: true }),
        fc.double({ min: 10, max: 26, noNaN: true }),
        (dbu, fs) => {
          const reference = { fullScaleDbu: fs };
          for (const { unit, value } of readingsOf({ kind: 'level', value: dbu, unit: 'dBu' }, reference)) {
            const back = readingsOf({ kind: 'level', value, unit }, reference)[0]!;
            expect(back.value).toBeCloseTo(dbu, 6);
          }
        },
      ),
    );
  });
  it('is refused where it is none', () => {
    for (const text of ['', 'loud', '4', '0 V', '-3 %', '4 dBx', '13 o’clock', 'six o’clock', 'zero oclock'])
      expect(readLevel(text), text).toBeNull();
  });
});

describe('a knob', () => {
  it('runs from seven o’clock by twelve to five', () => {
    const travel = (text: string) => {
      const typed = readLevel(text);
      return typed?.kind === 'knob' ? typed.travel : null;
    };
    expect([travel("7 o'clock"), travel('twelve o’clock'), travel("5 o'clock"), travel("one o'clock")]).toEqual([
      0, 0.5, 1, 0.6,
    ]);
    expect(travel("12:30 o'clock")).toBeCloseTo(0.55, 9);
    expect([0, 0.5, 0.55, 0.6, 1].map(clockOf)).toEqual([
      '7 o’clock',
      '12 o’clock',
      '12:30 o’clock',
      '1 o’clock',
      '5 o’clock',
    ]);
  });
  it('stands 12 to 20 dB below its maximum at half its travel, and at it when all the way up', () => {
    expect(knobDb(0.5).map((db) => Math.round(db))).toEqual([-20, -15, -12]);
    expect(knobDb(1).every((db) => db === 0 || Object.is(db, -0))).toBe(true);
    const [low, nominal, high] = knobDb(0.25);
    expect(low).toBeLessThan(nominal);
    expect(nominal).toBeLessThan(high);
  });
});
