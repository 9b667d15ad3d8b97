import { describe, expect, it } from 'vitest';
import { keyOf, textOf } from '#core/base/said/index.ts';
import type { BandLevel } from '#core/desk-tests/tunes/index.ts';
import { faultsOf } from '#core/live/troubleshoot/index.ts';
import { applyEdit, findPort, findTypes, parseRig, type Rig } from '#core/model/rig/index.ts';
import { evaluate } from '#core/signal/index.ts';
import { boathouse } from '#demo/boathouse.ts';
import { cellKey, figuresOf, type Judged, playersOf } from './index.ts';
import { judged, readingsAt, rigWith } from './taptest.testkit.ts';

const relay: Rig = parseRig(JSON.parse(JSON.stringify(boathouse)));
const ears = (rig: Rig) => rig.listeners.map((l) => l.id);

describe('figures for the rig', () => {
  let n = 0;
  const base = { takenAt: '2026-11-01T10:00:00.000Z', newId: () => `m-${++n}` };
  const players = playersOf(relay);
  const takes = readingsAt(relay, [], ears(relay), players, 6);
  const figures = figuresOf(relay, judged(relay, takes), takes, players, base);
  it('are each an edit that the rig takes, in words, of figures that are not spoken of twice', () => {
    expect(figures.length).toBeGreaterThan(3);
    for (const f of figures) {
      expect(applyEdit(relay, f.edit)).toMatchObject({ ok: true });
      expect(textOf(f.says)).not.toMatch(/undefined|NaN/);
    }
    expect(new Set(figures.map((f) => keyOf(f.says))).size).toBe(figures.length);
  });
  it('make the drawing say what was read: the next figures of the same takes are none', () => {
    const done = applyEdit(relay, { kind: 'batch', edits: figures.map((f) => f.edit) });
    if (!done.ok) throw new Error(textOf(done.refusal.reason));
    expect(done.rig.measurements.length).toBeGreaterThan(relay.measurements.length);
    const again = figuresOf(done.rig, judged(done.rig, takes), takes, players, base);
    expect(again.filter((f) => figures.some((o) => keyOf(o.says) === keyOf(f.says)))).toEqual([]);
  });
  it('come near to the truth that the takes were made of: two ways of one source', () => {
    const twice = figures.filter((f) => textOf(f.says).startsWith('taptest.msApart(taptest.reachesTwice('));
    expect(twice.length).toBeGreaterThan(0);
    const edits = twice.flatMap((f) => (f.edit.kind === 'batch' ? f.edit.edits : []));
    for (const edit of edits) {
      if (edit.kind !== 'add-measurement' || edit.measurement.kind !== 'delay') continue;
      const { sourceId, listenerId, offsetMs } = edit.measurement;
      const heard = takes
        .find((t) => t.listenerId === listenerId)!
        .tunes.find((t) => t.id === players.find((p) => p.sourceId === sourceId)!.tune)!.heard!;
      expect(heard.seconds.ways.some((w) => Math.abs(w.afterMs - offsetMs) < 0.01)).toBe(true);
    }
  });
  const inAir = (sourceId: string) =>
    findPort(relay, findTypes(relay), relay.sources.find((s) => s.id === sourceId)!.sound)?.level === 'air';
  it('leave open where the sound of a source in air begins: it was played by a loudspeaker', () => {
    const narrow = takes.map((t) => ({
      ...t,
      tunes: t.tunes.map((x) =>
        x.heard
          ? { ...x, heard: { ...x.heard, bands: x.heard.bands.map((b) => (b.lowHz < 300 ? { ...b, db: -30 } : b)) } }
          : x,
      ),
    }));
    const bands = figuresOf(relay, judged(relay, narrow), narrow, players, base).flatMap((f) =>
      f.edit.kind === 'batch'
        ? f.edit.edits.flatMap((e) =>
            e.kind === 'add-measurement' && e.measurement.kind === 'band' ? [e.measurement] : [],
          )
        : [],
    );
    expect(bands.length).toBeGreaterThan(0);
    for (const b of bands) if (inAir(b.sourceId)) expect(b.lowHz).toBeNull();
    expect(bands.some((b) => !inAir(b.sourceId) && b.lowHz !== null)).toBe(true);
  });
  it('hold the band of a way that comes alone, drawn as typical, and make the drawing agree with it', () => {
    const cell = judged(relay, takes).cells.find(
      (c) => c.read?.heard && c.disagreements.length === 0 && c.expected.ways.length === 1 && !inAir(c.sourceId),
    )!;
    const at = cellKey(cell.sourceId, cell.listenerId);
    const narrow = (bands: readonly BandLevel[]) =>
      bands.map((b) => (b.lowHz >= 5000 ? { ...b, db: null, atMostDb: -50 } : b.lowHz < 300 ? { ...b, db: -30 } : b));
    const changed = takes.map((t) => ({
      ...t,
      tunes: t.tunes.map((x) =>
        x === cell.read ? { ...x, heard: { ...x.heard!, bands: narrow(x.heard!.bands) } } : x,
      ),
    }));
    const own = judged(relay, changed);
    const read = (j: Judged) => j.cells.find((c) => cellKey(c.sourceId, c.listenerId) === at)!;
    expect(read(own).disagreements.map((d) => d.kind)).toEqual(['band']);
    const bandOf = (rig: Rig, j: Judged) =>
      figuresOf(rig, j, changed, players, base).filter(
        (f) =>
          JSON.stringify(f.edit).includes(`"kind":"band"`) &&
          textOf(f.says).includes(relay.listeners.find((l) => l.id === cell.listenerId)!.name),
      );
    const [figure, ...others] = bandOf(relay, own);
    expect(others).toEqual([]);
    expect(figure!.says).toMatchObject({
      params: {
        band: { params: { low: expect.stringMatching(/^\d+ Hz$/), high: expect.stringMatching(/^[45](\.\d)? kHz$/) } },
      },
    });
    expect(textOf(figure!.spread)).toMatch(
      /^list\.and\(taptest\.to\(\d+ Hz, \d+ Hz\), taptest\.to\([\d.]+ kHz, [\d.]+ kHz\)\)$/,
    );
    const done = applyEdit(relay, figure!.edit);
    if (!done.ok) throw new Error(textOf(done.refusal.reason));
    const [way] = evaluate(done.rig).pairs.find((p) => cellKey(p.sourceId, p.listenerId) === at)!.ways;
    expect(way!.band.kind).toBe('measured');
    expect(way!.band.highHz).toBeGreaterThan(4000);
    expect(way!.band.highHz).toBeLessThan(5500);
    const after = judged(done.rig, changed);
    expect(read(after).disagreements).toEqual([]);
    expect(bandOf(done.rig, after)).toEqual([]);
    // Nearly as loud by a second way: no one knows which of them lets what pass.
    const twice = changed.map((t) => ({
      ...t,
      tunes: t.tunes.map((x) =>
        x.heard && x.id === cell.read!.id && t.listenerId === cell.listenerId
          ? {
              ...x,
              heard: {
                ...x.heard,
                seconds: { ...x.heard.seconds, ways: [{ afterMs: 9, underDb: 3, perhapsReflection: true }] },
              },
            }
          : x,
      ),
    }));
    expect(bandOf(relay, judged(relay, twice))).toEqual([]);
  });
  it('leave out what does not agree with the drawing', () => {
    const fault = faultsOf(relay, evaluate(relay)).find((f) => f.kind === 'muted' && f.edit)!;
    const off = readingsAt(rigWith(relay, fault), fault.dead, ears(relay), players, 6);
    const own = judged(relay, off);
    const bad = new Set(
      own.cells.filter((c) => c.disagreements.length > 0).map((c) => cellKey(c.sourceId, c.listenerId)),
    );
    for (const f of figuresOf(relay, own, off, players, base)) {
      const edits = f.edit.kind === 'batch' ? f.edit.edits : [f.edit];
      for (const e of edits)
        if (e.kind === 'add-measurement' && e.measurement.kind === 'delay')
          expect(bad.has(cellKey(e.measurement.sourceId, e.measurement.listenerId))).toBe(false);
    }
  });
});
