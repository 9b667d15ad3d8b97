import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { seededRandom } from '#core/audio/samples/index.ts';
import {
  type DeviceType,
  type PlanCell,
  parseRig,
  RIG_VERSION,
  type Rig,
  type SettingSpec,
  type Stage,
} from '#core/model/rig/index.ts';
import { evaluate, expand, findComponents, type Pair, readLoops } from './index.ts';

// The table against a second, naive evaluation: every path of the raw document written out, nothing shared with the
// program but the document itself.

type Random = () => number;
const pick = <T>(random: Random, list: readonly T[]): T => list[Math.floor(random() * list.length)]!;
const whole = (random: Random, low: number, high: number): number => low + Math.floor(random() * (high - low + 1));

const SOUND = [{ id: 'mono', carries: 'sound' as const }];
const PICTURE = [{ id: 'picture', carries: 'picture' as const }];
const port = (id: string, direction: 'in' | 'out', channels: DeviceType['ports'][number]['channels']) => ({
  id,
  name: id,
  direction,
  connector: 'plug',
  level: 'line' as const,
  channels,
});

/** A device of two inputs and two outputs, with a picture through it, whose ways hold whatever a way may hold. */
function randomType(random: Random, id: string): DeviceType {
  const settings: SettingSpec[] = [];
  const figures: DeviceType['figures'] = {};
  const latency = (most: number): Stage => {
    const key = `f-${Object.keys(figures).length}`;
    const ms = whole(random, 1, most) / 8;
    figures[key] = { label: key, unit: 'ms', range: [ms, ms, ms], kind: 'typical', source: '' };
    return { do: 'latency', figure: key };
  };
  const stage = (): Stage => {
    const key = `s-${settings.length}`;
    switch (whole(random, 0, 6)) {
      case 0:
        settings.push({ id: key, name: key, kind: 'mute', default: random() < 0.3 });
        return { do: 'door', setting: key, openWhen: false };
      case 1: {
        const options = ['a', 'b'].map((value) => ({ value, label: value }));
        settings.push({ id: key, name: key, kind: 'switch', options, default: pick(random, ['a', 'b']) });
        return { do: 'door', setting: key, openWhen: 'a' };
      }
      case 2: {
        const down = random() < 0.2;
        const level = down ? -90 : -whole(random, 0, 12);
        settings.push({ id: key, name: key, kind: 'gain', min: -90, max: 10, step: 1, default: level, offAtMin: true });
        return { do: 'gain', setting: key };
      }
      case 3:
        settings.push({
          id: key,
          name: key,
          kind: 'delay',
          unit: 'ms',
          min: 0,
          max: 200,
          step: 1,
          default: whole(random, 0, 90),
        });
        return { do: 'delay', setting: key };
      case 4:
        return { do: 'invert' };
      case 5:
        return latency(1000);
      default:
        return { do: 'fixed-gain', db: -random() * 12 };
    }
  };
  const inside = [1, 2].flatMap((from) =>
    [1, 2]
      .filter(() => random() < 0.75)
      .map((to) => ({
        from: `in-${from}.mono`,
        to: `out-${to}.mono`,
        stages: [
          latency(60),
          { do: 'fixed-gain' as const, db: -random() },
          ...Array.from({ length: whole(random, 0, 2) }, stage),
        ],
      })),
  );
  return {
    id,
    name: id,
    family: 'tests',
    summary: '',
    ports: [
      ...[1, 2].flatMap((n) => [port(`in-${n}`, 'in', SOUND), port(`out-${n}`, 'out', SOUND)]),
      port('see', 'in', PICTURE),
      port('show', 'out', PICTURE),
    ],
    settings,
    figures,
    inside: [...inside, { from: 'see.picture', to: 'show.picture', stages: [latency(random() < 0.6 ? 80 : 1600)] }],
  };
}

const start = (id: string, does?: 'voice'): DeviceType => ({
  id,
  name: id,
  family: 'tests',
  summary: '',
  ports: [{ ...port('voice', 'out', SOUND), ...(does && { does }) }, port('face', 'out', PICTURE)],
  settings: [],
  figures: {},
  inside: [],
});

