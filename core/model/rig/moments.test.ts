import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { textOf } from '#core/base/said/index.ts';
import { removeDevice, replaceDevice } from '#core/routing/wiring/index.ts';
import { check } from '#core/rules/index.ts';
import { evaluationAt, pairChanges } from '#core/signal/index.ts';
import { skerryNet } from '#demo/skerry-net.ts';
import {
  addTasks,
  applyEdit,
  atMoment,
  catalogue,
  differences,
  type Edit,
  editInMoment,
  markDone,
  momentName,
  parseRig,
  type Rig,
} from './index.ts';

const skerry = parseRig(JSON.parse(JSON.stringify(skerryNet)));
const applied = (rig: Rig, edit: Edit): Rig => {
  const done = applyEdit(rig, edit);
  if (!done.ok) throw new Error(textOf(done.refusal.reason));
  expect(applyEdit(done.rig, done.inverse)).toMatchObject({ ok: true, rig });
  return done.rig;
};
const want = (rig: Rig, sourceId: string, listenerId: string) =>
  rig.plan.find((c) => c.sourceId === sourceId && c.listenerId === listenerId)?.want;
const hears = (momentId: string | null, sourceId: string, listenerId: string) =>
  evaluationAt(skerry, momentId).pairs.find((p) => p.sourceId === sourceId && p.listenerId === listenerId)!;

describe('a moment of the session', () => {
  it('presses its settings and wants what it wants, over the plain rig', () => {
    const there = atMoment(skerry, 'send-a');
    expect(there.devices.find((d) => d.id === 'radio-a')!.settings.key).toEqual({ value: 'send', known: 'confirmed' });
    expect(want(there, 'operator', 'boat-a')).toBe('must');
    expect(want(there, 'operator', 'boat-b')).toBe('must-not');
    expect(atMoment(skerry, null)).toBe(skerry);
    expect(atMoment(skerry, 'gone')).toBe(skerry);
    expect([null, 'send-a', 'send-b'].map((id) => momentName(skerry, id))).toEqual(['Receive', 'Send A', 'Send B']);
  });
  it('is worked out once, and leaves the boxes that it does not touch as they are', () => {
    expect(atMoment(skerry, 'send-a')).toBe(atMoment(skerry, 'send-a'));
    const renamed = applied(skerry, { kind: 'rename', name: 'Another' });
    const [first, second] = [skerry, renamed].map((r) => atMoment(r, 'send-a').devices);
    expect(first!.map((d, i) => d === second![i]).every(Boolean)).toBe(true);
  });
  it('is heard as such: who sends is heard by one boat, and the station does not hear it meanwhile', () => {
    expect(hears(null, 'operator', 'boat-a').verdict.word).toBe('not-heard');
    expect(hears('send-a', 'operator', 'boat-a').ways).toHaveLength(1);
    expect(hears('send-a', 'operator', 'boat-b').ways).toHaveLength(0);
    expect(hears('send-a', 'boat-a', 'operator').ways).toHaveLength(0);
    const changes = pairChanges(evaluationAt(skerry, null), evaluationAt(skerry, 'send-a'));
    expect(changes).toContainEqual({ sourceId: 'operator', listenerId: 'boat-a', says: 'starts', by: 0 });
    expect(changes).toContainEqual({ sourceId: 'boat-a', listenerId: 'stream', says: 'stops', by: 0 });
    expect(pairChanges(evaluationAt(skerry, 'send-a'), evaluationAt(skerry, 'send-a'))).toEqual([]);
  });
  it('is checked: what is wrong in it alone is said of it, and mended in it', () => {
    expect(check(skerry).filter((f) => f.momentId !== null)).toEqual([]);
    const moment = skerry.moments[0]!;
    const settings = moment.settings.filter((s) => s.deviceId !== 'keying');
    const broken = applied(skerry, { kind: 'set-moment', moment: { ...moment, settings } });
    const found = check(broken).filter((f) => f.momentId !== null);
    expect(found.map((f) => f.id)).toContain('plan-missing:operator>boat-a@send-a');
    expect(found[0]!.says).toMatchObject({ code: 'check.inMoment', params: { name: 'Send A' } });
  });
});

