import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { textOf } from '#core/base/said/index.ts';
import { applyEdit, findTypes, markDone, parseRig, type Rig, type SettingChange } from '#core/model/rig/index.ts';
import { casesOf } from '#core/model/units/proofs.testkit.ts';
import { desk } from '#core/rules/check.testkit.ts';
import { evaluate } from '#core/signal/index.ts';
import { boathouse } from '#demo/boathouse.ts';
import { gliderCorner } from '#demo/glider-corner.ts';
import { quayTalk } from '#demo/quay-talk.ts';
import { skerryNet } from '#demo/skerry-net.ts';
import { solveRouting, totalOf } from './index.ts';
import { priceOfOutcome, turningPrices } from './price.ts';
import { wrongsOf } from './wrongs.ts';

const read = (rig: unknown): Rig => parseRig(JSON.parse(JSON.stringify(rig)));
const relay = read(boathouse);
const so = (rig: Rig, changes: readonly SettingChange[]): Rig => {
  const done = applyEdit(rig, markDone(rig, changes));
  if (!done.ok) throw new Error(textOf(done.refusal.reason));
  return done.rig;
};
const wrongs = (rig: Rig) => wrongsOf(evaluate(rig)).length;

/** Two voices, two microphones with a switch and a mute each, a small mixer's strips as doors, two recorders. */
function smallDesk(wants: readonly (readonly [string, 'must' | 'must-not'])[], shut: readonly string[]): Rig {
  const rig = desk(
    {
      v: 'person',
      w: 'person',
      m: 'microphone-usb',
      n: 'headset-usb',
      p: 'computer-desktop',
      a: 'recording-program',
      b: 'call',
      q: 'audience',
    },
    [
      'v.voice > m.capsule 0.15 air',
      'w.voice > n.boom 0.15 air',
      'm.usb > p.usb-1',
      'n.usb-out > p.usb-2',
      'p.from-usb-1 > a.in-1 software',
      'p.from-usb-2 > a.in-2 software',
      'p.from-usb-1 > b.near-microphone software',
      'p.from-usb-2 > b.near-microphone software',
      'b.far-loudspeaker > q.ears software',
    ],
    {
      sources: ['v: v.voice', 'w: w.voice'],
      listeners: ['one: a.track-1', 'two: a.track-2', 'far: q.ears'],
      set: Object.fromEntries(shut.map((key) => [key, true])),
    },
  );
  return {
    ...rig,
    sources: rig.sources.map((s) => ({ ...s, level: [74, 77, 80] })),
    plan: wants.map(([pair, want]) => {
      const [sourceId, listenerId] = pair.split('>') as [string, string];
      return { sourceId, listenerId, want };
    }),
  };
}

/**
 * A console that comes to the stream twice: by its capture device, and over an extractor and a converter. With `level`,
 * both ways are in one device without a mute, whose second way has a level that does not go down to nothing; with `under`,
 * there is a voice, and the game is wanted 12 dB under it.
 */
