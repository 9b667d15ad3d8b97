import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import type { Fault } from './faults/index.ts';
import { culprit, isSeen, type Lineup, looksOf, oddsOf, type Suspect, type Told } from './index.ts';

const suspect = (id: string, weight: number, changes: Record<string, readonly string[]>): Suspect => ({
  fault: {
    id,
    kind: 'muted',
    says: id,
    mend: '',
    edit: null,
    dead: [],
    marks: [],
    weight,
    looks: [{ id: `at-${id}`, asks: 'Is it?', deviceIds: ['mixer'], seconds: 5, well: 'well' }],
    shows: id,
  } satisfies Fault,
  changes: new Map(Object.entries(changes)),
});

const HEARD = 'hear|stream|wren';
const drawn = new Map<string, readonly string[]>([
  [HEARD, ['well']],
  ['tap|mixer/out|wren', ['well']],
]);
const lineup = (...suspects: Suspect[]): Lineup => ({ drawn, suspects, unheard: 0 });
const gone = { [HEARD]: ['nothing'] };
const complaint: Told = { key: HEARD, answers: ['nothing'], complained: true };
const ofFault = (odds: ReturnType<typeof oddsOf>, id: string): number =>
  odds.find((o) => o.kind === 'fault' && o.suspect.fault.id === id)!.share;

describe('odds', () => {
  const a = suspect('a', 6, { ...gone, 'tap|mixer/out|wren': ['nothing'] });
  const b = suspect('b', 3, gone);
  const c = suspect('c', 3, { 'hear|stream|ilse': ['nothing'] });
  it('stand by weight where nothing was told', () => {
    const odds = oddsOf(lineup(a, b), []);
    expect(ofFault(odds, 'a') / ofFault(odds, 'b')).toBeCloseTo(2, 9);
    expect(odds.reduce((sum, o) => sum + o.share, 0)).toBeCloseTo(1, 12);
  });
  it('go to what a complaint fits, away from the drawing and from what leaves it as it is', () => {
    const odds = oddsOf(lineup(a, b, c), [complaint]);
    expect(ofFault(odds, 'a') / ofFault(odds, 'b')).toBeCloseTo(2, 9);
    expect(ofFault(odds, 'c')).toBeLessThan(0.01 * ofFault(odds, 'b'));
    expect(odds.find((o) => o.kind === 'drawn')!.share).toBeLessThan(0.05);
  });
  it('are turned by an answer as far as one may be given amiss: by 24', () => {
    const well: Told = { key: 'tap|mixer/out|wren', answers: ['well'] };
    const before = oddsOf(lineup(a, b), [complaint]);
    const after = oddsOf(lineup(a, b), [complaint, well]);
    const ratio = (odds: typeof before) => ofFault(odds, 'b') / ofFault(odds, 'a');
    expect(ratio(after) / ratio(before)).toBeCloseTo(0.96 / 0.04, 6);
  });
  it('remember what it was before, each time', () => {
    const once = oddsOf(lineup(a, b), [complaint], new Map([['b', 1]]));
    const twice = oddsOf(lineup(a, b), [complaint], new Map([['b', 2]]));
    expect(ofFault(once, 'b') / ofFault(once, 'a')).toBeCloseTo(2, 9);
    expect(ofFault(twice, 'b') / ofFault(twice, 'a')).toBeCloseTo(3.5, 9);
  });
  it('do not hang on the order in which things are told', () => {
    const all: Told[] = [
      complaint,
      { key: 'tap|mixer/out|wren', answers: ['nothing'] },
      { key: 'look|at-b', answers: ['well'] },
      { key: 'hear|stream|ilse', answers: ['well', 'nothing'] },
    ];
    const plain = oddsOf(lineup(a, b, c), all);
    fc.assert(
      fc.property(fc.shuffledSubarray(all, { minLength: all.length }), (told) => {
        const odds = oddsOf(lineup(a, b, c), told);
        for (const id of ['a', 'b', 'c']) expect(ofFault(odds, id)).toBeCloseTo(ofFault(plain, id), 9);
      }),
    );
  });
});

