import { describe, expect, it } from 'vitest';
import { connectorOf, endOf, leadOf, leadsFor } from '#core/plug/index.ts';
import {
  applyEdit,
  type DeviceType,
  findTypes,
  type PortRef,
  type Rig,
  type Stage,
  type Types,
  usbMeets,
  usbRoleOf,
} from '#core/rig/index.ts';
import { renamed } from '#core/rig/renamed.testkit.ts';
import { evaluate, type Pair, whereItStops } from '#core/signal/index.ts';
import { randomDesk } from '#core/wire/random-desk.testkit.ts';
import { check, fixesOf } from './index.ts';

// Desks drawn by chance from the whole catalogue, against an evaluation written a second time: every path that passes no
// place twice, stage by stage off the document. `MELLOW_DESKS` says how many; the proofs take 2,000.

const DESKS = Number(process.env.MELLOW_DESKS ?? 100);
const sizeOf = (seed: number): number => 3 + ((seed * 7) % 28);
/** So many places are walked at most: a desk with more ways than that proves nothing here. */
const MOST_STEPS = 200_000;

interface At {
  readonly deviceId: string;
  readonly portId: string;
  readonly channelId: string;
}
interface Path {
  readonly db: number;
  /** Low, nominal, high. */
  readonly ms: readonly [number, number, number];
  readonly sign: number;
}
interface Step {
  readonly to: At;
  readonly add: Path;
}

type Ms = Path['ms'];
const later = (a: Ms, b: readonly number[]): Ms => [a[0] + b[0]!, a[1] + b[1]!, a[2] + b[2]!];
const exactly = (ms: number): Ms => [ms, ms, ms];
const NOTHING: Path = { db: 0, ms: [0, 0, 0], sign: 1 };
const keyOf = ({ deviceId, portId, channelId }: At): string => `${deviceId}/${portId}/${channelId}`;
const half = (place: string): [string, string] => place.split('.') as [string, string];

/** One stage by its definition; null where it is shut. */
function passed(rig: Rig, type: DeviceType, device: Rig['devices'][number], stage: Stage, path: Path): Path | null {
  const spec = 'setting' in stage ? type.settings.find((s) => s.id === stage.setting)! : null;
  const value = spec && (device.settings[spec.id]?.value ?? spec.default);
  const frame = (1000 * rig.session.frameRate.den) / rig.session.frameRate.num;
  switch (stage.do) {
    case 'door':
      return value === stage.openWhen ? path : null;
    case 'gain':
      if (spec?.kind !== 'gain') throw new Error(stage.setting);
      return spec.offAtMin && Number(value) <= spec.min ? null : { ...path, db: path.db + Number(value) };
    case 'fixed-gain':
      return { ...path, db: path.db + stage.db };
    case 'delay':
      return {
        ...path,
        ms: later(path.ms, exactly(Number(value) * (spec?.kind === 'delay' && spec.unit === 'frames' ? frame : 1))),
      };
    case 'latency': {
      const figure = type.figures[stage.figure]!;
      const unit = figure.unit === 'frames' ? frame : 1;
      return {
        ...path,
        ms: later(
          path.ms,
          figure.range.map((ms) => ms * unit),
        ),
      };
    }
    case 'convert':
      return {
        ...path,
        db: path.db + (stage.to === 'digital' ? -stage.fullScaleDbu[1] : stage.fullScaleDbu[1]),
      };
    case 'hear':
      return { ...path, db: path.db + stage.sensitivityDbvPerPa[1] - 94 + 20 * Math.log10(1 / 0.7746) };
    case 'radiate':
      return { ...path, db: path.db + stage.splAt0Dbu[1] };
    case 'invert':
      return { ...path, sign: -path.sign };
    default:
      return path;
  }
}

/** Where a sound goes on from a channel: through its box, and by every cable. */
function stepsFrom(rig: Rig, types: Types, at: At): Step[] {
  const device = rig.devices.find((d) => d.id === at.deviceId)!;
  const type = types.get(device.typeId)!;
  const within = type.inside.flatMap(({ from, to, stages }): Step[] => {
    const [portId, channelId] = half(from);
    if (portId !== at.portId || channelId !== at.channelId) return [];
    const add = stages.reduce<Path | null>((p, s) => p && passed(rig, type, device, s, p), NOTHING);
    const [toPort, toChannel] = half(to);
    return add ? [{ to: { deviceId: at.deviceId, portId: toPort, channelId: toChannel }, add }] : [];
  });
  return [...within, ...rig.cables.flatMap((cable) => byCable(rig, types, cable, at))];
}

