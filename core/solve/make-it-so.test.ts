import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { desk } from '#core/check/check.testkit.ts';
import { alreadySo, applyEdit, findTypes, parseRig, type Rig, type SettingChange } from '#core/rig/index.ts';
import { evaluate } from '#core/signal/index.ts';
import { boathouse } from '#demo/boathouse.ts';
import { gliderCorner } from '#demo/glider-corner.ts';
import { quayTalk } from '#demo/quay-talk.ts';
import { skerryNet } from '#demo/skerry-net.ts';
import { makeItSo } from './index.ts';
import { wrongsOf } from './wrongs.ts';

const read = (rig: unknown): Rig => parseRig(JSON.parse(JSON.stringify(rig)));
const relay = read(boathouse);
const so = (rig: Rig, changes: readonly SettingChange[]): Rig => {
  const done = applyEdit(rig, alreadySo(rig, changes));
  if (!done.ok) throw new Error(done.refusal.reason);
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

/** The fewest flips that mend a rig, by trying all sets of up to two; null where none of them does. */
function bruteForce(rig: Rig): number | null {
  if (wrongs(rig) === 0) return 0;
  const flips = everyFlip(rig);
  if (flips.some((f) => wrongs(so(rig, [f])) === 0)) return 1;
  for (let i = 0; i < flips.length; i++)
    for (let j = i + 1; j < flips.length; j++) if (wrongs(so(rig, [flips[i]!, flips[j]!])) === 0) return 2;
  return null;
}

const PAIRS = ['v>one', 'v>two', 'v>far', 'w>one', 'w>two', 'w>far'];
const DOORS = ['m.mute', 'n.microphone-mute', 'b.near-mute', 'a.in-1-mute', 'a.track-1-off', 'a.track-2-off'];

describe('make it so', () => {
  it('needs as few changes as trying all of them has it, on small desks', () => {
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
          const { changes, left, proved } = makeItSo(rig);
          expect(wrongs(so(rig, changes))).toBe(left.length);
          const fewest = bruteForce(rig);
          if (fewest !== null) expect({ left, changes: changes.length }).toEqual({ left: [], changes: fewest });
          if (fewest === null && left.length === 0) expect(changes.length).toBeGreaterThan(2);
          if (left.length === 0) expect(proved).toBe(true);
          if (fewest) mended++;
        },
      ),
      { numRuns: 80 },
    );
    expect(mended).toBeGreaterThan(4);
  });
  it('mends the Boathouse relay in at most eight changes, each needed, and breaks nothing', () => {
    const { changes, left, proved } = makeItSo(relay);
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
  it('changes nothing where all is as wanted', () => {
    for (const demo of [quayTalk, gliderCorner, skerryNet].map(read)) {
      const { changes, left } = makeItSo(demo);
      expect(changes).toEqual([]);
      expect(left.filter((l) => l.stop?.kind === 'shut')).toEqual([]);
    }
  });
  it('says what no setting brings, with where it stops, and mends the rest', () => {
    const cut: Rig = { ...relay, cables: relay.cables.filter((c) => c.id !== 'phone-line') };
    const { left, changes } = makeItSo(cut);
    expect(left.length).toBeGreaterThan(0);
    expect(left.every((l) => ['jingles', 'couch'].includes(l.sourceId) && l.stop?.kind === 'no-way')).toBe(true);
    expect(changes.length).toBeGreaterThan(0);
  });
});
