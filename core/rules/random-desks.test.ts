import { describe, expect, it } from 'vitest';
import { textOf } from '#core/base/said/index.ts';
import { endOf, leadsFor } from '#core/model/plug/index.ts';
import {
  applyEdit,
  type DeviceType,
  drawSettings,
  findTypes,
  type PortRef,
  type Rig,
  type SettingChange,
  type Types,
} from '#core/model/rig/index.ts';
import { renamed } from '#core/model/rig/renamed.testkit.ts';
import { casesOf } from '#core/model/units/proofs.testkit.ts';
import { solveRouting } from '#core/routing/suggest/index.ts';
import { randomDesk } from '#core/routing/wiring/random-desk.testkit.ts';
import { evaluate, type Pair, whereItStops } from '#core/signal/index.ts';
import { loudest, pathsTo, roundsTo } from './every-path.testkit.ts';
import { check, type Finding, type Fix, fixesOf } from './index.ts';

// Desks drawn by chance from the whole library, against an evaluation written a second time: every path that passes no
// place twice, stage by stage off the document. The proofs take 2,000.

const DESKS = casesOf(80, 2000);
const sizeOf = (seed: number): number => 3 + ((seed * 7) % 28);
const SEEDS = Array.from({ length: DESKS }, (_, i) => i + 1);
const nameOf = (pair: Pair, seed: number): string => `${pair.sourceId} at ${pair.listenerId}, desk ${seed}`;

/** More fixes in a row than any desk has wrong. */
const MAX_STEPS = 60;
const HEAVY = ['stop', 'fix', 'watch'];
function firstFix(rig: Rig, findings: readonly Finding[]): { finding: Finding; fix: Fix } | null {
  for (const finding of findings) {
    const [fix] = fixesOf(rig, finding);
    if (fix) return { finding, fix };
  }
  return null;
}

