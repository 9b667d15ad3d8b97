import { describe, expect, it } from 'vitest';
import { seededNormal } from '#core/audio/samples/index.ts';
import { textOf } from '#core/base/said/index.ts';
import { applyEdit, type Edit, parseRig, type Rig } from '#core/model/rig/index.ts';
import { evaluate } from '#core/signal/index.ts';
import { boathouse } from '#demo/boathouse.ts';
import { quayTalk } from '#demo/quay-talk.ts';
import { nextTakes, type PathTake, pathIntoRig, testTable } from './index.ts';

const rig = parseRig(JSON.parse(JSON.stringify(boathouse)));
const DELAY = 'capture-program.in-2-picture-delay';
let made = 0;
const take = (more: Partial<PathTake> = {}): PathTake => ({
  kind: 'offset',
  id: `t${++made}`,
  label: `take ${made}`,
  takenAt: '2026-11-25T10:00:00Z',
  sourceId: 'couch',
  listenerId: 'stream',
  settings: [],
  ms: { mean: 64, sd: 1, count: 4 },
  leftOut: false,
  ...more,
});
const apply = (r: Rig, edit: Edit): Rig => {
  const done = applyEdit(r, edit);
  if (!done.ok) throw new Error(textOf(done.refusal.reason));
  return done.rig;
};
const withTakes = (takes: readonly PathTake[], r = rig): Rig =>
  apply(r, { kind: 'batch', edits: takes.map((measurement) => ({ kind: 'add-measurement', measurement })) });
const couchAtStream = (r: Rig) => testTable(r).find((p) => p.sourceId === 'couch' && p.listenerId === 'stream')!;

