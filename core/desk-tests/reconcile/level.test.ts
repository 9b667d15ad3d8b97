import { describe, expect, it } from 'vitest';
import { textOf } from '#core/base/said/index.ts';
import { applyEdit, parseRig, type Rig } from '#core/model/rig/index.ts';
import { evaluate } from '#core/signal/index.ts';
import { boathouse } from '#demo/boathouse.ts';
import { type LevelReading, levelEdit, reconcileLevel } from './index.ts';

const rig = parseRig(JSON.parse(JSON.stringify(boathouse)));
const wayOf = (r: Rig, sourceId = 'wren', listenerId = 'backup') =>
  evaluate(r).pairs.find((p) => p.sourceId === sourceId && p.listenerId === listenerId)!.ways[0]!;
const expectedDb = wayOf(rig).levelDb.nominal;
const reading = (more: Partial<LevelReading> = {}): LevelReading => ({
  id: 'm1',
  label: 'host',
  takeId: 'take',
  takenAt: '2026-11-26T10:00:00.000Z',
  sourceId: 'wren',
  listenerId: 'backup',
  levelDb: expectedDb - 5,
  sdDb: 0.5,
  count: 4,
  floor: { db: -80, bandHz: [1000, 14_000] },
  ...more,
});
const read = (r: Rig, what: LevelReading) => {
  const done = reconcileLevel(r, what);
  if (!done.ok) throw new Error(textOf(done.reason));
  return done;
};
const taken = (r: Rig, what: LevelReading, n: number): Rig => {
  const made = levelEdit(r, what, read(r, what).causes[n]!);
  if (!made.ok) throw new Error(textOf(made.reason));
  const done = applyEdit(r, made.edit);
  if (!done.ok) throw new Error(textOf(done.refusal.reason));
  const back = applyEdit(done.rig, done.inverse);
  expect(back.ok && back.rig).toEqual(r);
  return done.rig;
};

describe('a level measured from a take', () => {
  it('is held against what was to be expected, and says what could be the reason, what nobody saw first', () => {
    const { offDb, causes, expected } = read(rig, reading());
    expect(expected.nominal).toBe(expectedDb);
    expect(offDb).toBeCloseTo(-5, 9);
    expect(causes.some((c) => c.kind === 'source' && Math.abs(c.levelDb - 72) < 1e-9)).toBe(true);
    const strip = causes.find((c) => c.kind === 'knob' && c.where === 'Mixer, Channel 1, gain');
    expect(strip).toMatchObject({ drawn: 58, stands: 53, assumed: false });
    const firstSeen = causes.findIndex((c) => c.kind === 'knob' && !c.assumed);
    const lastUnseen = causes.findLastIndex((c) => c.kind === 'knob' && c.assumed);
    expect(lastUnseen).toBeLessThan(firstSeen);
  });
  it('is what the rig says afterwards, whichever reason is chosen; and the take in the rig once', () => {
    const { causes } = read(rig, reading());
    causes.forEach((cause, n) => {
      const after = taken(rig, reading(), n);
      expect(Math.abs(wayOf(after).levelDb.nominal - (expectedDb - 5)), JSON.stringify(cause)).toBeLessThan(0.51);
      const again = taken(after, reading({ id: 'm2', levelDb: expectedDb - 3 }), 0);
      expect(again.measurements.map((m) => m.kind).sort()).toEqual(['level', 'noise']);
    });
  });
  it('brings the noise of the place along: in the band of ears, and it moves with what is set later', () => {
    const { causes } = read(rig, reading());
    const after = taken(
      rig,
      reading(),
      causes.findIndex((c) => c.kind === 'source'),
    );
    const measured = -80 + 10 * Math.log10(20 / 13);
    expect(Math.abs(wayOf(after).noiseDb! - measured)).toBeLessThan(0.11);
    const quieter = (r: Rig): Rig => ({
      ...r,
      devices: r.devices.map((d) =>
        d.id === 'mixer' ? { ...d, settings: { ...d.settings, 'main-fader': { value: -10, known: 'confirmed' } } } : d,
      ),
    });
    const moved = wayOf(quieter(after)).noiseDb! - wayOf(after).noiseDb!;
    expect(moved).toBeCloseTo(wayOf(quieter(rig)).noiseDb! - wayOf(rig).noiseDb!, 1);
    // Without a floor nothing is said of the noise.
    const plain = taken(rig, reading({ floor: null }), 0);
    expect(plain.measurements.map((m) => m.kind)).toEqual(['level']);
  });
  it('leaves out knobs that would have to stand beyond their ends', () => {
    const { causes } = read(rig, reading({ levelDb: expectedDb + 40 }));
    for (const c of causes) if (c.kind === 'knob') expect(c.stands).toBeLessThanOrEqual(c.setting.spec.max);
    expect(causes.some((c) => c.kind === 'knob' && c.where === 'Mixer, Channel 1, gain')).toBe(false);
  });
  it('is refused where the source does not come, or where there is no file', () => {
    expect(reconcileLevel(rig, reading({ sourceId: 'jingles', listenerId: 'track-5' }))).toMatchObject({ ok: false });
    expect(reconcileLevel(rig, reading({ sourceId: 'couch-game', listenerId: 'players' }))).toMatchObject({
      ok: false,
      reason: { code: 'reconcile.thatDestinationIsnt' },
    });
  });
});