describe('desks that nobody has thought of', () => {
  it('are heard as every path of theirs adds up to', () => {
    let [compared, silent, looped] = [0, 0, 0];
    for (const seed of SEEDS) {
      const rig = randomDesk(seed, sizeOf(seed));
      const { pairs, dropped, loops } = evaluate(rig);
      // What grows without end is told by its loop, and by nothing else.
      if (dropped > 0 || loops.some((l) => l.together.gainDb > -1)) continue;
      const round = loops.length > 0;
      for (const pair of pairs) {
        const source = rig.sources.find((s) => s.id === pair.sourceId)!;
        const listener = rig.listeners.find((l) => l.id === pair.listenerId)!;
        const paths = round ? roundsTo(rig, source, listener) : pathsTo(rig, source, listener);
        if (!paths) continue;
        if (round) looped++;
        const twin = loudest(paths);
        const [way] = pair.ways;
        const told = nameOf(pair, seed);
        if (!twin || !way) {
          // What cancels to nothing is silent in both.
          if (!way) expect(twin === null || twin.db < -200, told).toBe(true);
          silent++;
          continue;
        }
        compared++;
        expect(Math.abs(way.levelDb.nominal - twin.db), `${told}: ${way.levelDb.nominal}, ${twin.db}`).toBeLessThan(
          0.01,
        );
        const other = pair.ways.find((w) => Math.abs(w.delay.value.nominal - twin.ms[1]) < 0.03);
        expect(other, `${told}: ${twin.ms[1]} ms`).toBeDefined();
        expect(way.levelDb.low).toBeLessThanOrEqual(way.levelDb.nominal);
        expect(way.levelDb.nominal).toBeLessThanOrEqual(way.levelDb.high);
      }
    }
    expect(compared).toBeGreaterThan(DESKS / 2);
    expect(silent).toBeGreaterThan(DESKS / 2);
    expect(looped).toBeGreaterThan(DESKS / 10);
  });
  it('say the same to whoever asks: table, stops and findings', () => {
    let missing = 0;
    for (const seed of SEEDS) {
      const rig = randomDesk(seed, sizeOf(seed));
      const { pairs, graph, arrivals, dropped } = evaluate(rig);
      if (dropped > 0) continue;
      const said = new Set(check(rig).map((f) => f.id));
      pairs.forEach((pair) => {
        const source = rig.sources.findIndex((s) => s.id === pair.sourceId);
        const listener = rig.listeners.find((l) => l.id === pair.listenerId)!;
        const arrives = graph.nodesOf(listener.sound).some((n) => arrivals[n]!.some((a) => a.sourceIndex === source));
        const told = nameOf(pair, seed);
        expect(pair.ways.length > 0, told).toBe(arrives);
        expect(whereItStops(graph, rig.sources[source]!.sound, listener.sound) === null, told).toBe(arrives);
        const lacks = pair.want === 'must' && !arrives;
        expect(pair.verdict.word === 'missing', told).toBe(lacks);
        expect(said.has(`plan-missing:${pair.sourceId}>${pair.listenerId}`), told).toBe(lacks);
        if (lacks) missing++;
      });
    }
    expect(missing).toBeGreaterThan(DESKS / 4);
  });
  it('are mended by every fix that is offered, and no want breaks by it', () => {
    let tried = 0;
    for (const seed of SEEDS.slice(0, DESKS / 2)) {
      const rig = randomDesk(seed, sizeOf(seed));
      const before = evaluate(rig);
      const wrong = (pairs: readonly Pair[]) =>
        new Set(
          pairs
            .filter((p) => p.verdict.word === 'missing' || p.verdict.word === 'unwanted')
            .map((p) => `${p.sourceId}>${p.listenerId}`),
        );
      const bad = wrong(before.pairs);
      for (const finding of check(rig, before).slice(0, 6))
        for (const fix of fixesOf(rig, finding, before)) {
          tried++;
          const done = applyEdit(rig, fix.edit);
          const told = `${finding.id}, desk ${seed}: ${fix.label}`;
          if (!done.ok) throw new Error(`${told}: ${done.refusal.reason}`);
          const after = evaluate(done.rig);
          if (!fix.partly)
            expect(
              check(done.rig, after).map((f) => f.id),
              told,
            ).not.toContain(finding.id);
          expect(
            [...wrong(after.pairs)].filter((p) => !bad.has(p)),
            told,
          ).toEqual([]);
        }
    }
    expect(tried).toBeGreaterThan(DESKS / 8);
  });
  it('come to an end, fix by fix: each leaves less than it found, and none sends one back to where one was', () => {
    let steps = 0;
    for (const seed of SEEDS.slice(0, DESKS / 4)) {
      let rig = randomDesk(seed, 3 + (seed % 10));
      const met = new Set([JSON.stringify(rig)]);
      for (let step = 0; step < MAX_STEPS; step++) {
        const before = check(rig);
        const next = firstFix(rig, before);
        if (!next) break;
        const told = `desk ${seed}: ${next.finding.id}, ${next.fix.label}`;
        const done = applyEdit(rig, next.fix.edit);
        if (!done.ok) throw new Error(told);
        rig = done.rig;
        steps++;
        expect(met.has(JSON.stringify(rig)), told).toBe(false);
        met.add(JSON.stringify(rig));
        const known = new Set(before.map((f) => f.id));
        const asBad = check(rig).filter(
          (f) =>
            !known.has(f.id) &&
            f.stage !== 'sync' &&
            !(f.rule === next.finding.rule && f.where.sourceId === next.finding.where.sourceId) &&
            HEAVY.indexOf(f.severity) <= HEAVY.indexOf(next.finding.severity),
        );
        expect(
          asBad.map((f) => f.id),
          told,
        ).toEqual([]);
        expect(step, told).toBeLessThan(MAX_STEPS - 1);
      }
    }
    expect(steps).toBeGreaterThan(DESKS / 8);
  });
  it('are as every suggested setting says, and nothing that was right is worse than before', () => {
    let mended = 0;
    for (const seed of SEEDS.slice(0, DESKS / 2)) {
      const rig = randomDesk(seed, sizeOf(seed));
      const before = evaluate(rig);
      const { changes, left } = solveRouting(rig, before, 300);
      const after = evaluate(withChanges(rig, changes));
      const told = `desk ${seed}: ${changes.map((c) => `${c.deviceId}.${c.settingId}=${c.value}`).join()}`;
      const wrong = (pairs: readonly Pair[]) =>
        pairs
          .filter(
            (p) =>
              ['missing', 'unwanted'].includes(p.verdict.word) || (p.verdict.word === 'twice' && p.want === 'must'),
          )
          .map((p) => `${p.sourceId}>${p.listenerId}`)
          .sort();
      const leftPairs = new Set(left.map((l) => `${l.sourceId}>${l.listenerId}`));
      expect(
        wrong(after.pairs).filter((p) => !leftPairs.has(p)),
        told,
      ).toEqual([]);
      expect(
        wrong(after.pairs).filter((p) => !wrong(before.pairs).includes(p)),
        told,
      ).toEqual([]);
      for (const { mends, againstHowl } of changes) expect(mends.length > 0 || againstHowl, told).toBe(true);
      // Own tracks stay their own, and what one hears of a source one hears still.
      for (const [i, was] of before.pairs.entries()) {
        const [old, now] = [was.ways[0], after.pairs[i]!.ways[0]];
        if (was.want === 'must' && old && now)
          expect(now.levelDb.nominal, told).toBeGreaterThan(old.levelDb.nominal - 21);
      }
      if (wrong(after.pairs).length < wrong(before.pairs).length) mended++;
    }
    expect(mended).toBeGreaterThan(DESKS / 20);
  });
  it('are judged the same under other names', () => {
    for (const seed of SEEDS.slice(0, DESKS / 2)) {
      const rig = randomDesk(seed, sizeOf(seed));
      const other = renamed(rig);
      const judged = (r: Rig) =>
        check(r)
          .map((f) => `${f.rule} ${f.severity} ${f.where.deviceIds} ${f.where.cableIds}`)
          .sort();
      expect(judged(other), `desk ${seed}`).toEqual(judged(rig));
    }
  });
  it('stay as they are where a box that does nothing comes into a lead', () => {
    let put = 0;
    for (const seed of SEEDS) {
      const rig = randomDesk(seed, sizeOf(seed));
      const types = findTypes(rig);
      const cable = rig.cables.find((c) => isWhole(rig, types, c));
      const before = evaluate(rig);
      if (!cable || before.dropped > 0 || before.loops.length > 0) continue;
      put++;
      const after = evaluate(withBox(rig, types, cable));
      for (const [n, pair] of before.pairs.entries()) {
        const now = after.pairs[n]!;
        const told = nameOf(pair, seed);
        expect(now.ways.length, told).toBe(pair.ways.length);
        expect(now.verdict.word, told).toBe(pair.verdict.word);
        pair.ways.forEach((way, k) => {
          expect(now.ways[k]!.levelDb.nominal, told).toBeCloseTo(way.levelDb.nominal, 6);
          expect(now.ways[k]!.delay.value.nominal, told).toBeCloseTo(way.delay.value.nominal, 6);
        });
      }
    }
    expect(put).toBeGreaterThan(DESKS / 4);
  });
});

