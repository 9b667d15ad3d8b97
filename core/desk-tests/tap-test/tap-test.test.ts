import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { seededRandom } from '#core/audio/samples/index.ts';
import { type Said, textOf } from '#core/base/said/index.ts';
import { reconcileLevel } from '#core/desk-tests/reconcile/index.ts';
import { faultsOf } from '#core/live/troubleshoot/index.ts';
import { emptyRig, parseRig, type Rig } from '#core/model/rig/index.ts';
import { casesOf } from '#core/model/units/proofs.testkit.ts';
import { evaluate } from '#core/signal/index.ts';
import { boathouse } from '#demo/boathouse.ts';
import { clayHour } from '#demo/clay-hour.ts';
import { gliderCorner } from '#demo/glider-corner.ts';
import { mothNight } from '#demo/moth-night.ts';
import { quayTalk } from '#demo/quay-talk.ts';
import { skerryNet } from '#demo/skerry-net.ts';
import { restsOf, type Ties } from './apart.ts';
import {
  apartOf,
  cellKey,
  expectedOf,
  explain,
  gateOf,
  levelOf,
  namedIn,
  type Players,
  playersOf,
  SAY_JOINS,
  sayDisagreement,
  sayPlan,
  type TakeRead,
  TIME_KNOWN,
  whoseTake,
} from './index.ts';
import { isSameFault, judged, readingsAt, rigWith } from './taptest.testkit.ts';

const parsed = (rig: Rig): Rig => parseRig(JSON.parse(JSON.stringify(rig)));
const relay = parsed(boathouse);
const ALL = [boathouse, clayHour, gliderCorner, mothNight, quayTalk, skerryNet].map(parsed);
const ears = (rig: Rig) => rig.listeners.map((l) => l.id);
const told = (rig: Rig, takes: readonly TakeRead[]) =>
  judged(rig, takes).cells.flatMap((c) => c.disagreements.map((d) => `${c.sourceId}>${c.listenerId} ${d.kind}`));

describe('players', () => {
  it('have a tune each, in the order of the sources, the same on every machine', () => {
    const players = playersOf(relay);
    expect(players.map((p) => p.sourceId)).toEqual(relay.sources.map((s) => s.id));
    expect(players.map((p) => p.tune)).toEqual(relay.sources.map((_, i) => i));
    expect(playersOf(relay)).toEqual(players);
  });
  it('keep their tunes once takes were made, whatever comes and goes; before that they are dealt anew', () => {
    const before = playersOf(relay);
    const [first, ...others] = relay.sources;
    const fewer: Rig = { ...relay, sources: others };
    expect(playersOf(fewer, before, true).map((p) => p.tune)).toEqual(others.map((_, i) => i + 1));
    expect(playersOf(fewer, before).map((p) => p.tune)).toEqual(others.map((_, i) => i));
    // A source that is new takes what is free.
    const other: Rig = { ...relay, sources: [...others, { ...first!, id: 'new' }] };
    expect(playersOf(other, before, true).at(-1)).toMatchObject({ sourceId: 'new', tune: 0 });
  });
  it('forget of one another what is gone from the rig', () => {
    const [a, b] = relay.sources;
    const before = playersOf(relay).map((p) =>
      p.sourceId === a!.id ? { ...p, playerId: b!.id, knownAt: [relay.listeners[0]!.id, 'gone'] } : p,
    );
    const kept = playersOf(relay, before).find((p) => p.sourceId === a!.id)!;
    expect(kept).toMatchObject({ playerId: b!.id, knownAt: [relay.listeners[0]!.id] });
    const without: Rig = { ...relay, sources: relay.sources.filter((s) => s.id !== b!.id) };
    expect(playersOf(without, before).find((p) => p.sourceId === a!.id)!.playerId).toBe(a!.id);
  });
  it('are sixteen at most', () => {
    const sources = Array.from({ length: 20 }, (_, i) => ({ ...relay.sources[0]!, id: `s${i}` }));
    expect(playersOf({ ...relay, sources })).toHaveLength(16);
  });
});

