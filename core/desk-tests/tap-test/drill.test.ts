import { beforeAll, describe, expect, it } from 'vitest';
import { testFft } from '#core/audio/samples/fft.testkit.ts';
import { type FftOf, recordingOf } from '#core/audio/samples/index.ts';
import { slateReading } from '#core/desk-tests/slates/slate.testkit.ts';
import { readTap } from '#core/desk-tests/tunes/index.ts';
import { parseRig, type Rig } from '#core/model/rig/index.ts';
import { evaluate } from '#core/signal/index.ts';
import { boathouse } from '#demo/boathouse.ts';
import { clayHour } from '#demo/clay-hour.ts';
import { skerryNet } from '#demo/skerry-net.ts';
import { deskWith } from './drill.ts';
import {
  drillTable,
  expectedOf,
  explain,
  fewestTakes,
  hideFault,
  judge,
  judgeGuess,
  picturesOf,
  playersOf,
  standInTake,
  type TakeRead,
  tappable,
} from './index.ts';
import { readingsAt, rigWith } from './taptest.testkit.ts';

const parsed = (rig: Rig): Rig => parseRig(JSON.parse(JSON.stringify(rig)));
const relay = parsed(boathouse);
const listenerIds = relay.listeners.map((l) => l.id);
const faults = tappable(relay, listenerIds);
const players = playersOf(relay);
const table = drillTable(relay, listenerIds, faults);

let fftOf: FftOf;
beforeAll(async () => {
  fftOf = await testFft();
});

describe('a guess', () => {
  it('is right where it is what is hidden and explains all, and wrong where readings stay; nothing else is found', () => {
    for (const fault of faults.filter((_, i) => i % 25 === 3)) {
      const takes = readingsAt(rigWith(relay, fault), fault.dead, fewestTakes(table, fault.id), players, 5);
      const [first, ...others] = explain(relay, takes, players);
      expect(judgeGuess(first!, fault.id), fault.id).toBe('found');
      for (const other of others) expect(judgeGuess(other, fault.id)).toBe('cannot-be');
    }
  });
  it('could be where something that explains as much is hidden, or what is hidden does not explain all', () => {
    const [own, other] = faults;
    const explains = { faults: [own!], share: 1, explains: [], leaves: [], breaks: [] };
    const [cell] = explain(
      relay,
      readingsAt(rigWith(relay, own!), own!.dead, fewestTakes(table, own!.id), players, 5),
      players,
    )[0]!.explains;
    expect(judgeGuess(explains, own!.id)).toBe('found');
    expect(judgeGuess(explains, other!.id)).toBe('could-be');
    expect(judgeGuess({ ...explains, leaves: [cell!] }, own!.id)).toBe('could-be');
    expect(judgeGuess({ ...explains, breaks: [cell!] }, other!.id)).toBe('cannot-be');
    expect(judgeGuess({ ...explains, leaves: [cell!] }, null)).toBe('cannot-be');
  });
});

describe('a drill', () => {
  it('hides only what some take would tell from the drawing', () => {
    expect(faults.length).toBeGreaterThan(30);
    for (const { id } of faults) expect(table.found.get(id)).not.toEqual(table.drawn);
    // As a reader would have it, too.
    const players = playersOf(relay);
    const expected = expectedOf(relay, evaluate(relay), listenerIds);
    for (const fault of faults.filter((_, i) => i % 12 === 0)) {
      const takes = readingsAt(deskWith(relay, fault)!, fault.dead, listenerIds, players, 3);
      expect(judge(relay, expected, takes, players).apart).toBeGreaterThan(1);
    }
  });
  it('hides the same for the same number, other things for others, the common ones more often', () => {
    expect(hideFault(faults, 5)).toBe(hideFault(faults, 5));
    const hidden = Array.from({ length: 400 }, (_, seed) => hideFault(faults, seed)!);
    expect(new Set(hidden.map((f) => f.id)).size).toBeGreaterThan(20);
    const mean = (list: readonly { weight: number }[]) => list.reduce((s, f) => s + f.weight, 0) / list.length;
    expect(mean(hidden)).toBeGreaterThan(mean(faults));
    expect(hideFault([], 1)).toBeNull();
  });
  it('is scored against the fewest takes that would tell it from every other', () => {
    for (const fault of faults.filter((_, i) => i % 7 === 0)) {
      const fewest = fewestTakes(table, fault.id);
      expect(fewest.length).toBeGreaterThan(0);
      const at = fewest.map((id) => listenerIds.indexOf(id));
      const own = table.found.get(fault.id)!;
      // What these takes do not tell from it, no take would.
      for (const [id, other] of table.found)
        if (at.every((i) => other[i] === own[i])) expect([id, other]).toEqual([id, own]);
      // One fewer of these would not do.
      for (const left of at) {
        const rest = at.filter((i) => i !== left);
        const isAlike = [...table.found.values()].some(
          (other) => other.some((f, i) => f !== own[i]) && rest.every((i) => other[i] === own[i]),
        );
        expect(isAlike).toBe(true);
      }
    }
  });
  it.each([clayHour, skerryNet])('can be had on any rig', (demo) => {
    const rig = parsed(demo);
    const own = tappable(
      rig,
      rig.listeners.map((l) => l.id),
    );
    expect(own.length).toBeGreaterThan(5);
  });
});

