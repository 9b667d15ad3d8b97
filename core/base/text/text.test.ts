import { parse as parseDot } from '@ts-graphviz/ast';
import fc from 'fast-check';
import ICAL from 'ical.js';
import { marked } from 'marked';
import Papa from 'papaparse';
import { describe, expect, it } from 'vitest';
import { parseRig } from '#core/model/rig/index.ts';
import { rigToDot, slipListToEdl } from '#core/output/exchange/index.ts';
import { runToIcs, runToMarkdown } from '#core/output/sheets/index.ts';
import { boathouse } from '#demo/boathouse.ts';
import { csvOf, icsLine, icsText, markdown, plainLine } from './index.ts';

/** What someone may type, paste, or bring in a file. */
const hostile = fc.oneof(
  fc.constantFrom(
    '=1+1',
    '@SUM(A1)',
    '+1',
    '-2+3',
    '\t=1',
    '＝1',
    'a\rb',
    'a\r\nDTSTART:19700101T000000Z',
    '<img src=x onerror=alert(1)>',
    '<script>alert(1)</script>',
    '[a](javascript:alert(1))',
    '![a](x)',
    '&lt;b&gt;',
    '# head',
    '1. one',
    '- [x] done',
    'a"; b [label="c',
    'ends in \\',
    'bell\u0007 and null\u0000',
    '\u202eevil',
    'a\u2028b',
    '--> 00:00',
  ),
  fc.string({ unit: 'grapheme', maxLength: 60 }),
  fc.string({ unit: 'binary', maxLength: 60 }),
);
// biome-ignore lint/suspicious/noControlCharactersInRegex: what must not be there
const CONTROL = /[\u0000-\u001f\u007f-\u009f\u2028\u2029\u202a-\u202e\u2066-\u2069]/;

/** What RFC 5545 has room for: ends of lines of any kind, and no other controls. */
const asText = (text: string): string =>
  text
    // biome-ignore lint/suspicious/noControlCharactersInRegex: what the standard has no room for
    .replace(/[\u0000-\u0008\u000b\u000c\u000e-\u001f\u007f]/g, '')
    .replace(/\r\n?|\u2028|\u2029/g, '\n');

describe('text of a person in a file of ours, read by other programs', () => {
  it('is one line without controls', () => {
    fc.assert(fc.property(hostile, (text) => void expect(plainLine(text)).not.toMatch(CONTROL)));
    expect(plainLine('Couch, mic 1 – “left” 🎤')).toBe('Couch, mic 1 – “left” 🎤');
  });
  it('stands in CSV as it is, and is never a formula', () => {
    fc.assert(
      fc.property(
        fc.array(fc.array(hostile, { minLength: 2, maxLength: 4 }), { minLength: 1, maxLength: 4 }),
        (rows) => {
          const read = Papa.parse<string[]>(csvOf(rows), { delimiter: ',' });
          expect(read.data.slice(0, -1).map((r) => r.length)).toEqual(rows.map((r) => r.length));
          for (const [i, row] of read.data.slice(0, -1).entries())
            for (const [j, cell] of row.entries()) {
              if (!/^-?\d/.test(cell)) expect(cell).not.toMatch(/^\s*[=+\-@＝＋－＠]/);
              const given = rows[i]![j]!;
              if (/^[\w ]*$/.test(given)) expect(cell).toBe(given);
            }
        },
      ),
    );
    expect(csvOf([['=1', -2.5, '-2.5', 'a,"b"', 'x\r\ny']])).toBe(`'=1,-2.5,-2.5,"a,""b""","x\ny"\r\n`);
  });
  it('stands in a calendar, in its own property alone', () => {
    fc.assert(
      fc.property(hostile, hostile, (summary, description) => {
        const ics = [
          'BEGIN:VCALENDAR',
          'VERSION:2.0',
          'PRODID:-//x//EN',
          'BEGIN:VEVENT',
          'UID:1',
          `SUMMARY:${icsText(summary)}`,
          `DESCRIPTION:${icsText(description)}`,
          'END:VEVENT',
          'END:VCALENDAR',
        ]
          .map(icsLine)
          .join('');
        expect(ics.replace(/\r\n/g, '')).not.toMatch(/[\r\n]/);
        const event = new ICAL.Component(ICAL.parse(ics)).getFirstSubcomponent('vevent')!;
        expect(event.getAllProperties().map((p) => p.name)).toEqual(['uid', 'summary', 'description']);
        expect(event.getFirstPropertyValue('summary')).toBe(asText(summary));
      }),
    );
  });
  it('is words in Markdown: no HTML, no link, no head of its own', () => {
    fc.assert(
      fc.property(hostile, (text) => {
        const tokens = marked.lexer(`- [ ] ${markdown(text)}\n`);
        const kinds = new Set<string>();
        marked.walkTokens(tokens, (t) => void kinds.add(t.type));
        for (const kind of ['html', 'link', 'image', 'heading', 'code', 'codespan', 'table', 'hr'])
          if (!/(https?:|www\.|@)/.test(text)) expect(kinds).not.toContain(kind);
        expect(marked.parse(`${markdown(text)}\n`) as string).not.toMatch(
          /<(?!\/?(p|ul|ol|li|em|strong|a|br)\b)[a-z!/]/i,
        );
      }),
    );
  });
});

