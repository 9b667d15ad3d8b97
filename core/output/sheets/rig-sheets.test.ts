import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { parseRig } from '#core/model/rig/index.ts';
import { desk } from '#core/rules/check.testkit.ts';
import { numberedLeads } from '#core/rules/index.ts';
import { evaluate } from '#core/signal/index.ts';
import { boathouse } from '#demo/boathouse.ts';
import { clapSheet, labelSheets, mapSheet, PAPERS, type Paper, settingsSheets, wiringSheets } from './index.ts';

const rig = parseRig(JSON.parse(JSON.stringify(boathouse)));
const count = (text: string, what: RegExp) => text.match(what)?.length ?? 0;

/** Every tag is closed, in order: XML enough for whoever prints it. */
function isWellFormed(svg: string): boolean {
  const open: string[] = [];
  for (const [, close, name, self] of svg.matchAll(/<(\/?)([a-z]+)[^<>]*?(\/?)>/g)) {
    if (self) continue;
    if (close) {
      if (open.pop() !== name) return false;
    } else open.push(name!);
  }
  return open.length === 0 && !/&(?!amp;|lt;|gt;|quot;)/.test(svg);
}

describe.each(Object.keys(PAPERS) as Paper[])('on %s', (paper) => {
  const { widthMm, heightMm } = PAPERS[paper];
  it('every lead has a label for either end, within the sheet', () => {
    const sheets = labelSheets(rig, paper);
    const all = sheets.join('');
    expect(count(all, /<rect/g)).toBe(2 * numberedLeads(rig).length);
    for (const sheet of sheets) {
      expect(sheet).toContain(`width="${widthMm}mm" height="${heightMm}mm"`);
      for (const [, x, y] of sheet.matchAll(/translate\(([\d.]+) ([\d.]+)\)/g)) {
        expect(Number(x) + 60).toBeLessThanOrEqual(widthMm);
        expect(Number(y) + 17).toBeLessThanOrEqual(heightMm);
      }
      expect(isWellFormed(sheet)).toBe(true);
    }
  });
  it('the wiring lists every lead once, with what to take and a box to tick', () => {
    const all = wiringSheets(rig, paper).join('');
    expect(count(all, /<rect/g)).toBe(numberedLeads(rig).length);
    expect(all).toContain('plug.cableTo(plug.xlrF, plug.xlrM)');
    expect(all).toContain('sheets.sheetOf(1, ');
    expect(wiringSheets(desk({}, []), paper)).toHaveLength(1);
  });
  it('the settings sheet has every setting that stands, knobs with their hand at the hour, within the sheet', () => {
    const sheets = settingsSheets(rig, paper);
    const all = sheets.join('');
    const stands = rig.devices.reduce((sum, d) => sum + Object.keys(d.settings).length, 0);
    expect(count(all, /<g transform/g)).toBe(stands);
    for (const sheet of sheets) {
      expect(isWellFormed(sheet)).toBe(true);
      for (const [, x, y] of sheet.matchAll(/translate\(([\d.]+) ([\d.]+)\)/g)) {
        expect(Number(x) + 31).toBeLessThanOrEqual(widthMm - 9);
        expect(Number(y) + 24).toBeLessThanOrEqual(heightMm - 9);
      }
    }
    // 58 of 60 dB: nearly five o'clock, the hand down to the right; a mute that is off is an empty box.
    const hand =
      /Channel 1, gain<\/text><circle cx="([\d.]+)" cy="([\d.]+)"[^>]*\/><path d="M[\d. ]+L([\d.]+) ([\d.]+)"/.exec(
        all,
      )!;
    expect(Number(hand[3])).toBeGreaterThan(Number(hand[1]));
    expect(Number(hand[4])).toBeGreaterThan(Number(hand[2]));
    expect(all).toMatch(/Input 1, mute<\/text><rect [^>]*fill="none"/);
    expect(settingsSheets(desk({}, []), paper)).toHaveLength(1);
  });
  it('a clap sheet has its board, its steps and the takes that are known, within the sheet', () => {
    const rows = [
      { path: 'Wren at Stream', setting: 'Mixer 128 ms' },
      { path: 'A <very> long name '.repeat(9), setting: '' },
    ];
    const sheet = clapSheet(paper, rows);
    expect(isWellFormed(sheet)).toBe(true);
    expect(sheet).toContain('Wren at Stream');
    expect(sheet).toContain('Mixer 128 ms');
    // All of a long name is there, smaller and on more lines.
    expect(sheet.match(/very&gt;/g)).toHaveLength(9);
    expect(sheet).not.toContain('…');
    const board = Number(sheet.match(/<rect x="0" y="0" width="([\d.]+)"/)![1]);
    expect(12 + board).toBeLessThanOrEqual(widthMm - 12);
    // The list's last line stands above the last words.
    const lowest = Math.max(...[...sheet.matchAll(/<polyline points="0,(\d+)/g)].map(([, y]) => Number(y)));
    expect(128 + lowest).toBeLessThan(heightMm - 14);
    expect(isWellFormed(clapSheet(paper))).toBe(true);
  });
  it('the map lies across the sheet and fits it', () => {
    const sheet = mapSheet(rig, evaluate(rig), paper);
    expect(sheet).toContain(`width="${heightMm}mm" height="${widthMm}mm"`);
    expect(count(sheet, /<polyline/g)).toBeGreaterThan(40);
    expect(isWellFormed(sheet)).toBe(true);
  });
});

describe('names on paper', () => {
  it('may be anything', () => {
    fc.assert(
      fc.property(fc.string({ minLength: 1, maxLength: 60 }), (name) => {
        const odd = { ...rig, name: `x${name}`, devices: rig.devices.map((d) => ({ ...d, name: `x${name}` })) };
        for (const sheet of [...wiringSheets(odd, 'a4'), ...labelSheets(odd, 'a4').slice(0, 1)])
          expect(isWellFormed(sheet)).toBe(true);
      }),
      { numRuns: 40 },
    );
  });
});
