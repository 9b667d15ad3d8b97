import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { textOf } from '#core/base/said/index.ts';
import {
  addTasks,
  applyEdit,
  type Cable,
  type Change,
  findTypes,
  READY_LEVELS,
  type Rig,
} from '#core/model/rig/index.ts';
import { randomDesk } from '#core/routing/wiring/random-desk.testkit.ts';
import { check } from '#core/rules/index.ts';
import { evaluationAt } from '#core/signal/index.ts';
import { firstStep, planAhead, stillOpen } from './index.ts';
import { DEMOS, did, readinessOf, withGoal } from './next.testkit.ts';
import { cautionsFor } from './safe.ts';
import { sayRemedy } from './say-remedy.ts';
import { secondsFor, TYPICAL_SECONDS } from './seconds.ts';
import { placesIn } from './where.ts';

const [relay] = DEMOS as [Rig];
const small = DEMOS.filter((rig) => rig !== relay);
const edited = (rig: Rig, edit: Parameters<typeof applyEdit>[1]): Rig => {
  const done = applyEdit(rig, edit);
  if (!done.ok) throw new Error(JSON.stringify(done.refusal));
  return done.rig;
};
const ahead = (rig: Rig) => planAhead(rig, { solve: null, last: null });

describe('how far a rig is', () => {
  it('is never nearer to a level that asks for more', () => {
    for (const rig of DEMOS) {
      const ready = READY_LEVELS.map((level) => readinessOf(withGoal(rig, level)).ready);
      // Once it is not ready for one level, it is for none after it.
      expect(ready).toEqual([...ready].sort((a, b) => Number(b) - Number(a)));
      expect(readinessOf(withGoal(rig, 'rehearsed'), true).ready).toBe(readinessOf(withGoal(rig, 'measured')).ready);
    }
  });
  it('counts what is confirmed against what is still to be looked at or done', () => {
    const before = readinessOf(relay).confirmed;
    expect(before.done).toBeLessThan(before.of);
    const asked = ahead(relay).steps.filter((s) => s.act.do === 'answer');
    expect(asked.length).toBeGreaterThan(0);
    const after = readinessOf(asked.reduce((rig, step) => did(rig, step), relay)).confirmed;
    expect(after.done).toBeGreaterThan(before.done);
    expect(after.of - after.done).toBeLessThan(before.of - before.done);
    const change = { deviceId: 'mixer', settingId: 'strip-1-delay', value: 20 };
    const planned = readinessOf(edited(relay, addTasks(relay, [change], '2026-12-01T10:00:00Z'))).confirmed;
    expect(planned.of - planned.done).toBe(before.of - before.done + 1);
  });
  it('is drawn by nothing that is ignored or only a warning, and never by an empty rig', () => {
    for (const rig of DEMOS) {
      const { blockers, fixes, drawn } = readinessOf(rig);
      const wrong = check(rig, evaluationAt(rig, null)).filter((f) => !f.dismissed && f.severity !== 'watch');
      expect(blockers + fixes).toBe(wrong.length);
      expect(drawn).toBe(wrong.length === 0);
      expect(readinessOf({ ...rig, plan: [] }).drawn).toBe(false);
    }
  });
});

describe('while a plan is worked out anew', () => {
  it('what was done is gone at once, and nothing that the new plan has too', () => {
    for (const rig of small) {
      const { steps } = ahead(rig);
      const [first] = steps;
      if (!first) continue;
      const now = did(rig, first);
      const open = stillOpen(steps, now, check(now, evaluationAt(now, null)));
      expect(open.map((s) => s.id)).not.toContain(first.id);
      const next = new Set(ahead(now).steps.map((s) => s.id));
      for (const step of steps) if (next.has(step.id)) expect(open.map((s) => s.id)).toContain(step.id);
      expect(stillOpen(steps, rig, check(rig, evaluationAt(rig, null)))).toEqual(steps);
    }
  });
  it('a first step is there that the rig can take, and that takes something away', () => {
    let glanced = 0;
    for (const rig of [...DEMOS, ...[2, 5, 8].map((seed) => randomDesk(seed, 12))]) {
      const step = firstStep(rig);
      if (step?.act.do !== 'change') continue;
      glanced++;
      const after = readinessOf(did(rig, step));
      const before = readinessOf(rig);
      expect(100 * after.blockers + 10 * after.fixes).toBeLessThan(100 * before.blockers + 10 * before.fixes);
    }
    expect(glanced).toBeGreaterThan(1);
  });
});