describe('a look', () => {
  const a = suspect('a', 5, { ...gone, 'tap|mixer/out|wren': ['nothing'], 'look|at-a': ['muted a'] });
  const b = suspect('b', 5, { ...gone, 'look|at-b': ['b'] });
  const seconds = () => 10;
  it('that halves two suspects tells nearly a bit, less what is given amiss', () => {
    const told = [complaint];
    const odds = oddsOf(lineup(a, b), told);
    const tap = looksOf(lineup(a, b), odds, told, seconds).find((l) => l.key === 'tap|mixer/out|wren')!;
    const live = odds.filter((o) => o.kind !== 'other' && o.share >= 0.002);
    const sum = live.reduce((s, o) => s + o.share, 0);
    const pa = ofFault(odds, 'a') / sum;
    const h = (p: number) => -p * Math.log2(p) - (1 - p) * Math.log2(1 - p);
    // Amiss falls on either answer alike: 0.04 of the time it is a coin.
    const q = 0.96 * pa + 0.02;
    expect(tap.bits).toBeCloseTo(h(q) - h(0.98), 6);
    expect(tap.bits).toBeLessThan(1);
  });
  it('that both answer alike tells nothing, and is not offered; nor is what was looked at', () => {
    const told = [complaint];
    const odds = oddsOf(lineup(a, b), told);
    const looks = looksOf(lineup(a, b), odds, told, seconds);
    expect(looks.map((l) => l.key)).not.toContain(HEARD);
    expect(looks.length).toBeGreaterThan(1);
    const done: Told[] = [complaint, { key: 'tap|mixer/out|wren', answers: ['nothing'] }];
    const later = looksOf(lineup(a, b), oddsOf(lineup(a, b), done), done, seconds);
    expect(later.map((l) => l.key)).not.toContain('tap|mixer/out|wren');
  });
  it('is put first where it is quick, and left out where nobody can look', () => {
    const told = [complaint];
    const odds = oddsOf(lineup(a, b), told);
    const order = (slow: string) =>
      looksOf(lineup(a, b), odds, told, (key) => (key === slow ? 600 : 5)).map((l) => l.key);
    expect(order('look|at-a')[0]).not.toBe('look|at-a');
    expect(order('look|at-a').at(-1)).toBe('look|at-a');
    expect(looksOf(lineup(a, b), odds, told, () => null)).toEqual([]);
  });
  it('has shares of its answers that are one in all', () => {
    const told = [complaint];
    for (const look of looksOf(lineup(a, b), oddsOf(lineup(a, b), told), told, seconds)) {
      const sum = look.answers.reduce((s, x) => s + x.share, 0);
      expect(sum).toBeGreaterThan(0.5);
      expect(sum).toBeLessThanOrEqual(1 + 1e-9);
    }
  });
});

describe('what it is', () => {
  const a = suspect('a', 5, { ...gone, 'look|at-a': ['muted a'] });
  const b = suspect('b', 5, gone);
  it('is said once it stands far before all others, and seen once it was looked at', () => {
    const open = [complaint];
    expect(culprit(oddsOf(lineup(a, b), open))).toBeNull();
    const looked: Told[] = [...open, { key: 'look|at-a', answers: ['muted a'] }];
    const named = culprit(oddsOf(lineup(a, b), looked));
    expect(named).toMatchObject({ kind: 'fault', suspect: { fault: { id: 'a' } } });
    expect(isSeen(a, looked)).toBe(true);
    expect(isSeen(a, open)).toBe(false);
    expect(isSeen(b, looked)).toBe(false);
  });
  it('is nothing that the model knows where all that it could be was looked at and is well', () => {
    const told: Told[] = [
      complaint,
      { key: 'look|at-a', answers: ['well'] },
      { key: 'tap|mixer/out|wren', answers: ['odd'] },
      { key: 'hear|stream|ilse', answers: ['odd'] },
    ];
    expect(culprit(oddsOf(lineup(a), told))).toBeNull();
  });
});