describe('the path test', () => {
  it('has a row for every path with a picture, and for every take what it should be', () => {
    const table = testTable(rig);
    expect(table.map((p) => `${p.sourceId} ${p.listenerId}`)).toEqual(
      evaluate(rig)
        .pairs.filter((p) => p.ways[0]?.offset)
        .map((p) => `${p.sourceId} ${p.listenerId}`),
    );
    const row = couchAtStream(
      withTakes([take(), take({ settings: [{ setting: DELAY, value: 100 }], ms: { mean: -36, sd: 1, count: 4 } })]),
    );
    expect(row.settings).toContain(DELAY);
    const [plain, delayed] = row.takes;
    expect(plain!.expected.nominal - delayed!.expected.nominal).toBeCloseTo(100, 6);
    expect(plain!.sumMs).toBeCloseTo(delayed!.sumMs, 6);
    expect(row.together).toMatchObject({ count: 8 });
    expect(row.takes.every((t) => t.odd === null)).toBe(true);
  });
  it('puts all takes into the rig as one figure, as good as they are together', () => {
    const normal = seededNormal(3);
    const takes = Array.from({ length: 9 }, (_, i) =>
      take({
        settings: [{ setting: DELAY, value: 20 * i }],
        ms: { mean: 64 - 20 * i + 2 * normal(), sd: 2, count: 1 },
      }),
    );
    const before = withTakes(takes);
    const row = couchAtStream(before);
    expect(row.together!.sdMs).toBeLessThan(1.2);
    const after = apply(before, pathIntoRig(before, row, 'all', '2026-11-26T10:00:00Z')!);
    const offset = evaluate(after).pairs.find((p) => p.sourceId === 'couch' && p.listenerId === 'stream')!.ways[0]!
      .offset!;
    expect(offset.kind).toBe('measured');
    expect(Math.abs(offset.value.nominal - 64)).toBeLessThan(2.5);
    expect(couchAtStream(after).nowIsMeasured).toBe(true);
  });
  it('marks what does not agree, and says what would explain it', () => {
    const good = [take(), take({ ms: { mean: 65, sd: 1, count: 4 } }), take({ ms: { mean: 63.5, sd: 1, count: 4 } })];
    const oddOf = (more: Partial<PathTake>) => {
      const row = couchAtStream(withTakes([...good, take(more)]));
      expect(row.takes.filter((t) => t.odd)).toHaveLength(1);
      expect(row.together!.count).toBe(12);
      return row.takes.find((t) => t.odd)!.odd;
    };
    expect(oddOf({ settings: [{ setting: DELAY, value: 100 }], ms: { mean: 64, sd: 1, count: 4 } })).toMatchObject({
      code: 'paths.laterThanOthersAs',
      params: { value: 100 },
    });
    expect(oddOf({ ms: { mean: 64 + 1000 / 60, sd: 1, count: 4 } })).toMatchObject({ params: { frames: 1 } });
    expect(oddOf({ ms: { mean: 64 + 2000, sd: 1, count: 4 } })).toMatchObject({ code: 'paths.laterThanOthersIt' });
    expect(oddOf({ ms: { mean: 164, sd: 21, count: 2 } })).toMatchObject({ params: { sd: '21 ms' } });
    expect(oddOf({ ms: { mean: 101, sd: 1, count: 4 } })).toMatchObject({ code: 'paths.laterThanOthersNothing' });
  });
  it('asks for a third where two disagree, and forgets what was left out', () => {
    const two = [take(), take({ ms: { mean: 164, sd: 1, count: 4 } })];
    const row = couchAtStream(withTakes(two));
    expect(row.takes.map((t) => t.odd)).toEqual([
      expect.objectContaining({ code: 'paths.isFromOtherThird' }),
      expect.objectContaining({ code: 'paths.isFromOtherThird' }),
    ]);
    expect(row.together!.sdMs).toBeGreaterThan(40);
    const left = couchAtStream(withTakes([two[0]!, { ...two[1]!, leftOut: true }]));
    expect(left.takes.map((t) => t.counts)).toEqual([true, false]);
    expect(left.together!.sumMs).toBeCloseTo(left.takes[0]!.sumMs, 6);
  });
  it('says what the figure follows from: devices, never a lead; nothing, where twins differ', () => {
    const table = testTable(rig);
    const row = table.find((p) => p.sourceId === 'couch' && p.listenerId === 'stream')!;
    expect(row.cause).toMatchObject({ follows: 'device', says: { params: { leads: { code: 'paths.leadsAdd' } } } });
    const listeners = table.filter((p) => p.sourceId === 'couch').map((p) => p.listenerId);
    const twin = listeners.find((id) => {
      const both = withTakes([take(), take({ listenerId: id, ms: { mean: 264, sd: 1, count: 4 } })]);
      return id !== 'stream' && testTable(both).some((p) => p.cause.follows === 'nothing');
    });
    expect(twin).toBeDefined();
  });
});

describe('what to record next', () => {
  it('comes in the order of what it tells, each counted after those before, and speaks for several', () => {
    for (const r of [rig, parseRig(JSON.parse(JSON.stringify(quayTalk)))]) {
      const next = nextTakes(r);
      expect(next.length).toBeGreaterThan(0);
      const shares = next.map((n) => n.tells);
      expect(shares).toEqual([...shares].sort((a, b) => b - a));
      expect(shares.reduce((a, b) => a + b, 0)).toBeLessThanOrEqual(1 + 1e-9);
      expect(new Set(next.map((n) => `${n.sourceId} ${n.listenerId}`)).size).toBe(next.length);
    }
    expect(nextTakes(rig).some((n) => n.also.length > 0)).toBe(true);
  });
  it('is not what was measured already', () => {
    const [first] = nextTakes(rig);
    const { sourceId, listenerId } = first!;
    const row = testTable(rig).find((p) => p.sourceId === sourceId && p.listenerId === listenerId)!;
    const tested = withTakes([take({ sourceId, listenerId, ms: { mean: row.now.nominal, sd: 1, count: 8 } })]);
    const measured = apply(
      tested,
      pathIntoRig(
        tested,
        testTable(tested).find((p) => p.sourceId === sourceId && p.listenerId === listenerId)!,
        'x',
        '2026-11-26T10:00:00Z',
      )!,
    );
    expect(nextTakes(measured).map((n) => `${n.sourceId} ${n.listenerId}`)).not.toContain(`${sourceId} ${listenerId}`);
  });
});