describe('where one stands', () => {
  it('is at the computer for its programs, and takes no longer than along a cable', () => {
    for (const rig of DEMOS) {
      const { at, walk, isFar } = placesIn(rig);
      const types = findTypes(rig);
      for (const d of rig.devices) if (d.on !== undefined) expect(at(d.id)).toBe(d.on);
      for (const { from, to, medium, lengthM } of rig.cables) {
        const [a, b] = [at(from.deviceId), at(to.deviceId)];
        if (medium !== 'lead' || a === b || isFar(a) || isFar(b)) continue;
        expect(walk(a, b)).toBeLessThanOrEqual(2 + lengthM + 1e-9);
        expect(walk(a, b)).toBeCloseTo(walk(b, a), 9);
      }
      expect(types.get(rig.devices.find((d) => d.id === placesIn(rig).start)!.typeId)!.nature ?? 'hardware').toBe(
        'hardware',
      );
    }
    expect(placesIn(relay).start).toBe('desk-computer');
    expect(placesIn(relay).isFar('ilse-headset')).toBe(true);
    expect(placesIn(relay).isFar('mixer')).toBe(false);
  });
  it('is never nearer by a detour along cables', () => {
    const { walk, at, isFar } = placesIn(relay);
    const joined = relay.cables
      .filter((c) => c.medium === 'lead')
      .map((c) => [at(c.from.deviceId), at(c.to.deviceId)] as const);
    const reach = new Set(['mixer']);
    for (let before = 0; before !== reach.size; ) {
      before = reach.size;
      for (const [a, b] of joined) if (reach.has(a) || reach.has(b)) reach.add(a).add(b);
    }
    const ids = [...reach].filter((id) => !isFar(id));
    expect(ids.length).toBeGreaterThan(8);
    fc.assert(
      fc.property(fc.constantFrom(...ids), fc.constantFrom(...ids), fc.constantFrom(...ids), (a, b, c) => {
        expect(walk(a, c)).toBeLessThanOrEqual(walk(a, b) + walk(b, c) + 1e-9);
      }),
    );
  });
});

describe('what is said and minded', () => {
  const xlr = relay.cables.find((c) => c.id === 'wren-xlr') as Cable;
  it('a cable takes its length, a device that is put in the longest', () => {
    const longer: Change = { cableId: xlr.id, cable: { ...xlr, lengthM: 20 } };
    expect(secondsFor(relay, [longer])).toBeCloseTo(TYPICAL_SECONDS.plug + 20 * TYPICAL_SECONDS.plugPerMetre, 9);
    expect(secondsFor(relay, [{ cableId: xlr.id, cable: null }])).toBeLessThan(secondsFor(relay, [longer]));
    const set: Change = { deviceId: 'mixer', settingId: 'strip-1-delay', value: 9 };
    expect(secondsFor(relay, [set, set])).toBe(2 * TYPICAL_SECONDS.set);
  });
  it('phantom power, the floor and ears are minded where they matter, and nowhere else', () => {
    const carried = { momentId: null, changes: [{ cableId: xlr.id, cable: { ...xlr, lengthM: 12 } }] };
    const replugged = edited(relay, {
      kind: 'batch',
      edits: [
        { kind: 'unplug', cableId: xlr.id },
        { kind: 'plug', cable: { ...xlr, lengthM: 12 } },
      ],
    });
    expect(cautionsFor(relay, replugged, carried)).toEqual(['phantom', 'floor']);
    const unplugged = edited(relay, { kind: 'unplug', cableId: xlr.id });
    expect(cautionsFor(unplugged, relay, { momentId: null, changes: [{ cableId: xlr.id, cable: xlr }] })).toContain(
      'ears',
    );
    const quiet = { momentId: null, changes: [{ deviceId: 'mixer', settingId: 'strip-1-delay', value: 3 }] };
    const delayed = edited(relay, {
      kind: 'set-setting',
      deviceId: 'mixer',
      settingId: 'strip-1-delay',
      setting: { value: 3, known: 'confirmed' },
    });
    expect(cautionsFor(relay, delayed, quiet)).toEqual([]);
  });
  it('settings are named with their device, a few of them, the rest counted', () => {
    const setting = (n: number): Change => ({ deviceId: 'mixer', settingId: `strip-${n}-delay`, value: 10 * n });
    const says = (...changes: Change[]) => textOf(sayRemedy(relay, { key: '', label: null, momentId: null, changes }));
    expect(says(setting(1))).toContain('next.setOne(Mixer');
    expect(says(setting(1), setting(2))).toContain('next.setSeveral(Mixer');
    const many = says(setting(1), setting(2), setting(3), setting(4), {
      deviceId: 'capture-program',
      settingId: 'in-1-sound-delay',
      value: 5,
    });
    expect(many).toContain('next.moreSettings(3)');
    expect(many).toContain('next.setOnSeveral');
  });
});
