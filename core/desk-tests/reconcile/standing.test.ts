import { describe, expect, it } from 'vitest';
import { textOf } from '#core/base/said/index.ts';
import { applyEdit, type Edit, parseRig, type Rig } from '#core/model/rig/index.ts';
import { evaluate } from '#core/signal/index.ts';
import { boathouse } from '#demo/boathouse.ts';
import { type MeasurementStatus, reconcilePicture, restsOn, standingsOf } from './index.ts';

const relay = parseRig(JSON.parse(JSON.stringify(boathouse)));
const apply = (rig: Rig, edit: Edit): Rig => {
  const done = applyEdit(rig, edit);
  if (!done.ok) throw new Error(textOf(done.refusal.reason));
  return done.rig;
};
const clapReading = {
  id: 'clap',
  label: 'couch clap',
  takenAt: '2026-11-02T10:00:00Z',
  sourceId: 'couch',
  listenerId: 'stream',
  madeWith: 'desk',
  sdMs: 2,
  count: 4,
} as const;
/** As a take may well read it: in the midst of what is typical. */
const usual = reconcilePicture(relay, { ...clapReading, offsetMs: 0 });
if (!usual.ok) throw new Error(textOf(usual.reason));
const AS_USUAL_MS = Math.round(usual.expected.value.nominal) + 6;
const clap = reconcilePicture(relay, { ...clapReading, offsetMs: AS_USUAL_MS });
if (!clap.ok) throw new Error(textOf(clap.reason));
const wayOf = (rig: Rig, sourceId = 'wren', listenerId = 'stream') =>
  evaluate(rig).pairs.find((p) => p.sourceId === sourceId && p.listenerId === listenerId)!.ways[0]!;
const base = { label: 'take', takenAt: '2026-11-01T10:00:00Z' };
const pair = { sourceId: 'wren', listenerId: 'stream' };
const spread = (mean: number, sd = 0.2) => ({ mean, sd, count: 3 });
const measured: Rig = {
  ...apply(relay, clap.edit),
  measurements: [
    clap.measurement,
    { ...base, kind: 'drift', id: 'drift', deviceId: 'mixer', againstDeviceId: 'backup-recorder', ppm: spread(14) },
    { ...base, kind: 'level', id: 'level', ...pair, db: spread(wayOf(relay).levelDb.nominal), means: 'wren' },
    { ...base, kind: 'noise', id: 'noise', listenerId: 'stream', db: spread(-60), expectedDb: -64 },
    {
      ...base,
      kind: 'band',
      id: 'band',
      ...pair,
      deviceIds: [...wayOf(relay).deviceIds],
      lowHz: [180, 200, 260],
      highHz: 'beyond',
    },
    {
      ...base,
      kind: 'offset',
      id: 'path-test',
      ...pair,
      settings: [],
      ms: spread(12),
      leftOut: false,
    },
  ],
};
const of = (rig: Rig): ReadonlyMap<string, MeasurementStatus> =>
  new Map(standingsOf(rig, [evaluate(rig)]).map((s) => [s.measurement.id, s]));