function twoWays(more: readonly ('level' | 'under')[]): Rig {
  const has = (what: (typeof more)[number]) => more.includes(what);
  const boxType: Rig['types'][number] = {
    id: 'two-way-box',
    name: 'Two ways',
    family: 'tests',
    summary: '',
    ports: [
      { id: 'in', name: 'in', direction: 'in', connector: 'software', level: 'software', channels: [SOUND] },
      { id: 'out', name: 'out', direction: 'out', connector: 'software', level: 'software', channels: [SOUND] },
      { id: 'late', name: 'late', direction: 'inside', connector: 'software', level: 'software', channels: [SOUND] },
    ],
    settings: [{ id: 'level', name: 'Level', kind: 'gain', min: -40, max: 0, step: 1, default: 0, offAtMin: false }],
    figures: {
      late: { label: 'late', unit: 'ms', range: [30, 30, 30], kind: 'typical', source: 'a test' },
    },
    inside: [
      { from: 'in.mono', to: 'out.mono', stages: [] },
      { from: 'in.mono', to: 'late.mono', stages: [{ do: 'latency', figure: 'late' }] },
      { from: 'late.mono', to: 'out.mono', stages: [{ do: 'gain', setting: 'level' }] },
    ],
  };
  const boxes = {
    console: 'game-console',
    split: 'hdmi-splitter',
    card: 'capture-usb-compressed',
    ext: 'hdmi-extractor',
    conv: 'line-to-usb',
    pc: 'computer-desktop',
    p: 'capture-program',
    ...(has('level') && { box: 'two-way-box' }),
    ...(has('under') && { v: 'person', m: 'microphone-usb' }),
  };
  const one = has('level') || has('under');
  const rig = desk(
    boxes,
    [
      'console.hdmi > split.in',
      'split.out-1 > card.hdmi',
      'card.usb > pc.usb-1',
      ...(has('level')
        ? ['pc.from-usb-1 > box.in software left=mono', 'box.out > p.in-1 software mono=left']
        : ['pc.from-usb-1 > p.in-1 software']),
      ...(one
        ? []
        : ['split.out-2 > ext.in', 'ext.line > conv.line', 'conv.usb > pc.usb-2', 'pc.from-usb-2 > p.in-2 software']),
      ...(has('under') ? ['v.voice > m.capsule 0.15 air', 'm.usb > pc.usb-3', 'pc.from-usb-3 > p.in-3 software'] : []),
    ],
    {
      types: has('level') ? [boxType] : [],
      sources: ['game: console.hdmi', ...(has('under') ? ['voice: v.voice'] : [])],
      listeners: ['stream: p.stream'],
    },
  );
  const want = (sourceId: string, under?: number): Rig['plan'][number] => ({
    sourceId,
    listenerId: 'stream',
    want: 'must',
    ...(under !== undefined && { underVoiceDb: under }),
  });
  return {
    ...rig,
    sources: rig.sources.map((s) =>
      s.id === 'voice' ? { ...s, level: [74, 77, 80] } : { ...s, level: [-24, -20, -16] },
    ),
    plan: has('under') ? [want('voice'), want('game', 12)] : [want('game')],
  };
}
const SOUND = { id: 'mono', carries: 'sound' } as const;

/** Every switched door of a rig turned to another position: what a person could try. */
function everyFlip(rig: Rig): SettingChange[] {
  const types = findTypes(rig);
  return rig.devices.flatMap((device) =>
    types.get(device.typeId)!.settings.flatMap((spec): SettingChange[] => {
      const now = device.settings[spec.id]?.value ?? spec.default;
      const to = (value: SettingChange['value']) => ({ deviceId: device.id, settingId: spec.id, value });
      if (spec.kind === 'mute') return [to(!now)];
      if (spec.kind === 'gain' && spec.offAtMin) return [to(now === spec.min ? Math.min(0, spec.max) : spec.min)];
      return spec.kind === 'switch' ? spec.options.filter((o) => o.value !== now).map((o) => to(o.value)) : [];
    }),
  );
}

/** What a set of settings costs; how near the place it is, which only orders equals, aside. */
function priceOf(rig: Rig, changes: readonly SettingChange[]): number {
  const before = evaluate(rig);
  const turning = turningPrices(rig);
  return totalOf([
    ...changes.flatMap((c) => turning(c, 0)),
    ...priceOfOutcome(rig, before, evaluate(so(rig, changes), before)),
  ]);
}

/** The cheapest flips that mend a rig and are all needed, by trying all sets of up to two; null where none of them does. */
function bruteForce(rig: Rig): { size: number; price: number } | null {
  const flips = everyFlip(rig);
  const sets = [[], ...flips.map((f) => [f]), ...flips.flatMap((f, i) => flips.slice(i + 1).map((g) => [f, g]))];
  const mends = (set: readonly SettingChange[]) => wrongs(so(rig, set)) === 0;
  // Each of its settings is needed: nothing is turned that mends nothing.
  const does = sets
    .filter((set) => mends(set) && !set.some((c) => mends(set.filter((x) => x !== c))))
    .map((set) => ({ size: set.length, price: priceOf(rig, set) }));
  return does.length > 0 ? does.reduce((x, y) => (y.price < x.price - 1e-9 ? y : x)) : null;
}

