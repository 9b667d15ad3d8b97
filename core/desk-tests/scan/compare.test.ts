import { describe, expect, it } from 'vitest';
import { compareScans, type Scan, type ScanLink } from './index.ts';

const link = (outputId: string, inputId: string, more: Partial<ScanLink> = {}): ScanLink => ({
  outputId,
  inputId,
  levelDb: -6,
  delayMs: 42,
  spreadMs: 0.2,
  polarity: 1,
  sides: 'straight',
  ppm: 0,
  lowHz: 80,
  highHz: 12_500,
  again: [],
  levelSpreadDb: 0.05,
  ...more,
});
const output = (id: string, name = `Output ${id}`) => ({ id, name, sampleRateHz: 48_000, playedDbfs: -42 });
const input = (id: string, name = `Input ${id}`, seesFromDb = -45) => ({
  id,
  name,
  sampleRateHz: 48_000,
  channels: 2,
  seesFromDb,
  silent: false,
  processing: [],
});
const BASE: Scan = {
  at: '2026-12-01T20:00:00.000Z',
  outputs: [output('a'), output('b')],
  inputs: [input('i'), input('j')],
  links: [link('a', 'i'), link('b', 'j', { levelDb: -20, delayMs: 120 }), link('b', 'i')],
};
const withLink = (n: number, more: Partial<ScanLink>): Scan => ({
  ...BASE,
  links: BASE.links.map((l, i) => (i === n ? { ...l, ...more } : l)),
});

describe('a scan against one before', () => {
  it('says nothing where nothing moved more than it does by itself', () => {
    expect(compareScans(BASE, BASE)).toEqual([]);
    expect(compareScans(BASE, withLink(0, { levelDb: -6.7, delayMs: 44.1, spreadMs: 0.5, ppm: 12 }))).toEqual([]);
  });
  it.each<[string, Partial<ScanLink>, object]>([
    ['level', { levelDb: -9 }, { kind: 'level', before: -6, now: -9 }],
    ['delay', { delayMs: 92 }, { kind: 'delay', before: 42, now: 92 }],
    ['polarity', { polarity: -1 }, { kind: 'polarity' }],
    ['sides', { sides: 'left-only' }, { kind: 'sides' }],
    ['second path', { again: [{ afterMs: 30, underDb: 8 }] }, { kind: 'again' }],
    ['band', { highHz: 4000 }, { kind: 'band' }],
  ])('says the %s that changed, and nothing else', (_, more, expected) => {
    expect(compareScans(BASE, withLink(0, more))).toEqual([{ from: 'Output a', to: 'Input i', ...expected }]);
  });
  it('says a link that is gone or new, where it would have been seen', () => {
    const without = { ...BASE, links: BASE.links.slice(1) };
    expect(compareScans(BASE, without)).toMatchObject([{ kind: 'link-gone', from: 'Output a', to: 'Input i' }]);
    expect(compareScans(without, BASE)).toMatchObject([{ kind: 'link-new', from: 'Output a', to: 'Input i' }]);
    const loud = { ...without, inputs: [input('i', 'Input i', -10), input('j')] };
    expect(compareScans(BASE, loud)).toEqual([]);
    expect(compareScans(loud, BASE)).toEqual([]);
  });
  it('knows a device again by its name when its id is new, and by what arrives at it when its name is', () => {
    const anew = {
      ...BASE,
      outputs: [output('x', 'Output a'), output('b')],
      links: BASE.links.map((l) => (l.outputId === 'a' ? { ...l, outputId: 'x' } : l)),
    };
    expect(compareScans(BASE, anew)).toEqual([]);
    const renamed = { ...anew, outputs: [output('x', 'Headset'), output('b')] };
    expect(compareScans(BASE, renamed)).toEqual([{ kind: 'output-renamed', name: 'Headset', before: 'Output a' }]);
  });
  it('tells two inputs of one name apart by what arrives at them', () => {
    const twins = (first: string, second: string): Scan => ({
      ...BASE,
      inputs: [input(first, 'Mic'), input(second, 'Mic')],
      links: [link('a', first), link('b', second, { levelDb: -20, delayMs: 120 })],
    });
    // Both ids are new, and the list has them the other way round.
    const now = twins('p', 'q');
    expect(compareScans(twins('i', 'j'), { ...now, inputs: [...now.inputs].reverse() })).toEqual([]);
  });
  it('says a device that came or went once, and not again of its links', () => {
    const gone = { ...BASE, inputs: [input('j')], links: [BASE.links[1]!] };
    expect(compareScans(BASE, gone)).toEqual([{ kind: 'input-gone', name: 'Input i' }]);
    expect(compareScans(gone, BASE)).toEqual([{ kind: 'input-new', name: 'Input i' }]);
    const slower = { ...BASE, inputs: [{ ...input('i'), sampleRateHz: 16_000 }, input('j')] };
    expect(compareScans(BASE, slower)).toEqual([{ kind: 'rate', name: 'Input i', before: 48_000, now: 16_000 }]);
  });
});