/** Some sources into some devices one after the other; a plan that says anything of anything. */
function randomRig(seed: number): Rig {
  const random = seededRandom(seed);
  const sources = Array.from({ length: whole(random, 1, 3) }, (_, i) => `s-${i}`);
  const boxes = Array.from({ length: whole(random, 1, 4) }, (_, i) => `b-${i}`);
  const cables: Rig['cables'] = [];
  const plug = (from: string, to: string) => {
    const [a, b] = [from.split('.'), to.split('.')] as [string, string][];
    cables.push({
      id: `c-${cables.length}`,
      from: { deviceId: a![0]!, portId: a![1]! },
      to: { deviceId: b![0]!, portId: b![1]! },
      medium: 'lead',
      lengthM: 1,
      known: 'confirmed',
    });
  };
  boxes.forEach((box, i) => {
    const before = boxes.slice(0, i).flatMap((b) => [`${b}.out-1`, `${b}.out-2`]);
    const sounds = [...sources.map((s) => `${s}.voice`), ...before];
    for (const input of ['in-1', 'in-2'])
      for (const from of sounds) if (random() < 1.4 / sounds.length) plug(from, `${box}.${input}`);
    const pictures = [...sources.map((s) => `${s}.face`), ...boxes.slice(0, i).map((b) => `${b}.show`)];
    plug(pick(random, pictures), `${box}.see`);
  });
  const listeners = [...new Set([boxes.at(-1)!, pick(random, boxes)])].flatMap((box, i) => ({
    id: `l-${i}`,
    name: `l-${i}`,
    sound: { deviceId: box, portId: pick(random, ['out-1', 'out-2']) },
    ...(random() < 0.7 && { picture: { deviceId: box, portId: 'show' } }),
    ...(random() < 0.5 && { toleranceId: pick(random, ['ebu-r37', 'itu-bt1359', 'atsc-is191', 'player'] as const) }),
  }));
  const plan = listeners.flatMap((l) =>
    sources.flatMap((sourceId): PlanCell[] =>
      random() < 0.15
        ? []
        : [
            {
              sourceId,
              listenerId: l.id,
              want: pick(random, ['must', 'must', 'must-not', 'may'] as const),
              ...(random() < 0.4 && { underVoiceDb: whole(random, -10, 20) }),
              ...(random() < 0.2 && { inTimeWith: pick(random, sources) }),
              ...(random() < 0.15 && { keepTime: false }),
              ...(random() < 0.2 && { ownTrack: true }),
            },
          ],
    ),
  );
  return parseRig({
    schemaVersion: RIG_VERSION,
    name: 'random',
    notes: '',
    session: { frameRate: { num: 50, den: 1 }, sampleRateHz: 48_000, toleranceId: 'ebu-r37', fullScaleDbu: 18 },
    types: [start('person', 'voice'), start('thing'), ...boxes.map((b) => randomType(random, `type-${b}`))],
    devices: [
      ...sources.map((id, i) => ({ id, typeId: i === 0 ? 'person' : 'thing', name: id, settings: {} })),
      ...boxes.map((id) => ({ id, typeId: `type-${id}`, name: id, settings: {} })),
    ],
    cables,
    sources: sources.map((id, i) => ({
      id,
      name: id,
      letter: 'ABC'[i],
      hue: i + 1,
      sound: { deviceId: id, portId: 'voice' },
      picture: { deviceId: id, portId: 'face' },
      level: [-20, -20 + i, 0],
    })),
    listeners,
    plan,
    measurements: [],
    tasks: [],
  });
}

interface Path {
  readonly db: number;
  readonly ms: number;
  readonly sign: number;
}

/** All paths from a port to another, stage by stage off the document. */
function pathsTo(
  rig: Rig,
  from: { deviceId: string; portId: string },
  to: { deviceId: string; portId: string },
): Path[] {
  const found: Path[] = [];
  const walk = (deviceId: string, portId: string, path: Path): void => {
    if (deviceId === to.deviceId && portId === to.portId) found.push(path);
    for (const cable of rig.cables)
      if (cable.from.deviceId === deviceId && cable.from.portId === portId)
        walk(cable.to.deviceId, cable.to.portId, path);
    const device = rig.devices.find((d) => d.id === deviceId)!;
    const type = rig.types.find((t) => t.id === device.typeId)!;
    for (const way of type.inside) {
      if (way.from.split('.')[0] !== portId) continue;
      const next = way.stages.reduce<Path | null>((p, s) => p && through(type, s, p), path);
      if (next) walk(deviceId, way.to.split('.')[0]!, next);
    }
  };
  walk(from.deviceId, from.portId, { db: 0, ms: 0, sign: 1 });
  return found;
}