describe('a stand-in’s take', () => {
  const readAt = async (listenerId: string, faultId: string | null): Promise<TakeRead> => {
    const { samples, sampleRateHz } = standInTake(fftOf, relay, { seed: 5, faultId }, listenerId, players);
    const reading = await readTap(fftOf, recordingOf([samples], sampleRateHz), { ids: players.map((p) => p.tune) });
    return { listenerId, fileId: listenerId, tunes: reading?.tunes ?? [] };
  };
  it('is the same for the same desk, and holds what the rig has it hold', async () => {
    const first = standInTake(fftOf, relay, { seed: 5, faultId: null }, 'stream', players);
    const again = standInTake(fftOf, relay, { seed: 5, faultId: null }, 'stream', players);
    expect(again.samples).toEqual(first.samples);
    const takes = [await readAt('stream', null)];
    const { cells } = judge(relay, expectedOf(relay, evaluate(relay), ['stream']), takes, players);
    expect(cells.flatMap((c) => c.disagreements.filter((d) => d.weight >= 3))).toEqual([]);
    expect(cells.filter((c) => c.read?.word === 'found').length).toBeGreaterThan(3);
  });
  it('tells, made as sound and read, what is hidden at the desk: it is among the best three explanations', async () => {
    const fault = hideFault(
      faults.filter((f) => fewestTakes(table, f.id).length <= 2 && f.edit),
      11,
    )!;
    const at = fewestTakes(table, fault.id);
    const others = listenerIds.filter((l) => !at.includes(l)).slice(0, 2);
    const takes: TakeRead[] = [];
    for (const id of [...at, ...others]) takes.push(await readAt(id, fault.id));
    const found = explain(relay, takes, players);
    expect(found.some((e) => e.faults.some((f) => f.id === fault.id))).toBe(true);
  });
});

describe('a tune’s panel in a take', () => {
  const [take] = readingsAt(relay, [], ['stream'], playersOf(relay), 2);
  const heard = take!.tunes.find((t) => t.heard)!;
  const slate = (zeroMs: number, id = heard.id) =>
    slateReading({ id, fromMs: 0, toMs: 15_000, zeroMs, offsetMs: null, boundMs: 1.5 });
  it('tells how late the sound is against the picture, whichever loop of the panel it was', () => {
    const zero = heard.heard!.atMs - 1000;
    for (const loops of [-1, 0, 2]) {
      const [read] = picturesOf([slate(zero - 84 + 16_000 * loops)], take!.tunes);
      expect(read!.offsetMs).toBeCloseTo(84, 6);
      expect(read).toMatchObject({ tune: heard.id, boundMs: 1.5, read: 200, of: 216 });
    }
  });
  it('is told no closer than its delay is steady', () => {
    const moving = take!.tunes.map((t) =>
      t.id === heard.id ? { ...t, heard: { ...t.heard!, wander: { earliestMs: -9, latestMs: 14 } } } : t,
    );
    expect(picturesOf([slate(heard.heard!.atMs - 1000)], moving)[0]!.boundMs).toBeCloseTo(15.5, 6);
  });
  it('is nothing without its sound, or without its panel', () => {
    expect(picturesOf([], take!.tunes)).toEqual([]);
    const none = take!.tunes.find((t) => !t.heard)?.id ?? 15;
    expect(
      picturesOf(
        [slate(0, none)],
        take!.tunes.filter((t) => t.id === none),
      ),
    ).toEqual([]);
  });
});