function byCable(rig: Rig, types: Types, cable: Rig['cables'][number], at: At): Step[] {
  if (cable.from.deviceId !== at.deviceId || cable.from.portId !== at.portId) return [];
  const typeOf = (ref: PortRef) => types.get(rig.devices.find((d) => d.id === ref.deviceId)!.typeId)!;
  const [from, to] = [cable.from, cable.to].map((ref) => typeOf(ref).ports.find((p) => p.id === ref.portId)!);
  const [outs, ins] = [from!, to!].map((p) => p.channels.filter((c) => c.carries === 'sound').map((c) => c.id));
  const own = outs!.indexOf(at.channelId);
  const step = (channelId: string, add: Partial<Path> = {}): Step => ({
    to: { ...cable.to, channelId },
    add: { ...NOTHING, ...add },
  });
  if (cable.medium === 'air') {
    const db = -20 * Math.log10(Math.max(cable.lengthM, 0.01) / (from!.referenceM ?? 1));
    const ms = exactly((cable.lengthM / 343) * 1000);
    return likeToLike(outs!, ins!, own).map((c) => step(c, { db, ms }));
  }
  if (!usbMeets(usbRoleOf(typeOf(cable.from), from!), usbRoleOf(typeOf(cable.to), to!))) return [];
  if (cable.map) return cable.map.filter((m) => m.from === at.channelId).map((m) => step(m.to));
  if (cable.medium === 'lead' && connectorOf(from!.connector) && connectorOf(to!.connector)) {
    const [a, b] = [endOf(from!), endOf(to!)];
    if ((a.level === 'digital') !== (b.level === 'digital')) return [];
    const lead = cable.parts ? leadOf(a, b, cable.parts) : leadsFor(a, b).presumed;
    if (!lead || ('fits' in lead && !lead.fits)) return [];
    if (lead.wiring)
      return lead.wiring.carried
        .filter((c) => c.from === own)
        .map((c) => step(ins![c.to]!, { db: 20 * Math.log10(Math.abs(c.nominal)), sign: Math.sign(c.nominal) }));
  }
  return likeToLike(outs!, ins!, own).map((c) => step(c));
}

const likeToLike = (outs: readonly string[], ins: readonly string[], own: number): readonly string[] =>
  own < 0 ? [] : outs.length === 1 ? ins : ins.length === 1 ? [ins[0]!] : ins[own] === undefined ? [] : [ins[own]!];

/** All paths from a source to each channel of a listener that pass no place twice; null where there are too many. */
function pathsTo(rig: Rig, source: Rig['sources'][number], listener: Rig['listeners'][number]): Path[][] | null {
  const types = findTypes(rig);
  const known = new Map<string, Step[]>();
  const on = (at: At): Step[] => {
    const key = keyOf(at);
    let steps = known.get(key);
    if (!steps) {
      steps = stepsFrom(rig, types, at);
      known.set(key, steps);
    }
    return steps;
  };
  const channels = ({ deviceId, portId }: PortRef): At[] =>
    types
      .get(rig.devices.find((d) => d.id === deviceId)!.typeId)!
      .ports.find((p) => p.id === portId)!
      .channels.filter((c) => c.carries === 'sound')
      .map((c) => ({ deviceId, portId, channelId: c.id }));
  const goals = new Map(channels(listener.sound).map((at) => [keyOf(at), [] as Path[]]));
  const seen = new Set<string>();
  let steps = 0;
  const walk = (at: At, path: Path): void => {
    if (++steps > MOST_STEPS) return;
    const key = keyOf(at);
    if (seen.has(key)) return;
    seen.add(key);
    goals.get(key)?.push(path);
    for (const { to, add } of on(at))
      walk(to, {
        db: path.db + add.db,
        ms: later(path.ms, add.ms),
        sign: path.sign * add.sign,
      });
    seen.delete(key);
  };
  for (const at of channels(source.sound)) walk(at, { ...NOTHING, db: source.level[1] });
  return steps > MOST_STEPS ? null : [...goals.values()];
}

const isSame = (a: Ms, b: Ms): boolean => a.every((ms, i) => Math.abs(ms - b[i]!) < 0.02);

/** The loudest instant of all channels: copies within 0.02 ms, however uncertain both are, add as they swing. */
function loudest(paths: readonly Path[][]): { readonly db: number; readonly ms: Ms } | null {
  let best: { db: number; ms: Ms } | null = null;
  for (const channel of paths) {
    const sorted = [...channel].sort((a, b) => b.db - a.db);
    const instants: { ms: Ms; swing: number }[] = [];
    for (const { ms, db, sign } of sorted) {
      const there = instants.find((i) => isSame(i.ms, ms));
      if (there) there.swing += sign * 10 ** (db / 20);
      else instants.push({ ms, swing: sign * 10 ** (db / 20) });
    }
    for (const { ms, swing } of instants) {
      const db = 20 * Math.log10(Math.abs(swing));
      if (Number.isFinite(db) && (!best || db > best.db + 1e-9)) best = { db, ms };
    }
  }
  return best;
}

const SEEDS = Array.from({ length: DESKS }, (_, i) => i + 1);
const nameOf = (pair: Pair, seed: number): string => `${pair.sourceId} at ${pair.listenerId}, desk ${seed}`;

describe('desks that nobody has thought of', () => {
  it('are heard as every path of theirs adds up to', () => {
    let [compared, silent] = [0, 0];
    for (const seed of SEEDS) {
      const rig = randomDesk(seed, sizeOf(seed));
      const { pairs, dropped, loops } = evaluate(rig);
      // What goes round and comes back at once adds to itself: loops have proofs of their own.
      if (dropped > 0 || loops.length > 0) continue;
      for (const pair of pairs) {
        const source = rig.sources.find((s) => s.id === pair.sourceId)!;
        const paths = pathsTo(rig, source, rig.listeners.find((l) => l.id === pair.listenerId)!);
        if (!paths) continue;
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

/** A lead that carries every channel to its like, in full. */
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

/** The same with a box in the lead whose ends are its own: one to one, nothing lost. */
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
