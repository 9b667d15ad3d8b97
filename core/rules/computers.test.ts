import { describe, expect, it } from 'vitest';
import { textOf } from '#core/base/said/index.ts';
import {
  applyEdit,
  choosing,
  chosenDevice,
  defaultDevice,
  type Edit,
  findTypes,
  followingDefault,
  makeDefault,
  type Rig,
  relinked,
  soundDevicesOf,
} from '#core/model/rig/index.ts';
import { evaluate, sayBreak, whereItStops } from '#core/signal/index.ts';
import { desk } from './check.testkit.ts';
import { askedBy, check, fixesOf, questionsOf } from './index.ts';

const COMPUTER = { c: { on: 'pc' }, p: { on: 'pc' }, v: { on: 'pc' } };

/** A game that plays to a mixer; a headset is plugged in beside it, and a virtual cable runs on the same computer. */
function playing(): Rig {
  return desk(
    {
      pc: 'computer-desktop',
      c: 'game-program',
      p: 'recording-program',
      h: 'headset-usb',
      m: 'mixer-usb-10',
      v: 'virtual-cable',
    },
    [
      'pc.usb-3-out > m.usb-return',
      'h.usb-out > pc.usb-1',
      'pc.usb-1-out > h.usb-in',
      'c.sound > pc.to-usb-3 software',
      'v.out > p.in-1 software',
    ],
    {
      device: COMPUTER,
      sources: ['game: c.sound'],
      listeners: ['mix: m.main-out', 'ears: h.ears', 'track: p.track-1'],
      plan: ['game > mix'],
    },
  );
}
const USB_3 = { deviceId: 'pc', portId: 'to-usb-3' };
const USB_1 = { deviceId: 'pc', portId: 'to-usb-1' };
const CABLE = { deviceId: 'v', portId: 'in' };

const done = (rig: Rig, ...edits: Edit[]): Rig =>
  edits.reduce((now, edit) => {
    const applied = applyEdit(now, edit);
    if (!applied.ok) throw new Error(textOf(applied.refusal.reason));
    const back = applyEdit(applied.rig, applied.inverse);
    expect(back).toMatchObject({ ok: true, rig: now });
    return applied.rig;
  }, rig);
const link = (rig: Rig) => rig.cables.find((c) => c.from.deviceId === 'c')!;
const heardBy = (rig: Rig): string[] =>
  evaluate(rig)
    .pairs.filter((p) => p.ways.length > 0)
    .map((p) => p.listenerId);
const rules = (rig: Rig, id: string) => check(rig).filter((f) => f.rule === id);