describe('what has to be so before anything plays', () => {
  it('asks for everybody outside the room, for loudspeakers and for ears', () => {
    const asked = gateOf(relay).map((q) => q.id);
    expect(asked).toContain('headphones');
    expect(asked).toContain('loudspeakers');
    expect(asked.some((id) => id.startsWith('stream:'))).toBe(true);
    expect(asked.some((id) => id.startsWith('far:'))).toBe(true);
  });
  it('asks for a dummy load where there is a radio, and only there', () => {
    const asks = (rig: Rig) => gateOf(rig).some((q) => (q.asks as Said).code === 'taptest.intoDummyLoadVoice');
    expect(asks(parsed(skerryNet))).toBe(true);
    expect(asks(relay)).toBe(false);
  });
  it('asks by what a box does, whatever it is called: a transmitter of one\u2019s own, a radio that sounds', () => {
    const withOwn = (does: boolean): Rig => ({
      ...relay,
      types: [
        {
          id: 'own-sender',
          name: 'A box of one\u2019s own',
          family: 'anything',
          summary: '',
          settings: [],
          figures: {},
          inside: [],
          ports: [
            {
              id: 'x',
              name: 'x',
              direction: 'out',
              connector: 'radio',
              level: 'digital',
              channels: [{ id: 'mono', carries: 'sound' }],
              ...(does && { does: 'on-air' as const }),
            },
          ],
        },
      ],
      devices: [...relay.devices, { id: 'own', typeId: 'own-sender', name: 'Sender', settings: {} }],
    });
    const ids = (rig: Rig) => gateOf(rig).map((q) => q.id);
    expect(ids(parsed(withOwn(true)))).toContain('radios');
    expect(ids(parsed(withOwn(false)))).not.toContain('radios');
    const only = (typeId: string): Rig => ({
      ...emptyRig('one box'),
      devices: [{ id: 'one', typeId, name: 'One', settings: {} }],
    });
    expect(ids(only('two-way-handheld'))).toContain('loudspeakers');
    expect(ids(only('headphones'))).not.toContain('loudspeakers');
    expect(ids(only('person'))).not.toContain('loudspeakers');
  });
  it.each(ALL)('is told in words, each once', (rig) => {
    const questions = gateOf(rig);
    expect(new Set(questions.map((q) => q.id)).size).toBe(questions.length);
    for (const q of questions) expect(`${q.asks} ${q.why}`).not.toMatch(/undefined|NaN|: ,/);
    expect(questions.at(-1)!.id).toBe('headphones');
  });
});

describe('what nobody knows of readings', () => {
  const free: Ties = { playerOf: (s) => s, fileOf: (t) => t, isExact: () => false };
  const grid = (S: number, T: number, off: (s: number, t: number) => number) =>
    Array.from({ length: S * T }, (_, i) => {
      const [s, t] = [Math.floor(i / T), i % T];
      return { sourceId: `s${s}`, takeId: `t${t}`, off: off(s, t) };
    });
  it('is taken out, whatever it is, so that one thing that is wrong shows where it is and nowhere else', () => {
    fc.assert(
      fc.property(
        fc.integer({ min: 3, max: 6 }),
        fc.integer({ min: 3, max: 6 }),
        fc.integer({ min: 1, max: 10_000 }),
        (S, T, seed) => {
          const random = seededRandom(seed);
          const starts = Array.from({ length: S }, () => 2000 * random());
          const begun = Array.from({ length: T }, () => 2000 * random());
          const [ws, wt] = [Math.floor(S * random()), Math.floor(T * random())];
          const rests = restsOf(
            grid(S, T, (s, t) => starts[s]! - begun[t]! + (s === ws && t === wt ? 70 : 0)),
            free,
          );
          rests.forEach((rest, i) => {
            expect(rest).toBeCloseTo(i === ws * T + wt ? 70 : 0, 0);
          });
        },
      ),
      { numRuns: 60 },
    );
  });
  it('is less where players and files are shared', () => {
    const one: Ties = { ...free, playerOf: () => 'one', fileOf: () => 'one' };
    // With all free, two by two could not tell which of four is off.
    const rests = restsOf(
      grid(2, 2, (s, t) => 500 + (s === 1 && t === 1 ? 40 : 0)),
      one,
    );
    expect(rests[3]).toBeCloseTo(40, 0);
    expect(rests[0]).toBeCloseTo(0, 0);
  });
  it('has what is known badly give way to what is known well, however many say otherwise', () => {
    // Three takes hear the first source by a device whose delay is anywhere within 100 ms; two do not.
    const isBad = (s: number, t: number) => s === 0 && t < 3;
    const readings = grid(4, 5, (s, t) => 700 * s - 90 * t + (isBad(s, t) ? -12 : 0));
    const off = (badly: number) =>
      restsOf(
        readings.map((r, i) => ({ ...r, tolerance: isBad(Math.floor(i / 5), i % 5) ? badly : 1 })),
        free,
      );
    off(100).forEach((rest, i) => {
      expect(rest).toBeCloseTo(isBad(Math.floor(i / 5), i % 5) ? -12 : 0, 1);
    });
    // All known as well: the more are right.
    expect(off(1)[4]).toBeCloseTo(12, 0);
  });
  it('hangs on what is exact', () => {
    const exact: Ties = { ...free, isExact: (s, t) => s === 's0' && t === 't0' };
    const rests = restsOf(
      grid(1, 1, () => 300),
      exact,
    );
    expect(rests[0]).toBeCloseTo(0, 3);
  });
});

