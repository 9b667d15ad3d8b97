import { describe, expect, it } from 'vitest';
import {
  catalogue,
  type DeviceType,
  isHardware,
  parseDeviceType,
  purposesOf,
  type Stage,
  typesWithPurpose,
} from './index.ts';
import { typeTroubles } from './references.ts';

type FigureSpec = DeviceType['figures'][string];

/** In which scale a level class is read; kept apart from the program's own table on purpose. */
const SCALE: Record<string, string> = {
  air: 'spl',
  microphone: 'dbu',
  line: 'dbu',
  headphone: 'dbu',
  speaker: 'dbu',
  digital: 'dbfs',
  software: 'dbfs',
  light: 'picture',
};

function scaleAfter(scale: string, stage: Stage): string {
  if (stage.do === 'hear') return scale === 'spl' ? 'dbu' : 'wrong';
  if (stage.do === 'radiate') return scale === 'dbu' ? 'spl' : 'wrong';
  if (stage.do === 'convert')
    return stage.to === 'digital' ? (scale === 'dbu' ? 'dbfs' : 'wrong') : scale === 'dbfs' ? 'dbu' : 'wrong';
  return scale;
}

describe.each(catalogue.map((type) => [type.id, type] as const))('the type %s', (_, type: DeviceType) => {
  it('is data that can be exported and read again', () => {
    expect(parseDeviceType(JSON.parse(JSON.stringify(type)))).toEqual(type);
    expect(typeTroubles(type, '')).toEqual([]);
  });
  it('ends every way in the scale of the port it leads to', () => {
    const port = (place: string) => type.ports.find((p) => p.id === place.split('.')[0])!;
    for (const way of type.inside) {
      const carries = (place: string) => port(place).channels.find((c) => c.id === place.split('.')[1])!.carries;
      expect(carries(way.from), `${way.from} to ${way.to}`).toBe(carries(way.to));
      if (carries(way.from) === 'picture') continue;
      const end = way.stages.reduce(scaleAfter, SCALE[port(way.from).level]!);
      expect(end, `${way.from} to ${way.to}`).toBe(SCALE[port(way.to).level]);
    }
  });
  it('leads somewhere: no input without a way on, no figure or setting that nothing uses', () => {
    const starts = new Set(type.inside.map((w) => w.from.split('.')[0]));
    const ends = new Set(type.inside.map((w) => w.to.split('.')[0]));
    const isEnd = type.nature === 'person' || type.inside.length === 0;
    for (const p of type.ports) {
      if (p.direction === 'in' && !isEnd && p.channels.some((c) => c.carries === 'sound'))
        expect(starts, p.id).toContain(p.id);
      if (p.direction === 'out' && !isEnd && !['game', 'music'].includes(p.does ?? ''))
        expect(ends, p.id).toContain(p.id);
    }
    const stages = type.inside.flatMap((w) => w.stages);
    for (const id of Object.keys(type.figures))
      expect(
        stages.some((s) => s.do === 'latency' && s.figure === id),
        id,
      ).toBe(true);
    // What no stage needs, but rules read.
    const read = ['sample-rate', 'processing'];
    const named = type.ports.flatMap(({ gives, picture }) => [
      gives?.setting,
      picture?.sends?.mode,
      picture?.sends?.bits,
      picture?.protects,
      picture?.soundFormat,
      picture?.overlays,
    ]);
    for (const s of type.settings.filter((own) => own.kind !== 'value'))
      expect(
        stages.some((st) => 'setting' in st && st.setting === s.id) ||
          named.includes(s.id) ||
          read.includes(s.id) ||
          type.power?.supply === s.id,
        s.id,
      ).toBe(true);
  });
  it('states typical figures as ranges that hold more than one value, or nothing at all', () => {
    for (const figure of Object.values(type.figures)) {
      const [low, nominal, high] = figure.range;
      expect(low).toBeLessThanOrEqual(nominal);
      if (figure.kind === 'typical') expect(high).toBeGreaterThan(low);
      expect(figure.source).not.toBe('');
    }
  });
});

describe('the catalogue', () => {
  it('has each id once, and what desks hold', () => {
    expect(new Set(catalogue.map((t) => t.id)).size).toBe(catalogue.length);
    expect(catalogue.length).toBeGreaterThanOrEqual(130);
  });
  it('says of types that are there what they are for', () => {
    const ids = new Set(catalogue.map((t) => t.id));
    expect(typesWithPurpose().filter((id) => !ids.has(id))).toEqual([]);
    expect(typesWithPurpose().length).toBeGreaterThan(50);
    expect(purposesOf('hdmi-extractor').join()).toContain('get hdmi sound out');
    expect(purposesOf('nothing')).toEqual([]);
  });
  it('states of every box what it costs and how it is fed', () => {
    for (const type of catalogue.filter(isHardware)) {
      expect(type.priceEur, type.id).toBeDefined();
      expect(type.priceEur![0], type.id).toBeLessThanOrEqual(type.priceEur![1]);
      expect(type.power, type.id).toBeDefined();
    }
  });
  it('knows the difference of two figures better than either, and around the same middle', () => {
    const pairs = catalogue.flatMap((type) => (type.together ?? []).map((t) => ({ type, ...t })));
    expect(pairs.length).toBeGreaterThan(8);
    for (const { type, figures, differs } of pairs) {
      const [a, b] = figures.map((f) => type.figures[f]!) as [FigureSpec, FigureSpec];
      expect(a.unit, type.id).toBe(b.unit);
      expect(differs[1], `${type.id}, ${figures}`).toBeCloseTo(a.range[1] - b.range[1], 9);
      // Narrower than if the two knew nothing of each other.
      expect(differs[0]).toBeGreaterThanOrEqual(a.range[0] - b.range[2]);
      expect(differs[2]).toBeLessThan(a.range[2] - b.range[0]);
    }
  });
  it('puts behind one socket only ends of one connector', () => {
    for (const type of catalogue) {
      const sockets = new Set(type.ports.flatMap((p) => (p.socket ? [p.socket] : [])));
      for (const socket of sockets) {
        const connectors = type.ports.filter((p) => p.socket === socket).map((p) => p.connector);
        expect(new Set(connectors).size, `${type.id}, ${socket}`).toBe(1);
      }
    }
  });
});