const withChanges = (rig: Rig, changes: readonly SettingChange[]): Rig => {
  const done = applyEdit(rig, drawSettings(changes));
  if (!done.ok) throw new Error(textOf(done.refusal.reason));
  return done.rig;
};

/** A cable that carries every channel to its like, in full. */
function isWhole(rig: Rig, types: Types, cable: Rig['cables'][number]): boolean {
  if (cable.medium !== 'lead' || cable.map || cable.parts) return false;
  const port = (ref: PortRef) =>
    types.get(rig.devices.find((d) => d.id === ref.deviceId)!.typeId)!.ports.find((p) => p.id === ref.portId)!;
  const [from, to] = [port(cable.from), port(cable.to)];
  if (from.channels.map((c) => c.id).join() !== to.channels.map((c) => c.id).join()) return false;
  const carried = leadsFor(endOf(from), endOf(to)).presumed?.wiring?.carried;
  return (
    carried?.length === from.channels.length && carried.every((c) => c.from === c.to && c.low === 1 && c.high === 1)
  );
}

/** The same with a device in the cable whose ends are its own: one to one, nothing lost. */
function withBox(rig: Rig, types: Types, cable: Rig['cables'][number]): Rig {
  const device = rig.devices.find((d) => d.id === cable.from.deviceId)!;
  const from = types.get(device.typeId)!.ports.find((p) => p.id === cable.from.portId)!;
  const end = (id: string, direction: 'in' | 'out') => ({
    id,
    name: id,
    direction,
    connector: 'own-end',
    level: from.level,
    channels: from.channels,
  });
  const box: DeviceType = {
    id: 'one-to-one',
    name: 'One to one',
    family: 'tests',
    summary: '',
    ports: [end('in', 'in'), end('out', 'out')],
    settings: [],
    figures: {},
    inside: from.channels.map((c) => ({ from: `in.${c.id}`, to: `out.${c.id}`, stages: [] })),
  };
  return {
    ...rig,
    types: [...rig.types, box],
    devices: [...rig.devices, { id: 'zz-box', typeId: box.id, name: 'Box', settings: {} }],
    cables: [
      ...rig.cables.filter((c) => c.id !== cable.id),
      { ...cable, id: 'zz-in', to: { deviceId: 'zz-box', portId: 'in' } },
      { ...cable, id: 'zz-out', from: { deviceId: 'zz-box', portId: 'out' } },
    ],
  };
}
