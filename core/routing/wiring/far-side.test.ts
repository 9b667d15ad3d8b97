import { describe, expect, it } from 'vitest';
import { textOf } from '#core/base/said/index.ts';
import { applyEdit, type Edit, parseRig, type Rig } from '#core/model/rig/index.ts';
import { guestSheet } from '#core/output/sheets/index.ts';
import { check } from '#core/rules/index.ts';
import { evaluate } from '#core/signal/index.ts';
import { boathouse } from '#demo/boathouse.ts';
import { clayHour } from '#demo/clay-hour.ts';
import { quayTalk } from '#demo/quay-talk.ts';
import { addFarSeat, addSpareSeat, callsOf, FAR_GEAR, farSeats, setFarGear } from './index.ts';

const read = (rig: unknown): Rig => parseRig(JSON.parse(JSON.stringify(rig)));
const applied = (rig: Rig, edit: Edit): Rig => {
  const done = applyEdit(rig, edit);
  if (!done.ok) throw new Error(textOf(done.refusal.reason));
  expect(applyEdit(done.rig, done.inverse)).toMatchObject({ ok: true, rig });
  return done.rig;
};
const ways = (rig: Rig, sourceId: string, listenerId: string) =>
  evaluate(rig).pairs.find((p) => p.sourceId === sourceId && p.listenerId === listenerId)!.ways;

describe('the far side of a call', () => {
  it('is known by who is there, with what, and who they are among sources and listeners', () => {
    expect(farSeats(read(boathouse))).toMatchObject([
      { callId: 'call', personId: 'ilse', gearId: 'ilse-headset', sourceId: 'ilse', listenerId: 'ilse' },
    ]);
    expect(farSeats(read(quayTalk))).toEqual([]);
    expect(callsOf(read(quayTalk))).toEqual([]);
  });
  it('takes other gear by one answer: it hears and is heard as before, and what is wanted stays', () => {
    for (const demo of [boathouse, clayHour].map(read))
      for (const gear of FAR_GEAR) {
        const [seat] = farSeats(demo);
        const rig = applied(demo, setFarGear(demo, seat!, gear));
        const [now] = farSeats(rig);
        expect(now).toMatchObject({ gear, sourceId: seat!.sourceId, listenerId: seat!.listenerId });
        expect(rig.plan).toEqual(demo.plan);
        const here = demo.listeners.find((l) => ways(demo, seat!.sourceId, l.id).length > 0)!;
        expect(ways(rig, seat!.sourceId, here.id).length, `${gear.typeId} is heard`).toBeGreaterThan(0);
        const main = demo.sources.find((s) => ways(demo, s.id, seat!.listenerId!).length > 0)!;
        expect(ways(rig, main.id, seat!.listenerId!).length, `${gear.typeId} hears`).toBeGreaterThan(0);
      }
  });
  it('is joined by somebody more, who hears all but themselves and is heard', () => {
    const demo = read(clayHour);
    const rig = applied(demo, addFarSeat(demo, 'call', 'Éva'));
    const seat = farSeats(rig).find((s) => s.personId === 'eva')!;
    expect(ways(rig, 'teacher', seat.listenerId!)).toHaveLength(1);
    expect(ways(rig, 'eva', 'teacher').length).toBeGreaterThan(0);
    expect(rig.plan.find((c) => c.sourceId === 'eva' && c.listenerId === 'eva')).toMatchObject({ want: 'must-not' });
    expect(check(rig).some((f) => f.id === 'plan-unwanted:eva>eva')).toBe(true);
    expect(applied(rig, addFarSeat(rig, 'call', 'Éva')).devices.some((d) => d.id === 'eva-2')).toBe(true);
  });
  it('has a spare seat that records what they hear, and is to get what they get', () => {
    const demo = read(clayHour);
    const rig = applied(demo, addSpareSeat(demo, 'call'));
    const [theirs] = ways(rig, 'teacher', 'pupil');
    const [spare] = ways(rig, 'teacher', 'spare-seat');
    expect(spare!.delay.value.nominal).toBeLessThanOrEqual(theirs!.delay.value.nominal);
    expect(rig.plan.filter((c) => c.listenerId === 'spare-seat').map((c) => c.sourceId)).toEqual(['music', 'teacher']);
  });
});

describe('the sheet for a guest', () => {
  it('says what follows from the rig: what they hear, how to set their end, where their voice goes', () => {
    const demo = read(boathouse);
    const [seat] = farSeats(demo);
    const sheet = guestSheet(demo, seat!);
    expect(sheet).toContain('# sheets.guestTitle(Boathouse relay, Ilse, on the call)');
    expect(sheet).toMatch(/Couch game, Ambrose, jingles, Wren, voice|Couch game, Wren, voice, Ambrose, jingles/);
    expect(sheet).toContain('sheets.switchNoiseSuppressionAnd');
    expect(sheet).toMatch(/sheets\.yourVoiceGoesTo\(list\.and\(Stream, .*Backup recorder/);
    expect(sheet).toContain('sheets.whenWeSaySo');
    expect(sheet).toContain('sheets.agreedNameDate');
    const loud = applied(demo, setFarGear(demo, seat!, FAR_GEAR[2]!));
    expect(guestSheet(loud, farSeats(loud)[0]!)).toContain('sheets.youListenOnSpeaker');
  });
});