describe('the default device of a computer', () => {
  const start = playing();
  const byDefault = (rig: Rig) => done(rig, relinked(followingDefault(rig, link(rig))));

  it('is one of all that its system lists: sockets with what is plugged there, and ends of programs', () => {
    expect(soundDevicesOf(start, 'pc', 'play')).toEqual(expect.arrayContaining([USB_1, USB_3, CABLE]));
    expect(soundDevicesOf(start, 'pc', 'record')).toEqual(
      expect.arrayContaining([
        { deviceId: 'pc', portId: 'from-usb-1' },
        { deviceId: 'v', portId: 'out' },
      ]),
    );
    expect(chosenDevice(start, findTypes(start), link(start))).toMatchObject({ at: 'to', use: 'play', ref: USB_3 });
    expect(defaultDevice(start, 'pc', 'play')).toBeNull();
  });
  it('is followed by who has chosen nothing, wherever it goes, and by nobody else', () => {
    const usual = byDefault(done(start, makeDefault(start, 'pc', USB_3)));
    expect(heardBy(usual)).toEqual(['mix']);
    const headset = done(usual, makeDefault(usual, 'pc', USB_1));
    expect(link(headset)).toMatchObject({ to: USB_1, follows: 'default' });
    expect(heardBy(headset)).toEqual(['ears']);
    expect(defaultDevice(headset, 'pc', 'play')).toEqual(USB_1);
    const cable = done(headset, makeDefault(headset, 'pc', CABLE));
    expect(heardBy(cable)).toEqual(['track']);
    // Chosen in the program, it stays.
    const chosen = done(usual, relinked(choosing(usual, link(usual), USB_3)));
    expect(heardBy(done(chosen, makeDefault(chosen, 'pc', USB_1)))).toEqual(['mix']);
  });
  it('is told as the reason where something is missing for it, and mended in the program or in the system', () => {
    const away = byDefault(done(start, makeDefault(start, 'pc', USB_1)));
    const { graph } = evaluate(away);
    const stop = whereItStops(graph, away.sources[0]!.sound, away.listeners[0]!.sound);
    expect(stop).toMatchObject({ kind: 'no-way', breaks: [{ kind: 'default', other: USB_3 }] });
    if (stop?.kind !== 'no-way') throw new Error('it stops');
    expect(sayBreak(away, stop.breaks[0]!)).toMatchObject({
      params: { use: 'play', computer: 'pc', default: 'h', other: 'm' },
    });
    const [missing] = rules(away, 'plan-missing');
    const fixes = fixesOf(away, missing!, evaluate(away));
    expect(fixes.length).toBeGreaterThanOrEqual(2);
    for (const fix of fixes.slice(0, 2)) expect(heardBy(done(away, fix.edit))).toEqual(['mix']);
    expect(done(away, fixes[1]!.edit).cables.some((c) => c.follows)).toBe(true);
  });
  it('is watched, since what is plugged in next may become it, and asked', () => {
    expect(rules(start, 'default-moves')).toEqual([]);
    const usual = byDefault(done(start, makeDefault(start, 'pc', USB_3)));
    const assumed = {
      ...usual,
      cables: usual.cables.map((c) => (c.follows ? { ...c, known: 'assumed' as const } : c)),
    };
    const [moves] = rules(assumed, 'default-moves');
    expect(moves).toMatchObject({
      severity: 'watch',
      asks: { code: 'check.isTheDefault', params: { what: { code: 'check.theDefault' } } },
    });
    const [question] = askedBy(assumed, [moves!]);
    // As drawn; the headset and the virtual cable, that are in use too; or the mixer, chosen in the program.
    expect(question!.answers.map((a) => [a.asDrawn, a.changes.length])).toEqual([
      [true, 1],
      [false, 1],
      [false, 1],
      [false, 1],
    ]);
    const [fix] = fixesOf(assumed, moves!, evaluate(assumed));
    expect(rules(done(assumed, fix!.edit), 'default-moves')).toEqual([]);
    // Who has chosen a device is asked too, where it decides what someone hears.
    const open = {
      ...start,
      cables: start.cables.map((c) => (c.medium === 'software' ? { ...c, known: 'assumed' as const } : c)),
    };
    const asked = questionsOf(open, evaluate(open), []).find((q) => q.id === `lead:${link(open).id}`)!;
    expect(asked.decides).toBeGreaterThan(0);
  });
  it('is drawn anew where the drawing says another', () => {
    const usual = byDefault(done(start, makeDefault(start, 'pc', USB_3)));
    const odd = { ...usual, cables: usual.cables.map((c) => (c.follows ? { ...c, to: USB_1 } : c)) };
    const [elsewhere] = rules(odd, 'default-elsewhere');
    expect(elsewhere).toMatchObject({ severity: 'fix' });
    for (const fix of fixesOf(odd, elsewhere!, evaluate(odd)))
      expect(rules(done(odd, fix.edit), 'default-elsewhere')).toEqual([]);
  });
});

describe('programs on two computers', () => {
  it('hand each other nothing, whatever is drawn: the finding, the graph and the reason agree', () => {
    const rig = desk(
      { pc: 'computer-desktop', other: 'computer-laptop', c: 'game-program', p: 'recording-program' },
      ['c.sound > p.in-1 software'],
      {
        device: { c: { on: 'pc' }, p: { on: 'other' } },
        sources: ['game: c.sound'],
        listeners: ['track: p.track-1'],
        plan: ['game > track'],
      },
    );
    expect(heardBy(rig)).toEqual([]);
    expect(rules(rig, 'program-crosses-computers')).toHaveLength(1);
    const [missing] = rules(rig, 'plan-missing');
    expect(textOf(missing!.why[0]!.says)).toContain('signal.theyRunOnTwo(');
    const together = { ...rig, devices: rig.devices.map((d) => (d.id === 'p' ? { ...d, on: 'pc' } : d)) };
    expect(heardBy(together)).toEqual(['track']);
  });
});
