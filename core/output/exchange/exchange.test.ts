import { csvFormatRows, csvParseRows } from 'd3-dsv';
import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { type Said, textOf } from '#core/base/said/index.ts';
import { applyEdit, parseRig, type Rig } from '#core/model/rig/index.ts';
import { shoppingList } from '#core/routing/variants/index.ts';
import { numberedLeads } from '#core/rules/index.ts';
import { boathouse } from '#demo/boathouse.ts';
import { CsvError, leadsFromCsv, leadsToCsv, rigToDot } from './index.ts';

const rig = parseRig(JSON.parse(JSON.stringify(boathouse)));
const HEAD = 'lead,from device,from port,to device,to port,medium,length m,known';
const withRows = (...rows: string[]) => leadsFromCsv(rig, [HEAD, ...rows].join('\r\n'));
const applied = (r: Rig, text: string): Rig => {
  const { edit } = leadsFromCsv(r, text);
  if (!edit) return r;
  const done = applyEdit(r, edit);
  if (!done.ok) throw new Error(textOf(done.refusal.reason));
  return done.rig;
};

describe('leads as CSV', () => {
  it('come back as they went', () => {
    const read = leadsFromCsv(rig, leadsToCsv(rig));
    expect(read.edit).toBeNull();
    expect(read.rows.every((r) => r.ok && (r.says as Said).code === 'exchange.unchanged')).toBe(true);
    expect(read.rows).toHaveLength(rig.cables.filter((c) => c.medium === 'lead').length);
  });
  it('are read by people: names, what each takes, its number; and come back from that alone where names are not shared', () => {
    const [head, ...rows] = csvParseRows(leadsToCsv(rig));
    const column = (row: readonly string[], name: string) => row[head!.indexOf(name)]!;
    const names = new Set(rig.devices.map((d) => d.name));
    // By the numbers that are on the labels.
    const numbers = new Map(numberedLeads(rig).map(({ number, lead }) => [lead.cable.id, String(number)]));
    rows.forEach((row) => {
      expect(column(row, 'cable')).toBe(numbers.get(column(row, 'id')) ?? '');
      expect(names.has(column(row, 'from device'))).toBe(true);
      expect(names.has(column(row, 'to device'))).toBe(true);
    });
    // What a cable is, is filled in wherever something fits.
    expect(rows.filter((row) => column(row, 'takes') !== '').length).toBeGreaterThan(rows.length * 0.8);
    const last = head!.indexOf('channels') + 1;
    const named = leadsFromCsv(rig, csvFormatRows([head!, ...rows].map((row) => row.slice(0, last))));
    const codes = named.rows.map((r) => (r.says as Said).code);
    expect(codes.every((code) => code === 'exchange.unchanged' || code === 'exchange.severalAreCalled')).toBe(true);
    expect(codes.filter((code) => code === 'exchange.unchanged').length).toBeGreaterThan(rows.length / 2);
    expect(named.edit).toBeNull();
  });
  it('are plugged where a name was changed to, whatever the ids beside it say', () => {
    const table = leadsToCsv(rig);
    const moved = table.replace('Couch camera,HDMI,Camera capture,HDMI in', 'Couch camera,HDMI,Big screen,HDMI in');
    expect(moved).not.toBe(table);
    const { cables } = applied(rig, moved);
    expect(cables.some((c) => c.from.deviceId === 'camera' && c.to.deviceId === 'big-screen')).toBe(true);
  });
  it('bring other lengths and new leads, in any order of columns, with a comma or a point', () => {
    fc.assert(
      fc.property(fc.integer({ min: 0, max: 9999 }), fc.boolean(), (hundredths, comma) => {
        const length = String(hundredths / 100).replace('.', comma ? ',' : '.');
        const text = `to port,to device,from port,from device,length m\nhdmi,camera-capture,hdmi,camera,"${length}"\n`;
        expect(applied(rig, text).cables.find((c) => c.id === 'camera-hdmi')!.lengthM).toBe(hundredths / 100);
      }),
    );
    const read = withRows('Spare lead!,phone,jack,mixer,strip-5-6,lead,2,seen');
    expect(read.rows).toMatchObject([
      { line: 2, ok: true, says: { code: 'exchange.connected', params: { id: 'spare-lead' } } },
    ]);
  });
  it('bring parts and channels along, and leave what is not written', () => {
    const parts = ['lead-xlr-f-xlr-m'];
    const map = [{ from: 'left', to: 'right' }];
    const rich: Rig = {
      ...rig,
      cables: rig.cables.map((c) =>
        c.id === 'wren-xlr'
          ? { ...c, parts }
          : c.id === 'phone-line'
            ? { ...c, map }
            : c.id === 'camera-hdmi'
              ? { ...c, parts: [] }
              : c,
      ),
    };
    const back = applied(rig, leadsToCsv(rich));
    for (const id of ['wren-xlr', 'phone-line', 'camera-hdmi'])
      expect(back.cables.find((c) => c.id === id)).toEqual({
        ...rich.cables.find((c) => c.id === id),
        known: 'confirmed',
      });
    expect(leadsFromCsv(rich, leadsToCsv(rig)).edit).toBeNull();
    const said = leadsFromCsv(
      rig,
      [
        `${HEAD},parts,channels`,
        ',camera,hdmi,camera-capture,hdmi,lead,2,seen,a-string,',
        ',camera,hdmi,camera-capture,hdmi,lead,2,seen,,left',
      ].join('\n'),
    ).rows.map((r) => r.says);
    expect(said.map(textOf)).toEqual(['exchange.isNotCableOr(a-string)', 'exchange.namesNoChannelsWrite(left)']);
  });
  it('are reported row by row; what is good is taken, the rest is left', () => {
    const read = withRows(
      ',camera,hdmi,camera-capture,hdmi,lead,2.5,seen',
      '',
      ',nobody,hdmi,camera-capture,hdmi,lead,1,seen',
      ',camera,hdmi,camera-capture,nowhere,lead,1,seen',
      ',camera,hdmi,camera-capture,hdmi,lead,long,seen',
      ',camera,hdmi,camera-capture,hdmi,string,1,seen',
      ',camera-capture,hdmi,camera,hdmi,lead,1,seen',
    );
    expect(read.rows.map((r) => [r.line, r.ok])).toEqual([
      [2, true],
      [4, false],
      [5, false],
      [6, false],
      [7, false],
      [8, false],
    ]);
    expect(read.rows.slice(1, 5).map((r) => textOf(r.says))).toEqual([
      'exchange.thereIsNoDevice(nobody)',
      'exchange.hasNoPort(Camera capture, nowhere)',
      'exchange.isNotLengthIn(long)',
      'exchange.isntValidConnectionType(string, cable, radio)',
    ]);
    expect(read.edit).toMatchObject({
      kind: 'batch',
      edits: [{ kind: 'unplug' }, { kind: 'plug', cable: { lengthM: 2.5, known: 'confirmed' } }],
    });
  });
  it('that are no table of leads are refused with what to do', () => {
    expect(() => leadsFromCsv(rig, 'a,b\n1,2')).toThrow(CsvError);
    expect(() => leadsFromCsv(rig, '')).toThrow(/tableHasNoColumn\(.*from device/);
    const many = [HEAD, ...new Array(100_000).fill(',camera,hdmi,camera-capture,hdmi,lead,1,seen')].join('\n');
    expect(() => leadsFromCsv(rig, many)).toThrow(/\(100000, 2500\)/);
  });
  it('never crash on any text', () => {
    fc.assert(
      fc.property(fc.string(), (text) => {
        try {
          leadsFromCsv(rig, `${HEAD}\n${text}`);
        } catch (error) {
          expect(error).toBeInstanceOf(CsvError);
        }
      }),
    );
  });
});

describe('other papers', () => {
  it('list what to have, each kind once, with every length', () => {
    const list = shoppingList(rig);
    expect(list.map((i) => i.name)).toEqual(
      [...list.map((i) => i.name)].sort((a, b) => textOf(a).localeCompare(textOf(b), 'en')),
    );
    expect(list.find((i) => textOf(i.name) === 'plug.cableTo(HDMI, HDMI)')).toEqual({
      name: expect.anything(),
      count: 5,
      lengthsM: [1, 1, 1, 1.5, 2],
      price: [5, 20],
    });
  });
  it('draw the graph for Graphviz, whatever the names hold', () => {
    const dot = rigToDot({ ...rig, name: 'a "rig"\\' });
    expect(dot.startsWith('digraph "a \\"rig\\"\\\\" {\n')).toBe(true);
    expect(dot).toContain('"camera" -> "camera-capture" [label="hdmi > hdmi, 2 m"];');
    expect(dot.match(/->/g)).toHaveLength(rig.cables.length);
    expect(dot.endsWith('}\n')).toBe(true);
  });
});