describe('readings of a desk that is as drawn', () => {
  it.each(ALL)('agree with the drawing, whatever its true figures are', (rig) => {
    for (const seed of [1, 2, 3]) {
      const takes = readingsAt(rig, [], ears(rig), playersOf(rig), seed);
      const grave = judged(rig, takes).cells.filter((c) => apartOf(c) >= 3);
      expect(grave.map((c) => [c.sourceId, c.listenerId, c.disagreements])).toEqual([]);
    }
  });
  it('are told against the plan all the same', () => {
    const takes = readingsAt(relay, [], ears(relay), playersOf(relay), 4);
    const { cells } = judged(relay, takes);
    const unwanted = cells.filter((c) => c.toPlan === 'unwanted');
    expect(unwanted.length).toBeGreaterThan(0);
    for (const c of unwanted) {
      expect(relay.plan.find((p) => p.sourceId === c.sourceId && p.listenerId === c.listenerId)?.want).toBe('must-not');
      expect(sayPlan(relay, c)).toMatchObject({ code: 'taptest.mustNotArriveAt' });
    }
    for (const c of cells.filter((x) => x.toPlan === 'as-wanted')) expect(sayPlan(relay, c)).toBeNull();
  });
  it('say of time no more than joins allow', () => {
    const players = playersOf(relay);
    const takes = readingsAt(relay, [], ears(relay), players, 4);
    const timed = (own: Players, of: readonly TakeRead[]) => judged(relay, of, own).cells.flatMap((c) => c.time ?? []);
    expect(timed(players, takes).every((t) => t.known === 'double')).toBe(true);
    const oneFile = takes.map((t) => ({ ...t, fileId: 'one' }));
    expect(timed(players, oneFile).every((t) => t.known === 'between-takes')).toBe(true);
    const onePlayer = players.map((p) => ({ ...p, playerId: players[0]!.sourceId }));
    expect(timed(onePlayer, takes).every((t) => t.known === 'between-sources')).toBe(true);
    const tied = onePlayer.map((p, i) => (i === 0 ? { ...p, knownAt: [takes[0]!.listenerId] } : p));
    expect(timed(tied, oneFile).every((t) => t.known === 'alone')).toBe(true);
    expect(judged(relay, takes).lacking).toBeGreaterThan(0);
    expect(judged(relay, oneFile, tied).lacking).toBe(0);
    expect(Object.keys(TIME_KNOWN)).toHaveLength(4);
    expect(SAY_JOINS.length).toBe(3);
  });
});