describe('a rig whose names are hostile', () => {
  const name = '=cmd|x\r\nBEGIN:VEVENT\u0007 "]; <b>\u202e';
  const rig = parseRig({
    ...boathouse,
    name,
    devices: boathouse.devices.map((d, i) => (i === 0 ? { ...d, name } : d)),
  });
  it('has names on one line', () => {
    expect(rig.name).not.toMatch(CONTROL);
    expect(rig.name).toContain('BEGIN:VEVENT');
  });
  it('is a graph of as many devices and cables as it has', () => {
    const [graph] = parseDot(rigToDot({ ...rig, name })).children.filter((c) => c.type === 'Graph');
    const kinds = (graph as { children: { type: string }[] }).children.map((c) => c.type);
    expect(kinds.filter((k) => k === 'Node')).toHaveLength(rig.devices.length);
    expect(kinds.filter((k) => k === 'Edge')).toHaveLength(rig.cables.length);
  });
  it('is a run sheet with as many boxes to tick as steps, and a calendar of as many events as parts', () => {
    const step = { id: 'a', says: name, why: name, cautions: [], kind: 'plug' } as never;
    const day = {
      title: name,
      steps: [step, { ...(step as object), id: 'b' } as never],
      checks: [],
      down: [],
      ticks: {},
      downTicks: {},
    };
    const tasks: unknown[] = [];
    marked.walkTokens(marked.lexer(runToMarkdown(day)), (t) => {
      if (t.type === 'list_item' && t.task) tasks.push(t);
      expect(t.type).not.toBe('html');
    });
    expect(tasks).toHaveLength(2);
    const ics = runToIcs({ ...day, name, startsAt: new Date(0), hours: 2, now: new Date('2026-11-29T12:00:00Z') });
    expect(new ICAL.Component(ICAL.parse(ics)).getAllSubcomponents('vevent')).toHaveLength(2);
  });
  it('is an EDL of lines that each say what they are', () => {
    const edl = slipListToEdl({
      title: name,
      frameRate: { num: 25, den: 1 },
      items: [{ name, fileName: name, durationMs: 1000, moveMs: 0, longerPpm: 0, sampleRateHz: 48_000 }],
    });
    for (const line of edl.split('\r\n')) expect(line).toMatch(/^(TITLE: |FCM: |\* |\d{3} {2}|$)/);
    expect(edl.replace(/\r\n/g, '')).not.toMatch(CONTROL);
  });
});