function through(type: DeviceType, stage: Stage, path: Path): Path | null {
  const value = 'setting' in stage ? type.settings.find((s) => s.id === stage.setting)!.default : null;
  switch (stage.do) {
    case 'door':
      return value === stage.openWhen ? path : null;
    case 'gain':
      return value === -90 ? null : { ...path, db: path.db + Number(value) };
    case 'delay':
      return { ...path, ms: path.ms + Number(value) };
    case 'latency':
      return { ...path, ms: path.ms + type.figures[stage.figure]!.range[1] };
    case 'fixed-gain':
      return { ...path, db: path.db + stage.db };
    case 'invert':
      return { ...path, sign: -path.sign };
    default:
      throw new Error(stage.do);
  }
}

/** Copies of one instant add as they swing; the loudest first; what is 60 dB under it is not told. */
function heard(paths: readonly Path[]): { db: number; ms: number }[] {
  const instants = new Map<number, number>();
  for (const { ms, db, sign } of paths) {
    const at = [...instants.keys()].find((m) => Math.abs(m - ms) < 0.02) ?? ms;
    instants.set(at, (instants.get(at) ?? 0) + sign * 10 ** (db / 20));
  }
  const all = [...instants].map(([ms, swing]) => ({ ms, db: 20 * Math.log10(Math.abs(swing)) }));
  const loudest = Math.max(...all.map((w) => w.db));
  return all.filter((w) => w.db >= loudest - 60).sort((a, b) => b.db - a.db);
}

const TOLERATED = {
  'ebu-r37': [-40, 60],
  'itu-bt1359': [-45, 125],
  'atsc-is191': [-15, 45],
  player: [-40, 40],
} as const;

function naive(rig: Rig, listener: Rig['listeners'][number], source: Rig['sources'][number]) {
  const at = (s: typeof source) =>
    heard(pathsTo(rig, s.sound, listener.sound).map((p) => ({ ...p, db: p.db + s.level[1] })));
  const cell = rig.plan.find((c) => c.sourceId === source.id && c.listenerId === listener.id);
  const ways = at(source);
  const [first, ...rest] = ways;
  const voice = at(rig.sources[0]!)[0];
  const underDb = source === rig.sources[0] || !voice || !first ? null : voice.db - first.db;
  const timed = rig.sources.find((s) => s.id === cell?.inTimeWith) ?? source;
  const pictures = listener.picture ? pathsTo(rig, timed.picture!, listener.picture).map((p) => p.ms) : [];
  const offset = first && pictures.length > 0 && cell?.keepTime !== false ? first.ms - Math.min(...pictures) : null;
  const besides = rig.sources.filter((s) => s !== source && first && (at(s)[0]?.db ?? -1e9) > first.db - 15);
  const word = (): string => {
    if (!first) return cell?.want === 'must' ? 'missing' : 'not-heard';
    if (cell?.want === 'must-not') return first.db < -70 ? 'not-heard' : 'unwanted';
    const again = (w: { ms: number; db: number }) => {
      const apart = Math.abs(w.ms - first.ms);
      return apart > 1 && first.db - w.db < (apart > 50 ? 20 : 10);
    };
    if (rest.some(again)) return 'twice';
    const [early, late] = TOLERATED[listener.toleranceId ?? rig.session.toleranceId];
    if (offset !== null && offset > late) return 'late';
    if (offset !== null && offset < early) return 'early';
    if (cell?.ownTrack && besides.length > 0) return 'not-alone';
    if (underDb !== null && cell?.underVoiceDb !== undefined && Math.abs(underDb - cell.underVoiceDb) > 3)
      return underDb < cell.underVoiceDb ? 'too-loud' : 'too-quiet';
    return offset === null ? 'no-picture' : 'in-time';
  };
  return { word: word(), ways, underDb, offset };
}

/** A limit met to the last bit may fall on either side of rounding: such rigs prove nothing. */
const isClear = (db: readonly number[]): boolean => db.every((x) => Math.abs(x) > 1e-6);

