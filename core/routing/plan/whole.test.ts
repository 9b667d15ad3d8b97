import { describe, expect, it } from 'vitest';
import { textOf } from '#core/base/said/index.ts';
import { applyEdit, atMoment, type Edit, parseRig, type Rig } from '#core/model/rig/index.ts';
import { desk } from '#core/rules/check.testkit.ts';
import { evaluate } from '#core/signal/index.ts';
import { clayHour } from '#demo/clay-hour.ts';
import { mothNight } from '#demo/moth-night.ts';
import { quayTalk } from '#demo/quay-talk.ts';
import { skerryNet } from '#demo/skerry-net.ts';
import { type Bridge, makeWhole } from './index.ts';

const read = (rig: unknown): Rig => parseRig(JSON.parse(JSON.stringify(rig)));
const missing = (rig: Rig): string[] =>
  evaluate(rig)
    .pairs.filter((p) => p.verdict.word === 'missing')
    .map((p) => `${p.sourceId}>${p.listenerId}`);

/** The rig with a bridge built in, as one step. */
function built(rig: Rig, bridge: Bridge): Rig {
  const edits: Edit[] = [
    ...(bridge.box ? [bridge.box.edit] : []),
    ...bridge.cables.map((cable): Edit => ({ kind: 'plug', cable })),
    ...bridge.changes.map(
      ({ deviceId, settingId, value }): Edit => ({
        kind: 'set-setting',
        deviceId,
        settingId,
        setting: { value, known: 'confirmed' },
      }),
    ),
  ];
  const done = applyEdit(rig, { kind: 'batch', edits });
  if (!done.ok) throw new Error(textOf(done.refusal.reason));
  return done.rig;
}

describe('what settings cannot bring', () => {
  it('is brought by a lead again, whichever lead somebody forgot: on three demos', () => {
    let forgotten = 0;
    let boxed = 0;
    for (const demo of [quayTalk, skerryNet, clayHour].map(read))
      for (const cable of demo.cables) {
        if (!['lead', 'software'].includes(cable.medium)) continue;
        const rig: Rig = { ...demo, cables: demo.cables.filter((c) => c !== cable) };
        const gone = missing(rig);
        if (gone.length === 0) continue;
        const { bridges, left } = makeWhole(rig);
        const [stuck] = left.filter((l) => l.stop?.kind === 'no-way');
        if (!stuck) continue;
        forgotten++;
        const told = `${demo.name} without ${cable.id}`;
        expect(bridges.length, told).toBeGreaterThan(0);
        const mended = built(rig, bridges[0]!);
        expect(missing(mended).length, told).toBeLessThan(gone.length);
        // Only a headset that a program plays to by its very socket has no cable of its own again.
        if (bridges[0]!.box) boxed++;
      }
    expect(forgotten).toBeGreaterThan(12);
    expect(boxed).toBeLessThan(3);
  });
  it('is brought by a box where no lead fits, with what it costs', () => {
    // A phone's jack and a program: between them nothing that is there takes the one and hands on the other.
    const rig: Rig = {
      ...desk({ f: 'phone', p: 'computer-laptop', c: 'recording-program' }, [], {
        sources: ['f: f.jack'],
        listeners: ['t: c.track-1'],
      }),
      plan: [{ sourceId: 'f', listenerId: 't', want: 'must' }],
    };
    const linked: Rig = {
      ...rig,
      cables: [
        {
          id: 'in',
          from: { deviceId: 'p', portId: 'from-usb-1' },
          to: { deviceId: 'c', portId: 'in-1' },
          medium: 'software',
          lengthM: 0,
          known: 'confirmed',
        },
      ],
    };
    const { bridges } = makeWhole(linked);
    expect(bridges.length).toBeGreaterThan(0);
    const [bridge] = bridges;
    expect(bridge!.box).not.toBeNull();
    expect(bridge!.cables).toHaveLength(2);
    expect(bridge!.priceEur[1]).toBeGreaterThan(bridge!.priceEur[0]);
    expect(missing(built(linked, bridge!))).toEqual([]);
  });
});

describe('wishes that clash', () => {
  it('are told with the wish that would have to go', () => {
    // One way only, and two wishes about what is on it.
    const rig: Rig = {
      ...desk(
        { v: 'person', w: 'person', m: 'microphone-usb', p: 'computer-laptop', a: 'recording-program' },
        [
          'v.voice > m.capsule 0.15 air',
          'w.voice > m.capsule 0.15 air',
          'm.usb > p.usb-1',
          'p.from-usb-1 > a.in-1 0 software',
        ],
        { sources: ['v: v.voice', 'w: w.voice'], listeners: ['t: a.track-1'] },
      ),
      plan: [
        { sourceId: 'v', listenerId: 't', want: 'must' },
        { sourceId: 'w', listenerId: 't', want: 'must-not' },
      ],
    };
    const loud: Rig = { ...rig, sources: rig.sources.map((s) => ({ ...s, level: [74, 77, 80] })) };
    const { left, clashes } = makeWhole(loud);
    expect(left).toHaveLength(1);
    expect(clashes).toHaveLength(1);
    expect([left[0]!.sourceId, clashes[0]!.with.sourceId].sort()).toEqual(['v', 'w']);
  });
});

describe('each moment of a demo', () => {
  it('is made so by its own settings: the class in three, questions from home in two', () => {
    expect(makeWhole(read(clayHour))).toMatchObject({ changes: { length: 3 }, left: [], proved: true });
    const moth = read(mothNight);
    const needed = [null, ...moth.moments.map((m) => m.id)].map((id) => makeWhole(atMoment(moth, id)));
    expect(needed.map((m) => m.changes.length)).toEqual([0, 2, 0]);
    expect(needed.every((m) => m.left.length === 0)).toBe(true);
    const skerry = read(skerryNet);
    for (const id of [null, ...skerry.moments.map((m) => m.id)])
      expect(makeWhole(atMoment(skerry, id))).toMatchObject({ changes: [], left: [] });
  });
});