describe('an edit in a moment', () => {
  const press: Edit = {
    kind: 'set-setting',
    deviceId: 'log-interface',
    settingId: 'direct',
    setting: { value: -90, known: 'confirmed' },
  };
  it('goes into the moment where it is pressed or wanted, and leaves it again with its likeness', () => {
    const down = applied(skerry, editInMoment(skerry, 'send-a', press));
    expect(down.devices).toEqual(skerry.devices);
    expect(differences(down, 'send-a').settings).toContainEqual({
      deviceId: 'log-interface',
      settingId: 'direct',
      from: 0,
      to: -90,
    });
    const up = editInMoment(down, 'send-a', { ...press, setting: { value: 0, known: 'confirmed' } });
    expect(applied(down, up).moments).toEqual(skerry.moments);
    const cell = { sourceId: 'boat-b', listenerId: 'stream', want: 'must-not' as const };
    const planned = applied(skerry, editInMoment(skerry, 'send-b', { kind: 'set-plan', ...cell, cell }));
    expect(planned.plan).toEqual(skerry.plan);
    expect(want(atMoment(planned, 'send-b'), 'boat-b', 'stream')).toBe('must-not');
    expect(want(atMoment(planned, 'send-a'), 'boat-b', 'stream')).toBe('must');
  });
  it('opens no task, whatever verb it came by; what cannot be pressed stays the rig’s', () => {
    const changes = [{ deviceId: 'radio-b', settingId: 'key', value: 'send' }];
    const there = atMoment(skerry, 'send-a');
    for (const edit of [markDone(there, changes), addTasks(there, changes, '2026-11-25T10:00:00.000Z')]) {
      const done = applied(skerry, editInMoment(skerry, 'send-a', edit));
      expect(done.tasks).toEqual([]);
      expect(done.devices).toEqual(skerry.devices);
      expect(atMoment(done, 'send-a').devices.find((d) => d.id === 'radio-b')!.settings.key!.value).toBe('send');
    }
    const rename: Edit = { kind: 'rename', name: 'Skerry' };
    expect(editInMoment(skerry, 'send-a', rename)).toEqual(rename);
    expect(editInMoment(skerry, null, press)).toBe(press);
  });
});

describe('what a moment points to', () => {
  it('is refused where it is not there, or stands twice, or is out of range', () => {
    const moment = skerry.moments[0]!;
    const refused = (settings: typeof moment.settings, plan = moment.plan) =>
      applyEdit(skerry, { kind: 'set-moment', moment: { ...moment, settings, plan } });
    const key = { deviceId: 'radio-a', settingId: 'key', value: 'send' };
    expect(refused([key, key])).toMatchObject({
      ok: false,
      refusal: { reason: { params: { problem: { code: 'rig.isThereTwiceIn' } } } },
    });
    expect(refused([{ ...key, value: 'shout' }]).ok).toBe(false);
    expect(refused([{ ...key, deviceId: 'nobody' }]).ok).toBe(false);
    expect(refused([{ ...key, settingId: 'colour' }]).ok).toBe(false);
    expect(refused([], [{ sourceId: 'nobody', listenerId: 'stream', want: 'may' }]).ok).toBe(false);
    expect(applyEdit(skerry, { kind: 'set-moment', moment: { ...moment, id: 'gone' } }).ok).toBe(false);
    expect(() => parseRig({ ...skerry, moments: [moment, moment] })).toThrow(/duplicateId/);
  });
  it('goes with the box, and a box that takes another’s place keeps what it has too', () => {
    fc.assert(
      fc.property(fc.constantFrom(...skerry.devices), fc.constantFrom(...catalogue), (device, type) => {
        const without = applied(skerry, removeDevice(skerry, device.id));
        expect(without.moments.flatMap((m) => m.settings).some((s) => s.deviceId === device.id)).toBe(false);
        const replaced = replaceDevice(skerry, device.id, type);
        if (replaced) applied(skerry, replaced.edit);
      }),
      { numRuns: 60 },
    );
  });
  it('may be added in a place of its own, and taken out', () => {
    const third = { id: 'break', name: 'Break', settings: [], plan: [] };
    const more = applied(skerry, { kind: 'add-moment', moment: third, at: 1 });
    expect(more.moments.map((m) => m.id)).toEqual(['send-a', 'break', 'send-b']);
    expect(applied(more, { kind: 'remove-moment', momentId: 'break' })).toEqual(skerry);
  });
});
