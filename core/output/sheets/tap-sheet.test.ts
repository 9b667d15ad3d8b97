import { describe, expect, it } from 'vitest';
import { PAPERS, type Paper, type TapRow, tapSheet } from './index.ts';

const rows: TapRow[] = Array.from({ length: 16 }, (_, i) => ({
  source: `Source ${i + 1} & its very long name that goes on and on`,
  tune: i + 1,
  at: `Box <${i + 1}> with a name that is far longer than the paper is wide, surely`,
}));
const before = Array.from({ length: 8 }, (_, i) => `Question ${i + 1}: ${'so it is, '.repeat(20)}`);

describe.each(Object.keys(PAPERS) as Paper[])('the sheet of a tap test on %s', (paper) => {
  const sheet = tapSheet(rows, before, paper);
  it('has every source with its tune, every question with a box, and stays on the paper', () => {
    for (const row of rows) expect(sheet).toContain(`>${row.tune}</text>`);
    expect(sheet.match(/<rect/g)!.length).toBeGreaterThanOrEqual(rows.length + before.length);
    const ys = [...sheet.matchAll(/<text x="[\d.]+" y="([\d.]+)"/g)].map((m) => Number(m[1]));
    expect(Math.max(...ys)).toBeLessThan(PAPERS[paper].heightMm - 5);
  });
  it('says in which order to press, and is whole XML whatever names hold', () => {
    expect(sheet).toContain('sheets.pressPlayEverywhereWithin');
    expect(sheet).not.toContain('& its');
    expect(sheet).not.toMatch(/<\d+>/);
  });
});
