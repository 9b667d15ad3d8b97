import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { LETTER_EM, layOut } from './page.ts';

const word = fc.string({ minLength: 1, maxLength: 30 }).map((s) => s.replace(/\s/g, 'x'));
const text = fc.array(word, { minLength: 1, maxLength: 24 }).map((words) => words.join(' '));
const place = fc.record({
  widthMm: fc.double({ min: 10, max: 190, noNaN: true }),
  heightMm: fc.double({ min: 3, max: 30, noNaN: true }),
  sizeMm: fc.double({ min: 2, max: 8, noNaN: true }),
});

describe('text in its place on a sheet', () => {
  it('is all there, within its width, and within its height unless that takes type that no one can read', () => {
    fc.assert(
      fc.property(text, place, (says, at) => {
        const { sizeMm, lines } = layOut(says, at);
        expect(lines.join('').replaceAll(' ', '')).toBe(says.replaceAll(' ', ''));
        for (const line of lines) expect([...line].length * sizeMm * LETTER_EM).toBeLessThanOrEqual(at.widthMm + 1e-6);
        expect(sizeMm).toBeLessThanOrEqual(at.sizeMm);
        if (sizeMm > 1.2 + 1e-9 && sizeMm < at.sizeMm)
          expect(lines.length * sizeMm * 1.15).toBeLessThanOrEqual(at.heightMm + 1e-6);
      }),
      { numRuns: 500 },
    );
  });
  it('is as large as it is wanted where there is room, and no smaller than it has to be', () => {
    expect(layOut('Mixer', { widthMm: 60, sizeMm: 3.4 })).toEqual({ sizeMm: 3.4, lines: ['Mixer'] });
    fc.assert(
      fc.property(text, place, (says, at) => {
        const { sizeMm } = layOut(says, at);
        if (sizeMm >= at.sizeMm) return;
        // One step larger it would not have fitted.
        const larger = layOut(says, { ...at, sizeMm: sizeMm + 0.1 });
        expect(larger.sizeMm).toBeLessThanOrEqual(sizeMm + 1e-9);
      }),
    );
  });
});
