import { beforeAll, describe, expect, it } from 'vitest';
import { seededRandom } from '#core/audio/samples/index.ts';
import { textOf } from '#core/base/said/index.ts';
import {
  applyEdit,
  type DeviceType,
  findSetting,
  findTypes,
  markDone,
  parseRig,
  RIG_VERSION,
  type Rig,
  refuseValue,
} from '#core/model/rig/index.ts';
import { evaluate, toleranceIdOf, toleranceOf } from '#core/signal/index.ts';
import { latencyFigure } from '#core/signal/rigs.testkit.ts';
import { boathouse } from '#demo/boathouse.ts';
import { clayHour } from '#demo/clay-hour.ts';
import { mothNight } from '#demo/moth-night.ts';
import { quayTalk } from '#demo/quay-talk.ts';
import { skerryNet } from '#demo/skerry-net.ts';
import { testPrograms } from './highs.testkit.ts';
import { alignAll, recordedListeners, type SolveProgram } from './index.ts';

let solve: SolveProgram;
beforeAll(async () => {
  solve = await testPrograms();
});
const read = (rig: unknown): Rig => parseRig(JSON.parse(JSON.stringify(rig)));
const demos = [boathouse, quayTalk, clayHour, mothNight, skerryNet].map(read);
const set = (rig: Rig, changes: Parameters<typeof markDone>[1]): Rig => {
  const done = applyEdit(rig, markDone(rig, changes));
  if (!done.ok) throw new Error(textOf(done.refusal.reason));
  return done.rig;
};

const WEIGHTS: Record<string, number> = { must: 1, may: 0.1 };
/** What lies beyond tolerances, by the program's own evaluation. */
function excessOf(rig: Rig, weighed: boolean): number {
  return evaluate(rig).pairs.reduce((sum, p) => {
    const offset = p.ways[0]?.offset?.value.nominal;
    if (offset === undefined || p.want === 'must-not') return sum;
    const { earlyMs, lateMs } = toleranceOf(toleranceIdOf(rig, rig.listeners.find((l) => l.id === p.listenerId)!));
    return sum + (weighed ? (WEIGHTS[p.want ?? 'may'] ?? 0.1) : 1) * Math.max(0, offset - lateMs, earlyMs - offset);
  }, 0);
}

const STEPS = [0, 40, 80];
const KNOBS = ['sound-1', 'sound-2', 'view-1', 'view-2'] as const;

/** Two sources, two listeners, one device: a delay for each sound and for each view, and a way of its own for every pair. */
function aDesk(seed: number): Rig {
  const random = seededRandom(seed);
  const ms = (most: number) => Math.round(random() * most);
  const port = (id: string, direction: 'in' | 'out', carries: 'sound' | 'picture') => ({
    id,
    name: id,
    direction,
    connector: 'plug',
    level: 'digital' as const,
    channels: [{ id: carries, carries }],
  });
  const figures: DeviceType['figures'] = {};
  const latency = (id: string, most: number) => {
    const n = ms(most);
    figures[id] = latencyFigure(n, n, n);
    return { do: 'latency' as const, figure: id };
  };
  const inside = [1, 2].flatMap((s) =>
    [1, 2].flatMap((l) => [
      {
        from: `s${s}.sound`,
        to: `l${l}.sound`,
        stages: [{ do: 'delay' as const, setting: `sound-${s}` }, latency(`sound-${s}-${l}`, 160)],
      },
      {
        from: `p${s}.picture`,
        to: `v${l}.picture`,
        stages: [{ do: 'delay' as const, setting: `view-${l}` }, latency(`picture-${s}-${l}`, 220)],
      },
    ]),
  );
  const ends = (direction: 'in' | 'out') =>
    [1, 2].flatMap((n) => [port(`s${n}`, direction, 'sound'), port(`p${n}`, direction, 'picture')]);
  const mixer: DeviceType = {
    id: 'desk',
    name: 'desk',
    family: 'tests',
    summary: '',
    ports: [...ends('in'), ...[1, 2].flatMap((n) => [port(`l${n}`, 'out', 'sound'), port(`v${n}`, 'out', 'picture')])],
    settings: KNOBS.map((id) => ({ id, name: id, kind: 'delay', unit: 'ms', min: 0, max: 80, step: 40, default: 0 })),
    figures,
    inside,
  };
  const source: DeviceType = { ...mixer, id: 'studio', ports: ends('out'), settings: [], figures: {}, inside: [] };
  const lead = (id: string) => ({
    id,
    from: { deviceId: 'studio', portId: id },
    to: { deviceId: 'desk', portId: id },
    medium: 'lead',
    lengthM: 1,
    known: 'confirmed',
  });
  return parseRig({
    schemaVersion: RIG_VERSION,
    name: 'a test',
    notes: '',
    session: { frameRate: { num: 50, den: 1 }, sampleRateHz: 48_000, toleranceId: 'ebu-r37', fullScaleDbu: 18 },
    types: [mixer, source],
    devices: ['desk', 'studio'].map((id) => ({ id, typeId: id, name: id, settings: {} })),
    cables: ['s1', 'p1', 's2', 'p2'].map(lead),
    sources: [1, 2].map((n) => ({
      id: `source-${n}`,
      name: `source ${n}`,
      letter: 'S',
      hue: n,
      sound: { deviceId: 'studio', portId: `s${n}` },
      picture: { deviceId: 'studio', portId: `p${n}` },
      level: [-20, -20, -20],
    })),
    listeners: [1, 2].map((n) => ({
      id: `listener-${n}`,
      name: `listener ${n}`,
      sound: { deviceId: 'desk', portId: `l${n}` },
      picture: { deviceId: 'desk', portId: `v${n}` },
    })),
    plan: [1, 2].flatMap((s) =>
      [1, 2].map((l) => ({
        sourceId: `source-${s}`,
        listenerId: `listener-${l}`,
        want: random() < 0.7 ? 'must' : 'may',
      })),
    ),
    measurements: [],
    tasks: [],
  });
}