describe('what was measured into a rig', () => {
  const standings = of(measured);
  it('stands there figure by figure, the newest first; takes of the path test do not', () => {
    expect([...standings.keys()]).toEqual(['clap', 'band', 'drift', 'level', 'noise']);
    for (const s of standings.values()) {
      expect(s.idle).toBeNull();
      expect(textOf(s.speaksOf)).not.toMatch(/undefined|NaN/);
    }
    expect(textOf(standings.get('drift')!.speaksOf)).toBe('reconcile.vs(Mixer, Backup recorder)');
    expect(textOf(standings.get('level')!.speaksOf)).toBe(
      'reconcile.usedFor(reconcile.at(Wren, voice, Stream), reconcile.source)',
    );
    expect(standings.get('band')!.figures.map((f) => textOf(f.what))).toEqual(['reconcile.isFrom']);
  });
  it('lies beside what is typical of the very figures that a delay speaks of, with their signs', () => {
    const [delay] = standings.get('clap')!.figures;
    const typical = reconcilePicture(relay, { ...clapReading, offsetMs: AS_USUAL_MS });
    expect(delay!.value.nominal).toBeCloseTo(clap.measurement.ms.mean, 6);
    expect(delay!.value.high - delay!.value.nominal).toBeCloseTo(4, 6);
    if (!typical.ok) throw new Error(textOf(typical.reason));
    // Typical of the sum of figures: what is expected of the take, without what was known exactly.
    const exact = clap.measurement.offsetMs - clap.measurement.ms.mean;
    expect(delay!.expected!.low).toBeCloseTo(typical.expected.value.low - exact, 2);
    expect(delay!.expected!.high).toBeCloseTo(typical.expected.value.high - exact, 2);
    expect(delay!.isOutside).toBe(false);
  });
  it('is told where it lies outside of that', () => {
    const far = reconcilePicture(relay, { ...clapReading, offsetMs: 900 });
    if (!far.ok) throw new Error(textOf(far.reason));
    const own = of(apply(relay, far.edit)).get('clap')!;
    expect(own.figures[0]!.isOutside).toBe(true);
    const loud = {
      ...measured,
      measurements: measured.measurements.map((m) => (m.kind === 'level' ? { ...m, db: spread(12) } : m)),
    };
    expect(of(loud).get('level')!.figures[0]!.isOutside).toBe(true);
    expect(standings.get('level')!.figures[0]!.isOutside).toBe(false);
  });
  it('says why nothing follows from it, once the ways are others', () => {
    const cable = measured.cables.find((c) => c.to.deviceId === 'capture-program')!;
    const cut = { ...measured, cables: measured.cables.filter((c) => c.from.deviceId !== cable.from.deviceId) };
    const left = of(cut);
    expect(left.get('drift')!.idle).toBeNull();
    for (const id of ['level', 'band'])
      expect(left.get(id)!.idle).toMatchObject({ code: expect.stringMatching(/inThisRigSource|itGoesThroughOther/) });
    expect(left.get('clap')!.idle).toMatchObject({ code: 'reconcile.isOnNoPath' });
    const other = {
      ...measured,
      measurements: measured.measurements.map((m) => (m.kind === 'band' ? { ...m, deviceIds: ['camera'] } : m)),
    };
    expect(of(other).get('band')!.idle).toMatchObject({ code: 'reconcile.itGoesThroughOther' });
    const gone = { ...measured, devices: measured.devices.filter((d) => d.id !== 'backup-recorder') };
    expect(standingsOf(gone, [evaluate(measured)]).find((s) => s.measurement.id === 'drift')!.idle).toMatchObject({
      params: { gone: 'backup-recorder' },
    });
  });
  it('is there if a way is open in one of the moments', () => {
    const empty = evaluate({ ...measured, cables: [] });
    expect(standingsOf(measured, [empty]).find((s) => s.measurement.id === 'level')!.idle).not.toBeNull();
    expect(
      standingsOf(measured, [empty, evaluate(measured)]).find((s) => s.measurement.id === 'level')!.idle,
    ).toBeNull();
  });
});

describe('what rests on a measurement', () => {
  it('is each pair that would be known otherwise without it, as wide as it would be then', () => {
    const evaluation = evaluate(measured);
    const rests = restsOn(measured, evaluation, 'clap');
    const couch = rests.find((r) => r.sourceId === 'couch' && r.listenerId === 'stream')!;
    expect(couch).toMatchObject({ what: 'offset', unit: 'ms' });
    expect(couch.withIt.nominal).toBeCloseTo(AS_USUAL_MS, 3);
    expect(couch.without).toEqual(wayOf(relay, 'couch').offset!.value);
    expect(couch.without.high - couch.without.low).toBeGreaterThan(2 * (couch.withIt.high - couch.withIt.low));
    // Whoever has the same figures on the way rests on it too.
    expect(rests.length).toBeGreaterThan(1);
    for (const r of rests) if (r.state) expect(r.state.withIt).not.toBe(r.state.without);
  });
  it('is the band of one way, and the noise of one place', () => {
    const evaluation = evaluate(measured);
    expect(restsOn(measured, evaluation, 'band').map((r) => [r.what, r.sourceId, r.listenerId, r.withIt.low])).toEqual([
      ['band', 'wren', 'stream', 200],
    ]);
    const noise = restsOn(measured, evaluation, 'noise');
    expect(noise.length).toBeGreaterThan(0);
    expect(noise.every((r) => r.what === 'noise' && r.listenerId === 'stream')).toBe(true);
  });
  it('is nothing where it is a record only, or there is none of that name', () => {
    const evaluation = evaluate(measured);
    for (const id of ['level', 'drift', 'nobody']) expect(restsOn(measured, evaluation, id)).toEqual([]);
  });
});
