import { describe, expect, it } from 'vitest';
import { alreadySo, applyEdit, type Edit, parseRig, type Rig } from '#core/rig/index.ts';
import { evaluate } from '#core/signal/index.ts';
import { airMs } from '#core/units/index.ts';
import { boathouse } from '#demo/boathouse.ts';
import { type PictureReading, reconcileDrift, reconcilePicture } from './index.ts';

const rig = parseRig(JSON.parse(JSON.stringify(boathouse)));
const apply = (r: Rig, edit: Edit): Rig => {
  const done = applyEdit(r, edit);
  if (!done.ok) throw new Error(done.refusal.reason);
  return done.rig;
};
const reading = (more: Partial<PictureReading> = {}): PictureReading => ({
  id: 'm1',
  label: 'couch clap',
  takeId: '7a4e0000-0000-4000-8000-000000000001',
  takenAt: '2026-11-25T10:00:00Z',
  sourceId: 'couch',
  listenerId: 'stream',
  offsetMs: 64,
  sdMs: 4.8,
  count: 4,
  ...more,
});
const offsetOf = (r: Rig, sourceId = 'couch', listenerId = 'stream') =>
  evaluate(r).pairs.find((p) => p.sourceId === sourceId && p.listenerId === listenerId)!.ways[0]!.offset!;

describe('a take’s offset in the rig', () => {
  it('is what the rig then says, whatever it said before', () => {
    const done = reconcilePicture(rig, evaluate(rig), reading());
    if (!done.ok) throw new Error(done.reason);
    expect(done.now.kind).toBe('typical');
    expect(done.after.value.nominal).toBeCloseTo(64, 3);
    expect(done.after.kind).toBe('measured');
    expect(offsetOf(apply(rig, done.edit)).value.nominal).toBeCloseTo(64, 3);
  });
  it('takes off what is known exactly: the air, and the delays that were set while it was made', () => {
    const set = apply(
      rig,
      alreadySo(rig, [{ deviceId: 'capture-program', settingId: 'in-2-picture-delay', value: 20 }]),
    );
    const done = reconcilePicture(set, evaluate(set), reading());
    if (!done.ok || done.measurement.kind !== 'delay') throw new Error();
    expect(done.measurement.ms.mean).toBeCloseTo(64 - airMs(1.5) + 20, 3);
    // So the figure stays true when the delay is changed afterwards.
    const measured = apply(set, done.edit);
    const moved = apply(
      measured,
      alreadySo(measured, [{ deviceId: 'capture-program', settingId: 'in-2-picture-delay', value: 84 }]),
    );
    expect(offsetOf(moved).value.nominal).toBeCloseTo(0, 3);
  });
  it('says why where it cannot be taken in', () => {
    const evaluation = evaluate(rig);
    const why = (more: Partial<PictureReading>) => {
      const done = reconcilePicture(rig, evaluation, reading(more));
      return done.ok ? '' : done.reason;
    };
    expect(why({ listenerId: 'track-5' })).toMatch(/does not reach/);
    expect(why({ listenerId: 'backup', sourceId: 'wren' })).toMatch(/no picture/);
    expect(why({ sourceId: 'nobody' })).toMatch(/does not reach/);
    const twice = apply(rig, (reconcilePicture(rig, evaluation, reading()) as { edit: Edit }).edit);
    expect(reconcilePicture(twice, evaluate(twice), reading())).toMatchObject({ ok: false });
  });
});

describe('a take’s drift in the rig', () => {
  const drift = {
    id: 'm2',
    label: 'relay talk',
    takenAt: '2026-11-25T10:00:00Z',
    deviceId: 'mixer',
    againstDeviceId: 'backup-recorder',
    ppm: -31.00042,
    sdPpm: 0.04,
    count: 9,
  };
  it('is kept between two clocks', () => {
    const done = reconcileDrift(rig, drift);
    if (!done.ok) throw new Error(done.reason);
    expect(apply(rig, done.edit).measurements).toMatchObject([
      { kind: 'drift', ppm: { mean: -31, sd: 0.04, count: 9 } },
    ]);
  });
  it('needs two clocks that are there', () => {
    expect(reconcileDrift(rig, { ...drift, againstDeviceId: 'mixer' })).toMatchObject({ ok: false });
    expect(reconcileDrift(rig, { ...drift, deviceId: 'sundial' })).toMatchObject({ ok: false });
  });
});