describe('a reading that is off', () => {
  const players = playersOf(relay);
  const takes = readingsAt(relay, [], ears(relay), players, 9);
  const { cells } = judged(relay, takes);
  const heard = cells.filter((c) => c.read?.heard && c.expected.ways.length > 0 && c.want === 'must');
  const there = heard.find((c) => c.clockOffPpm !== null && !c.expected.ways[0]!.throughAir)!;
  const tuneOf = (sourceId: string) => players.find((p) => p.sourceId === sourceId)!.tune;
  type Tune = TakeRead['tunes'][number];
  const changed = (sourceId: string, listenerId: string, change: (t: Tune) => Tune): TakeRead[] =>
    takes.map((t) =>
      t.listenerId === listenerId
        ? { ...t, tunes: t.tunes.map((r) => (r.id === tuneOf(sourceId) ? change(r) : r)) }
        : t,
    );
  const withHeard = (part: (h: NonNullable<Tune['heard']>) => Partial<NonNullable<Tune['heard']>>) =>
    changed(there.sourceId, there.listenerId, (t) => ({ ...t, heard: { ...t.heard!, ...part(t.heard!) } }));
  const gone = (t: Tune): Tune => ({ ...t, word: 'not-found', confidence: null, heard: null, overChance: 0 });
  const at = (kind: string) => `${there.sourceId}>${there.listenerId} ${kind}`;
  it.each([
    ['missing', changed(there.sourceId, there.listenerId, gone)],
    ['late', withHeard((h) => ({ atMs: h.atMs + 600 }))],
    ['level', withHeard((h) => ({ gainDb: h.gainDb - 14 }))],
    ['clock', withHeard((h) => ({ ppm: h.ppm! + 90 }))],
    ['jump', withHeard(() => ({ jump: { atMs: 7000, ms: -21 } }))],
    ['wanders', withHeard(() => ({ wander: { earliestMs: -12, latestMs: 30 }, ppm: null, polarity: null }))],
    [
      'twice',
      withHeard((h) => ({
        seconds: { ...h.seconds, ways: [...h.seconds.ways, { afterMs: 777, underDb: 6, perhapsReflection: false }] },
      })),
    ],
    ['band', withHeard((h) => ({ bands: h.bands.map((b) => (b.lowHz > 3000 ? { ...b, db: -40 } : b)) }))],
  ] as [string, TakeRead[]][])('is told as what it is: %s', (kind, off) => {
    expect(told(relay, off)).toContain(at(kind));
    const cell = judged(relay, off).cells.find(
      (c) => c.sourceId === there.sourceId && c.listenerId === there.listenerId,
    )!;
    const says = textOf(sayDisagreement(relay, cell, cell.disagreements.find((d) => d.kind === kind)!));
    expect(says).toContain(relay.listeners.find((l) => l.id === there.listenerId)!.name);
    expect(says).not.toMatch(/undefined|NaN|-\d/);
  });
  it('is told as extra where nothing is drawn, with how far it is under the loudest', () => {
    const none = cells.find((c) => c.expected.ways.length === 0 && c.read?.word === 'not-found')!;
    const other = takes.find((t) => t.listenerId === none.listenerId)!.tunes.find((t) => t.heard)?.heard;
    const off = changed(none.sourceId, none.listenerId, (t) => ({
      ...t,
      word: 'found',
      confidence: 0.99,
      overChance: 14,
      heard: { ...(other ?? there.read!.heard!), gainDb: (other?.gainDb ?? 0) - 21 },
    }));
    expect(told(relay, off)).toContain(`${none.sourceId}>${none.listenerId} extra`);
    const cell = judged(relay, off).cells.find(
      (c) => c.sourceId === none.sourceId && c.listenerId === none.listenerId,
    )!;
    expect(sayDisagreement(relay, cell, cell.disagreements[0]!)).toMatchObject({ code: 'taptest.shouldNotReachBut' });
  });
  it('of what is only perhaps there is told where it should be loud, and nowhere else', () => {
    const perhaps = (t: Tune): Tune => ({ ...gone(t), word: 'perhaps', overChance: 6 });
    const off = changed(there.sourceId, there.listenerId, perhaps);
    const own = `${there.sourceId}>${there.listenerId} `;
    expect(there.expected.underDb).toBeLessThan(14);
    expect(told(relay, off).filter((s) => s.startsWith(own))).toEqual([`${own}hardly`]);
    const none = cells.find((c) => c.expected.ways.length === 0)!;
    const other = changed(none.sourceId, none.listenerId, perhaps);
    expect(told(relay, other).filter((s) => s.startsWith(`${none.sourceId}>${none.listenerId} `))).toEqual([]);
  });
  it('is told as a level there, where it is off, for a knob to be found that explains it', () => {
    const base = { takenAt: '2026-11-01T10:00:00.000Z', newId: () => 'm' };
    const of = (list: readonly TakeRead[]) => {
      const cell = judged(relay, list).cells.find(
        (c) => c.sourceId === there.sourceId && c.listenerId === there.listenerId,
      )!;
      return { cell, level: levelOf(relay, cell, base) };
    };
    const { cell, level } = of(withHeard((h) => ({ gainDb: h.gainDb - 9 })));
    expect(level!.levelDb - cell.expected.ways[0]!.levelDb).toBeCloseTo(-9, 0);
    expect(reconcileLevel(relay, level!)).toMatchObject({ ok: true });
    // Where its delay moved, its level is known less well.
    const moving = of(withHeard((h) => ({ gainDb: h.gainDb - 9, wander: { earliestMs: -9, latestMs: 14 } }))).level;
    expect(moving!.sdDb).toBeGreaterThan(level!.sdDb);
    expect(of(withHeard((h) => ({ gainDb: h.gainDb - (there.levelOffDb ?? 0) }))).level).toBeNull();
  });
  it('may be as late as its delay moves, and no later', () => {
    const late = (by: number, wander: { earliestMs: number; latestMs: number } | null) =>
      told(
        relay,
        withHeard((h) => ({ atMs: h.atMs + by, wander })),
      ).filter((s) => s === at('late'));
    const tolerance = there.time!.toleranceMs;
    expect(late(tolerance + 25, null)).toHaveLength(1);
    expect(late(tolerance + 25, { earliestMs: -20, latestMs: 40 })).toEqual([]);
    expect(late(tolerance + 25, { earliestMs: -2, latestMs: 3 })).toHaveLength(1);
  });
  it('weighs little where a second way is so faint that it may be chance', () => {
    const second = (underDb: number) =>
      withHeard((h) => ({
        seconds: { ...h.seconds, ways: [...h.seconds.ways, { afterMs: 777, underDb, perhapsReflection: false }] },
      }));
    expect(judged(relay, second(29)).apart).toBeLessThan(judged(relay, second(9)).apart);
  });
});