/** Every position of every knob. */
const positions = KNOBS.reduce<Record<string, number>[]>(
  (all, id) => all.flatMap((one) => STEPS.map((value) => ({ ...one, [id]: value }))),
  [{}],
);
const at = (rig: Rig, position: Record<string, number>): Rig => ({
  ...rig,
  devices: rig.devices.map((d) =>
    d.id === 'desk'
      ? {
          ...d,
          settings: Object.fromEntries(
            Object.entries(position).map(([id, value]) => [id, { value, known: 'confirmed' as const }]),
          ),
        }
      : d,
  ),
});

describe('aligning every listener at once', () => {
  it('leaves no more beyond the tolerances than the best of all positions of all knobs', () => {
    let beyondSome = 0;
    for (let seed = 0; seed < 25; seed++) {
      const rig = aDesk(seed);
      const best = Math.min(...positions.map((p) => excessOf(at(rig, p), true)));
      const found = alignAll(rig, evaluate(rig), solve);
      expect(found.proven).toBe(true);
      expect(excessOf(set(rig, found.changes), true), `seed ${seed}`).toBeLessThan(best + 0.01);
      if (best > 1) beyondSome++;
    }
    expect(beyondSome).toBeGreaterThan(3);
  });
  it('does on every demo what it says, within what devices can be set to', () => {
    for (const rig of demos) {
      const found = alignAll(rig, evaluate(rig), solve);
      const types = findTypes(rig);
      for (const c of found.changes)
        expect(refuseValue(findSetting(rig, types, c.deviceId, c.settingId)!, c.value)).toBeUndefined();
      const after = evaluate(set(rig, found.changes));
      for (const p of found.pairs) {
        const pair = after.pairs.find((q) => q.sourceId === p.sourceId && q.listenerId === p.listenerId)!;
        expect(pair.ways[0]!.offset!.value.nominal, `${rig.name}: ${p.sourceId}>${p.listenerId}`).toBeCloseTo(
          p.afterMs,
          3,
        );
        expect(p.lacks === null).toBe(p.excessMs < 0.01);
      }
      expect(excessOf(set(rig, found.changes), false)).toBeCloseTo(found.excessMs, 2);
      expect(found.proven).toBe(true);
    }
  });
  it('brings all of the Boathouse relay into tolerance', () => {
    const found = alignAll(demos[0]!, evaluate(demos[0]!), solve);
    expect(found.excessMs).toBe(0);
    expect(found.pairs.length).toBeGreaterThan(15);
  });
  it('says what is not met and what would have to come later; tracks that are slipped in the edit ask for nothing', () => {
    const hour = parseRig(JSON.parse(JSON.stringify(clayHour)));
    const now = alignAll(hour, evaluate(hour), solve);
    expect(now.pairs.find((p) => p.sourceId === 'music')!.lacks).toMatchObject({ later: 'sound', why: 'no-setting' });
    const relay = demos[0]!;
    const tracks = recordedListeners(relay);
    expect(tracks).toContain('track-3');
    const edit = alignAll(relay, evaluate(relay), solve, { inEdit: tracks });
    expect(edit.pairs.some((p) => tracks.includes(p.listenerId))).toBe(false);
    const held = alignAll(relay, evaluate(relay), solve, { held: ['mixer.strip-1-delay'] });
    expect(held.changes.some((c) => c.settingId === 'strip-1-delay')).toBe(false);
  });
});
