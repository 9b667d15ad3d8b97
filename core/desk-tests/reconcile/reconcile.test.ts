import { describe, expect, it } from 'vitest';
import { textOf } from '#core/base/said/index.ts';
import { addTasks, applyEdit, type Edit, markDone, parseRig, type Rig } from '#core/model/rig/index.ts';
import { airMs } from '#core/model/units/index.ts';
import { evaluate } from '#core/signal/index.ts';
import { boathouse } from '#demo/boathouse.ts';
import { type PictureReading, reconcileDrift, reconcilePicture } from './index.ts';

const rig = parseRig(JSON.parse(JSON.stringify(boathouse)));
const apply = (r: Rig, edit: Edit): Rig => {
  const done = applyEdit(r, edit);
  if (!done.ok) throw new Error(textOf(done.refusal.reason));
  return done.rig;
};
const reading = (more: Partial<PictureReading> = {}): PictureReading => ({
  id: 'm1',
  label: 'couch clap',
  takeId: '7a4e0000-0000-4000-8000-000000000001',
  takenAt: '2026-11-25T10:00:00Z',
  sourceId: 'couch',
  listenerId: 'stream',
  madeWith: 'desk',
  offsetMs: 64,
  sdMs: 4.8,
  count: 4,
  ...more,
});
const read = (r: Rig, what: PictureReading) => {
  const done = reconcilePicture(r, what);
  if (!done.ok) throw new Error(textOf(done.reason));
  return done;
};
const taken = (r: Rig, what: PictureReading): Rig => apply(r, read(r, what).edit);
const offsetOf = (r: Rig, sourceId = 'couch', listenerId = 'stream') =>
  evaluate(r).pairs.find((p) => p.sourceId === sourceId && p.listenerId === listenerId)!.ways[0]!.offset!;

describe('a take’s offset in the rig', () => {
  it('is what the rig then says, whatever it said before', () => {
    const done = reconcilePicture(rig, reading());
    if (!done.ok) throw new Error(textOf(done.reason));
    expect(done.now.kind).toBe('typical');
    expect(done.after.value.nominal).toBeCloseTo(64, 3);
    expect(done.after.kind).toBe('measured');
    expect(offsetOf(apply(rig, done.edit)).value.nominal).toBeCloseTo(64, 3);
  });
  it('takes off what is known exactly: the air, and the delays that were set while it was made', () => {
    const set = apply(
      rig,
      markDone(rig, [{ deviceId: 'capture-program', settingId: 'in-2-picture-delay', value: 20 }]),
    );
    const done = reconcilePicture(set, reading());
    if (!done.ok) throw new Error(textOf(done.reason));
    expect(done.measurement.ms.mean).toBeCloseTo(64 - airMs(1.5) + 20, 3);
    // So the figure stays true when the delay is changed afterwards.
    const measured = apply(set, done.edit);
    const moved = apply(
      measured,
      markDone(measured, [{ deviceId: 'capture-program', settingId: 'in-2-picture-delay', value: 84 }]),
    );
    expect(offsetOf(moved).value.nominal).toBeCloseTo(0, 3);
  });
  it('says why where it cannot be taken in', () => {
    const why = (more: Partial<PictureReading>) => {
      const done = reconcilePicture(rig, reading(more));
      return done.ok ? '' : textOf(done.reason);
    };
    expect(why({ listenerId: 'track-5' })).toBe('reconcile.inThisRigThat');
    expect(why({ listenerId: 'backup', sourceId: 'wren' })).toBe('reconcile.inThisRigThatDestination');
    expect(why({ sourceId: 'nobody' })).toBe('reconcile.inThisRigThat');
  });
  it('speaks for every listener whose ways hold the same figures, the latest take first', () => {
    const known = taken(rig, reading({ listenerId: 'track-3' }));
    expect(offsetOf(known).value.nominal).toBeCloseTo(64, 3);
    const later = taken(known, reading({ id: 'm2', takenAt: '2026-11-26T10:00:00Z', offsetMs: 71 }));
    expect(offsetOf(later).value.nominal).toBeCloseTo(71, 3);
    expect(offsetOf(later, 'couch', 'track-3').value.nominal).toBeCloseTo(71, 3);
  });
  it('is replaced by a later take of the same pair', () => {
    const before = taken(rig, reading());
    const done = read(before, reading({ id: 'm2', takeId: 'another', label: 'clap again', offsetMs: 70 }));
    expect(done.replaces.map((m) => m.label)).toEqual(['couch clap']);
    const after = apply(before, done.edit);
    expect(after.measurements.map((m) => m.id)).toEqual(['m2']);
    expect(offsetOf(after).value.nominal).toBeCloseTo(70, 3);
  });
  it('keeps what was taken off when its marks are corrected after a delay was set', () => {
    const before = taken(rig, reading());
    const set = apply(
      before,
      markDone(before, [{ deviceId: 'capture-program', settingId: 'in-2-picture-delay', value: 60 }]),
    );
    const corrected = apply(set, read(set, reading({ id: 'm2', offsetMs: 66 })).edit);
    expect(offsetOf(corrected).value.nominal).toBeCloseTo(6, 3);
  });
  it('was made with the desk as it is: what is still to be done counts only when it is said to be done', () => {
    const planned = apply(
      rig,
      addTasks(
        rig,
        [{ deviceId: 'capture-program', settingId: 'in-2-picture-delay', value: 60 }],
        '2026-11-25T10:00:00Z',
      ),
    );
    const with64 = (madeWith: PictureReading['madeWith']) =>
      offsetOf(taken(planned, reading({ madeWith }))).value.nominal;
    expect(with64('desk')).toBeCloseTo(4, 3);
    expect(with64('none')).toBeCloseTo(4, 3);
    expect(with64('drawn')).toBeCloseTo(64, 3);
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
    if (!done.ok) throw new Error(textOf(done.reason));
    expect(apply(rig, done.edit).measurements).toMatchObject([
      { kind: 'drift', ppm: { mean: -31, sd: 0.04, count: 9 } },
    ]);
  });
  it('replaces what was measured of the two before, whichever was held against which', () => {
    const taken = (r: Rig, more: Partial<typeof drift>) => {
      const done = reconcileDrift(r, { ...drift, ...more });
      if (!done.ok) throw new Error(textOf(done.reason));
      return apply(r, done.edit);
    };
    const others = taken(taken(rig, {}), { id: 'm3', againstDeviceId: 'camera' });
    const again = taken(others, { id: 'm4', deviceId: 'backup-recorder', againstDeviceId: 'mixer', ppm: 30 });
    expect(again.measurements.map((m) => m.id)).toEqual(['m3', 'm4']);
  });
  it('needs two clocks that are there', () => {
    expect(reconcileDrift(rig, { ...drift, againstDeviceId: 'mixer' })).toMatchObject({ ok: false });
    expect(reconcileDrift(rig, { ...drift, deviceId: 'sundial' })).toMatchObject({ ok: false });
  });
});
