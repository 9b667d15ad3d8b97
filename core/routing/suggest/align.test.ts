import { describe, expect, it } from 'vitest';
import { textOf } from '#core/base/said/index.ts';
import { applyEdit, findSetting, findTypes, markDone, parseRig, type Rig, refuseValue } from '#core/model/rig/index.ts';
import { frameMs } from '#core/model/units/index.ts';
import { delaySettingsFor, evaluate, toleranceIdOf, toleranceOf } from '#core/signal/index.ts';
import { boathouse } from '#demo/boathouse.ts';
import { alignListener } from './index.ts';

const rig = parseRig(JSON.parse(JSON.stringify(boathouse)));
const types = findTypes(rig);

function carryOut(r: Rig, listenerId: string): Rig {
  const { changes } = alignListener(r, evaluate(r), listenerId);
  const done = applyEdit(r, markDone(r, changes));
  if (!done.ok) throw new Error(textOf(done.refusal.reason));
  return done.rig;
}

/** A take showed that the couch's sound comes later than was thought. */
function lateCouch(from: Rig): Rig {
  const late = applyEdit(from, {
    kind: 'add-measurement',
    measurement: {
      kind: 'delay',
      id: 'm1',
      label: 'clap',
      takenAt: '2026-11-25T10:00:00Z',
      sourceId: 'couch',
      listenerId: 'track-3',
      terms: [
        { figure: 'camera.sound', sign: 1 },
        { figure: 'camera-capture.sound', sign: 1 },
        { figure: 'camera.picture', sign: -1 },
        { figure: 'camera-capture.picture', sign: -1 },
      ],
      ms: { mean: 90, sd: 1, count: 4 },
      offsetMs: 90,
    },
  });
  if (!late.ok) throw new Error(textOf(late.refusal.reason));
  return late.rig;
}

describe('aligning one listener', () => {
  it('brings every source of the stream into tolerance, and says beforehand what it will do', () => {
    const evaluation = evaluate(rig);
    const { sources } = alignListener(rig, evaluation, 'stream');
    const after = evaluate(carryOut(rig, 'stream'));
    expect(sources.length).toBe(6);
    for (const { sourceId, beforeMs, afterMs, met, why } of sources) {
      const pair = after.pairs.find((p) => p.sourceId === sourceId && p.listenerId === 'stream')!;
      const was = evaluation.pairs.find((p) => p.sourceId === sourceId && p.listenerId === 'stream')!;
      expect(beforeMs).toBeCloseTo(was.ways[0]!.offset!.value.nominal, 9);
      expect(pair.ways[0]!.offset!.value.nominal).toBeCloseTo(afterMs, 9);
      expect(Math.abs(afterMs)).toBeLessThan(10);
      expect({ met, why }).toEqual({ met: true, why: 'met' });
    }
  });
  it('proposes only what the devices can do', () => {
    for (const listener of rig.listeners) {
      for (const change of alignListener(rig, evaluate(rig), listener.id).changes) {
        expect(refuseValue(findSetting(rig, types, change.deviceId, change.settingId)!, change.value)).toBeUndefined();
      }
    }
  });
  it('changes nothing where all is well, and nothing more the second time', () => {
    const once = carryOut(rig, 'stream');
    expect(alignListener(once, evaluate(once), 'stream').changes).toEqual([]);
  });
  it('takes back a delay that is needless by now, instead of adding another against it', () => {
    const total = (r: Rig) =>
      delaySettingsFor(r, evaluate(r), 'track-3').reduce(
        (sum, k) => sum + k.value * (k.spec.unit === 'frames' ? frameMs(r.session.frameRate) : 1),
        0,
      );
    const late = lateCouch(rig);
    const fresh = total(carryOut(late, 'track-3'));
    expect(fresh).toBeGreaterThan(50);
    const knobs = delaySettingsFor(late, evaluate(late), 'track-3').filter((k) => k.spec.unit === 'ms');
    for (const { deviceId, spec } of knobs) {
      const stale = applyEdit(late, {
        kind: 'set-setting',
        deviceId,
        settingId: spec.id,
        setting: { value: Math.min(spec.max, 90), known: 'confirmed' },
      });
      if (!stale.ok) throw new Error(textOf(stale.refusal.reason));
      expect(total(carryOut(stale.rig, 'track-3')), `${deviceId} ${spec.id}`).toBeLessThanOrEqual(fresh + 1);
    }
  });
  it('delays the picture where the sound is late', () => {
    const late = lateCouch(rig);
    const { changes, sources } = alignListener(late, evaluate(late), 'track-3');
    expect(changes).toContainEqual({ deviceId: 'capture-program', settingId: 'in-2-picture-delay', value: 94 });
    expect(sources.find((s) => s.sourceId === 'couch')!.met).toBe(true);
  });
  it('says what cannot be met and why', () => {
    // The players look at a screen that nothing can delay: their game is early or late for good.
    const slow = applyEdit(rig, {
      kind: 'set-setting',
      deviceId: 'big-screen',
      settingId: 'mode',
      setting: { value: 'film', known: 'confirmed' },
    });
    if (!slow.ok) throw new Error();
    const far = applyEdit(slow.rig, {
      kind: 'set-setting',
      deviceId: 'mixer',
      settingId: 'strip-5-6-delay',
      setting: { value: 400, known: 'confirmed' },
    });
    if (!far.ok) throw new Error();
    expect(alignListener(far.rig, evaluate(far.rig), 'players').sources[0]).toMatchObject({
      sourceId: 'couch-game',
      met: true,
    });
    const stuck = alignListener(rig, evaluate(rig), 'backup');
    expect(stuck.sources).toEqual([]);
  });
  it('finds what trying everything finds, on the two settings that decide one track', () => {
    const tolerance = toleranceOf(toleranceIdOf(rig, rig.listeners.find((l) => l.id === 'track-3')!));
    const { sources } = alignListener(rig, evaluate(rig), 'track-3');
    const couch = sources.find((s) => s.sourceId === 'couch')!;
    let best = Number.POSITIVE_INFINITY;
    for (let sound = 0; sound <= 200; sound++) best = Math.min(best, Math.abs(couch.beforeMs + sound));
    expect(Math.abs(couch.afterMs)).toBeCloseTo(best, 6);
    expect(couch.afterMs).toBeGreaterThan(tolerance.earlyMs);
  });
});