describe('faults planted in a rig, seen by takes alone', () => {
  const share = (rig: Rig, count: number, seed: number) => {
    const players = playersOf(rig);
    const faults = faultsOf(rig, evaluate(rig)).filter((f) => f.edit || f.dead.length > 0);
    const random = seededRandom(seed);
    let [tried, right] = [0, 0];
    for (let n = 0; tried < count && n < 20 * count; n++) {
      const fault = faults[Math.floor(random() * faults.length)]!;
      let desk: Rig;
      try {
        desk = rigWith(rig, fault);
      } catch {
        continue;
      }
      const takes = readingsAt(desk, fault.dead, ears(rig), players, seed + n);
      if (judged(rig, takes, players).apart < 2) continue;
      tried++;
      const found = explain(rig, takes, players);
      if (found.some((e) => e.faults.some((f) => isSameFault(f, fault)))) right++;
      for (const e of found) {
        expect(e.explains.length).toBeGreaterThan(0);
        expect(e.share).toBeGreaterThan(0);
      }
    }
    return right / tried;
  };
  it('are among the best three explanations', () => {
    expect(share(relay, 10, casesOf(14, 40))).toBeGreaterThanOrEqual(0.9);
  }, 300_000);
  it('are not explained where nothing is apart', () => {
    const takes = readingsAt(relay, [], ears(relay), playersOf(relay), 1);
    expect(explain(relay, takes, playersOf(relay))).toEqual([]);
  });
});

describe('whose take it is', () => {
  it('is told by what it holds', () => {
    const players = playersOf(relay);
    const takes = readingsAt(relay, [], ears(relay), players, 12);
    const alike = (a: string, b: string) =>
      players.every((p) => {
        const expected = expectedOf(relay, evaluate(relay), [a, b]);
        const [x, y] = [a, b].map((l) => expected.get(cellKey(p.sourceId, l))!.underDb);
        return x === y || (x != null && y != null && Math.abs(x - y) < 6);
      });
    for (const take of takes) {
      if (take.tunes.every((t) => t.word !== 'found')) continue;
      const [first] = whoseTake(relay, take.tunes, players);
      if (first!.listenerId !== take.listenerId) expect(alike(first!.listenerId, take.listenerId)).toBe(true);
    }
  });
  it('is told by its name before that: the longest that stands in it', () => {
    const [a] = relay.listeners;
    expect(namedIn(relay, `${a!.name}.wav`)).toBe(a!.id);
    expect(namedIn(relay, `take 3 ${a!.name.toUpperCase()} (copy).flac`)).toBe(a!.id);
    expect(namedIn(relay, 'something else.wav')).toBeNull();
    const rig: Rig = {
      ...relay,
      listeners: [
        { ...a!, id: 'one', name: 'Track 1' },
        { ...a!, id: 'two', name: 'Track 1, all' },
      ],
    };
    expect(namedIn(rig, 'track_1_all.wav')).toBe('two');
    expect(namedIn(rig, 'Track 1.wav')).toBe('one');
    expect(namedIn(rig, 'Track 12.wav')).toBeNull();
  });
});