const PAIRS = ['v>one', 'v>two', 'v>far', 'w>one', 'w>two', 'w>far'];
const DOORS = ['m.mute', 'n.microphone-mute', 'b.near-mute', 'a.in-1-mute', 'a.track-1-off', 'a.track-2-off'];

describe('make it so', () => {
  it('costs as little as the cheapest of all sets that do, on small desks', () => {
    let mended = 0;
    fc.assert(
      fc.property(
        fc.uniqueArray(fc.tuple(fc.constantFrom(...PAIRS), fc.constantFrom('must' as const, 'must-not' as const)), {
          selector: ([pair]) => pair,
          minLength: 1,
          maxLength: 4,
        }),
        fc.subarray(DOORS, { maxLength: 3 }),
        (wants, shut) => {
          const types = findTypes(smallDesk([], []));
          const known = shut.filter((key) => {
            const [box, setting] = key.split('.') as [string, string];
            const device = smallDesk([], []).devices.find((d) => d.id === box)!;
            return types.get(device.typeId)!.settings.some((s) => s.id === setting && s.kind === 'mute');
          });
          const rig = smallDesk(wants, known);
          const { changes, left, proved } = solveRouting(rig);
          expect(wrongs(so(rig, changes))).toBe(left.length);
          const cheapest = bruteForce(rig);
          if (cheapest !== null) {
            expect(left).toEqual([]);
            expect(changes.length).toBeLessThanOrEqual(2);
            expect(priceOf(rig, changes)).toBeCloseTo(cheapest.price, 6);
            expect(proved).toBe(true);
          }
          if (cheapest === null && left.length === 0) expect(changes.length).toBeGreaterThan(2);
          if (cheapest && cheapest.size > 0) mended++;
        },
      ),
      { numRuns: casesOf(32, 80) },
    );
    expect(mended).toBeGreaterThan(casesOf(2, 4));
  });
  it('mends the Boathouse relay in at most eight changes, each needed, and breaks nothing', () => {
    const { changes, left, proved } = solveRouting(relay);
    // A microphone whose plug is shorted is no matter of settings.
    expect(left.map((l) => [l.sourceId, l.listenerId, l.stop])).toEqual([
      [
        'couch',
        'couch-safety',
        expect.objectContaining({ kind: 'no-way', breaks: [{ kind: 'lead', cableId: 'couch-lapel-lead' }] }),
      ],
    ]);
    expect(changes.length).toBeLessThanOrEqual(8);
    expect(changes.length).toBeGreaterThan(2);
    expect(proved).toBe(true);
    expect(wrongs(so(relay, changes))).toBe(left.length);
    for (const change of changes) {
      expect(change.mends.length).toBeGreaterThan(0);
      expect(
        wrongs(
          so(
            relay,
            changes.filter((c) => c !== change),
          ),
        ),
      ).toBeGreaterThan(left.length);
    }
    const before = new Set(
      evaluate(relay)
        .loops.filter((l) => l.gainDb >= -10)
        .map((l) => l.deviceIds.join()),
    );
    const after = evaluate(so(relay, changes)).loops.filter((l) => l.gainDb >= -10);
    expect(after.every((l) => before.has(l.deviceIds.join()))).toBe(true);
  });
  it('takes on the relay what leaves the console’s own track alone, and its clean sound where nothing speaks against it', () => {
    const made = solveRouting(relay);
    const after = evaluate(so(relay, made.changes));
    const onTrack = after.pairs.filter((p) => p.listenerId === 'track-2' && p.ways.length > 0);
    expect(onTrack.map((p) => p.sourceId)).toEqual(['couch-game']);
    expect(onTrack[0]!.ways[0]!.conversions).toBe(0);
    // Nothing that must be heard is as good as gone, and nothing is turned that everybody passes.
    for (const [i, was] of evaluate(relay).pairs.entries())
      if (was.want === 'must' && was.ways[0])
        expect(after.pairs[i]!.ways[0]!.levelDb.nominal).toBeGreaterThan(was.ways[0].levelDb.nominal - 20);
    expect(totalOf(made.costs)).toBeGreaterThan(made.changes.length);
    expect(made.costs.map((c) => c.kind)).toEqual(expect.arrayContaining(['turn', 'conversions', 'noise', 'level']));
  });
  it('keeps the better of two ways and closes the other where it comes in, and tells the second best with its price', () => {
    const rig = twoWays([]);
    const { changes, costs, second, left, proved } = solveRouting(rig);
    expect({ left, proved }).toEqual({ left: [], proved: true });
    // The way over the converter has two conversions more; nearest to the stream, closing it takes nothing else.
    expect(changes.map((c) => [c.deviceId, c.settingId, c.value])).toEqual([['p', 'in-2-not-on-1', true]]);
    expect(totalOf(costs)).toBeLessThan(1.1);
    expect(second!.changes.map((c) => c.deviceId)).toEqual(['p']);
    expect(totalOf(second!.costs)).toBeGreaterThan(totalOf(costs));
  });
  it('turns what is easy to forget only where nothing else does', () => {
    const rig = twoWays([]);
    const held: Rig = {
      ...rig,
      moments: [
        {
          id: 'break',
          name: 'Break',
          settings: [{ deviceId: 'p', settingId: 'in-2-not-on-1', value: true }],
          plan: [],
        },
      ],
    };
    // It stands otherwise in another moment: the mute of the same input is as good.
    expect(solveRouting(held).changes.map((c) => c.settingId)).toEqual(['in-2-mute']);
  });
  it('takes a level in between where everything that shuts takes too much', () => {
    // The guest hears the room through the one microphone that has to be heard there.
    const rig = twoWays(['level']);
    const { changes, left } = solveRouting(rig);
    expect(left).toEqual([]);
    const [change] = changes;
    expect(change).toMatchObject({ deviceId: 'box', settingId: 'level' });
    expect(change!.value).toBeGreaterThan(-40);
    expect(change!.value).toBeLessThan(0);
    const [pair] = evaluate(so(rig, changes)).pairs;
    expect(pair!.verdict.word).not.toBe('twice');
  });
  it('brings levels to where they are wanted under the voice', () => {
    const rig = twoWays(['under']);
    const { changes, left } = solveRouting(rig);
    expect(left).toEqual([]);
    const game = evaluate(so(rig, changes)).pairs.find((p) => p.sourceId === 'game')!;
    expect(Math.abs(game.underVoiceDb! - 12)).toBeLessThanOrEqual(3);
    expect(changes.some((c) => c.mends.some((m) => m.word === 'too-loud' || m.word === 'too-quiet'))).toBe(true);
  });
  it('changes nothing where all is as wanted', () => {
    for (const demo of [quayTalk, gliderCorner, skerryNet].map(read)) {
      const { changes, left } = solveRouting(demo);
      expect(changes).toEqual([]);
      expect(left.filter((l) => l.stop?.kind === 'shut')).toEqual([]);
    }
  });
  it('says what no setting brings, with where it stops, and mends the rest', () => {
    const cut: Rig = { ...relay, cables: relay.cables.filter((c) => c.id !== 'phone-line') };
    const { left, changes } = solveRouting(cut);
    expect(left.length).toBeGreaterThan(0);
    expect(left.every((l) => ['jingles', 'couch'].includes(l.sourceId) && l.stop?.kind === 'no-way')).toBe(true);
    expect(changes.length).toBeGreaterThan(0);
  });
});