describe('the table', () => {
  it('agrees with every path written out, on 2,000 random rigs: the same verdicts, levels within 0.01 dB', () => {
    const words = new Map<string, number>();
    let bounded = 0;
    fc.assert(
      fc.property(fc.integer({ min: 1, max: 2 ** 31 - 1 }), (seed) => {
        const rig = randomRig(seed);
        const { pairs, dropped } = evaluate(rig);
        // More ways than are followed: it says so, and the naive twin follows them all.
        if (dropped > 0) {
          bounded++;
          return;
        }
        const byPlace = new Map(pairs.map((p) => [`${p.sourceId}>${p.listenerId}`, p]));
        for (const listener of rig.listeners)
          for (const source of rig.sources) {
            const pair: Pair = byPlace.get(`${source.id}>${listener.id}`)!;
            const twin = naive(rig, listener, source);
            const told = `${source.id} at ${listener.id}, seed ${seed}`;
            expect(pair.ways.length, told).toBe(twin.ways.length);
            pair.ways.forEach((way, i) => {
              expect(Math.abs(way.levelDb.nominal - twin.ways[i]!.db), told).toBeLessThan(0.01);
              expect(Math.abs(way.delay.value.nominal - twin.ways[i]!.ms), told).toBeLessThan(0.01);
            });
            if (twin.underDb === null) expect(pair.underVoiceDb, told).toBeNull();
            else expect(Math.abs(pair.underVoiceDb! - twin.underDb), told).toBeLessThan(0.01);
            const [first, second] = twin.ways;
            if (first && second && !isClear([first.db - second.db])) continue;
            expect(pair.verdict.word, told).toBe(twin.word);
            if (first && twin.offset !== null) expect(pair.verdict.offsetMs!, told).toBeCloseTo(twin.offset, 6);
            words.set(twin.word, (words.get(twin.word) ?? 0) + 1);
          }
      }),
      { numRuns: 2000 },
    );
    expect(bounded).toBeLessThan(60);
    // Every verdict there is has been met often enough to mean something.
    for (const word of [
      'missing',
      'not-heard',
      'unwanted',
      'twice',
      'late',
      'early',
      'in-time',
      'no-picture',
      'too-loud',
      'too-quiet',
      'not-alone',
    ])
      expect(words.get(word) ?? 0, word).toBeGreaterThan(4);
  });

  it('knows loops by their gain and delay: within 0.1 dB and 0.1 ms on rings of any length', () => {
    fc.assert(
      fc.property(
        fc.array(fc.tuple(fc.double({ min: -12, max: 3, noNaN: true }), fc.integer({ min: 1, max: 800 })), {
          minLength: 1,
          maxLength: 6,
        }),
        fc.double({ min: -20, max: -0.5, noNaN: true }),
        (stations, otherDb) => {
          // A ring of devices; beside its first link a second, quieter one: in step both come round.
          const figure = (ms: number) => ({
            label: 'ms',
            unit: 'ms' as const,
            range: [ms, ms, ms] as [number, number, number],
            kind: 'typical' as const,
            source: '',
          });
          const types = stations.map(
            ([db, eighths], i): DeviceType => ({
              ...start(`ring-${i}`),
              ports: [port('in-1', 'in', SOUND), port('out-1', 'out', SOUND), port('out-2', 'out', SOUND)],
              figures: { ms: figure(eighths / 8) },
              inside: [
                {
                  from: 'in-1.mono',
                  to: 'out-1.mono',
                  stages: [
                    { do: 'fixed-gain', db },
                    { do: 'latency', figure: 'ms' },
                  ],
                },
                { from: 'in-1.mono', to: 'out-2.mono', stages: [{ do: 'fixed-gain', db: db + otherDb }] },
              ],
            }),
          );
          const cable = (from: number, out: string, id: string) => ({
            id,
            from: { deviceId: `d-${from}`, portId: out },
            to: { deviceId: `d-${(from + 1) % stations.length}`, portId: 'in-1' },
            medium: 'lead',
            lengthM: 1,
            known: 'confirmed',
          });
          const rig = parseRig({
            ...randomRig(1),
            types,
            devices: stations.map((_, i) => ({ id: `d-${i}`, typeId: `ring-${i}`, name: `d-${i}`, settings: {} })),
            cables: [...stations.map((_, i) => cable(i, 'out-1', `r-${i}`)), cable(0, 'out-2', 'beside')],
            sources: [],
            listeners: [],
            plan: [],
          });
          const graph = expand(rig);
          const [loop, ...more] = readLoops(graph, findComponents(graph));
          expect(more).toEqual([]);
          const bothDb = 20 * Math.log10(1 + 10 ** (otherDb / 20));
          expect(Math.abs(loop!.gainDb - bothDb - stations.reduce((db, [g]) => db + g, 0))).toBeLessThan(0.1);
          expect(Math.abs(loop!.delay.value.nominal - stations.reduce((ms, [, e]) => ms + e / 8, 0))).toBeLessThan(0.1);
          expect(loop!.deviceIds).toHaveLength(stations.length);
        },
      ),
      { numRuns: 300 },
    );
  });
});
