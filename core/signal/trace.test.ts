import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { evaluate, expand, findComponents, readLoops } from './index.ts';
import { aSmallNet, box, latencyFigure, rigOf, type SmallNet, through } from './rigs.testkit.ts';

/** The slow, obvious twin: every path from the first device to the last, written out. */
function everyPath({ links, boxes }: SmallNet): { db: number; ms: number }[] {
  const walk = (at: number, db: number, ms: number): { db: number; ms: number }[] =>
    at === boxes - 1
      ? [{ db, ms }]
      : links.filter((l) => l.from === at).flatMap((l) => walk(l.to, db + l.db, ms + l.ms));
  return walk(0, 0, 0);
}

describe('tracing', () => {
  it('finds exactly the paths that there are, each with its gain and delay', () => {
    let heard = 0;
    fc.assert(
      fc.property(aSmallNet(), (net) => {
        const wanted = everyPath(net).sort((a, b) => a.ms - b.ms);
        const { arrivals, graph, dropped } = evaluate(net.rig);
        const [node] = graph.nodesOf(net.rig.listeners[0]!.sound);
        const found = arrivals[node!]!.map((a) => ({ db: a.levelDb, ms: a.delayMs.nominal })).sort(
          (a, b) => a.ms - b.ms,
        );
        expect(dropped).toBe(0);
        // Paths of one delay are one arrival: their amplitudes add.
        const merged: { db: number; ms: number }[] = [];
        for (const path of wanted) {
          const last = merged.at(-1);
          if (last && Math.abs(last.ms - path.ms) < 0.02)
            last.db = 20 * Math.log10(10 ** (last.db / 20) + 10 ** (path.db / 20));
          else merged.push({ ...path });
        }
        expect(found).toHaveLength(merged.length);
        found.forEach((f, i) => {
          expect(f.ms).toBeCloseTo(merged[i]!.ms, 6);
          expect(f.db).toBeCloseTo(merged[i]!.db, 6);
        });
        if (found.length > 0) heard++;
      }),
      { numRuns: 300 },
    );
    expect(heard).toBeGreaterThan(100);
  });

  it('adds copies by amplitude, and takes away what is inverted', () => {
    const splitting = box('split', 2, [through(1, 1), through(1, 2)]);
    const inverting = box('invert', 2, [
      through(1, 1),
      through(2, 1, { do: 'invert' }, { do: 'fixed-gain', db: -6.0206 }),
    ]);
    const plan = {
      devices: { a: 'split', b: 'invert' },
      cables: ['a.out-1 > b.in-1', 'a.out-2 > b.in-2'],
      source: 'src.out-1',
      listener: 'b.out-1',
    };
    const rig = rigOf({
      ...plan,
      types: [splitting, inverting, box('src', 1, [])],
      devices: { ...plan.devices, src: 'src' },
      cables: [...plan.cables, 'src.out-1 > a.in-1'],
    });
    const { pairs } = evaluate(rig);
    expect(pairs[0]!.ways).toHaveLength(1);
    // 1 - 0.5 = 0.5: six decibels down.
    expect(pairs[0]!.ways[0]!.levelDb.nominal).toBeCloseTo(-6.02, 2);
  });

  it('carries polarity, conversions, clock and headroom along', () => {
    const type = box('gear', 1, [
      through(
        1,
        1,
        { do: 'invert' },
        { do: 'convert', to: 'digital', fullScaleDbu: [18, 18, 18] },
        { do: 'clock' },
        { do: 'convert', to: 'analogue', fullScaleDbu: [24, 24, 24] },
      ),
    ]);
    const rig = rigOf({
      types: [type, box('src', 1, [])],
      devices: { a: 'gear', src: 'src' },
      cables: ['src.out-1 > a.in-1'],
      source: 'src.out-1',
      listener: 'a.out-1',
    });
    const [way] = evaluate(rig).pairs[0]!.ways;
    expect(way).toMatchObject({ polarity: -1, conversions: 2, clock: 'a' });
    // 0 dBu stands 18 dB under the converter's full scale and comes out 6 dB higher.
    expect(way!.headroomDb).toBeCloseTo(18, 9);
    expect(way!.levelDb.nominal).toBeCloseTo(6, 9);
  });

  it('stops at a shut door and says which setting shuts it', () => {
    const type = box('gate', 1, [through(1, 1, { do: 'door', setting: 'mute', openWhen: false })], {
      settings: [{ id: 'mute', name: 'Mute', kind: 'mute', default: true }],
    });
    const rig = rigOf({
      types: [type, box('src', 1, [])],
      devices: { a: 'gate', src: 'src' },
      cables: ['src.out-1 > a.in-1'],
      source: 'src.out-1',
      listener: 'a.out-1',
    });
    expect(evaluate(rig).pairs[0]!.ways).toHaveLength(0);
    expect(expand(rig).shut).toMatchObject([{ deviceId: 'a', settingId: 'mute' }]);
    const open = rigOf({
      types: [type, box('src', 1, [])],
      devices: { a: 'gate', src: 'src' },
      cables: ['src.out-1 > a.in-1'],
      source: 'src.out-1',
      listener: 'a.out-1',
      settings: { a: { mute: { value: false, known: 'confirmed' } } },
    });
    expect(evaluate(open).pairs[0]!.ways).toHaveLength(1);
  });

  it('adds noise by power along a cascade', () => {
    // Two stages of the same noise, the second after 20 dB of gain: the first decides.
    const stage = box('stage', 1, [through(1, 1, { do: 'noise', db: -100 }, { do: 'fixed-gain', db: 20 })]);
    const rig = rigOf({
      types: [stage, box('src', 1, [])],
      devices: { a: 'stage', b: 'stage', src: 'src' },
      cables: ['src.out-1 > a.in-1', 'a.out-1 > b.in-1'],
      source: 'src.out-1',
      listener: 'b.out-1',
    });
    const noise = evaluate(rig).pairs[0]!.ways[0]!.noiseDb!;
    expect(noise).toBeCloseTo(10 * Math.log10(10 ** (-60 / 10) + 10 ** (-80 / 10)), 6);
  });
});

describe('loops', () => {
  const loopOf = (db: number) => {
    const ring = box(
      'ring',
      2,
      [
        through(1, 1, { do: 'latency', figure: 'ms' }),
        through(2, 1, { do: 'fixed-gain', db }, { do: 'latency', figure: 'ms' }),
      ],
      { figures: { ms: latencyFigure(10, 10, 10) } },
    );
    const back = box('back', 1, [through(1, 1)]);
    return rigOf({
      types: [ring, back, box('src', 1, [])],
      devices: { a: 'ring', b: 'back', src: 'src' },
      cables: ['src.out-1 > a.in-1', 'a.out-1 > b.in-1', 'b.out-1 > a.in-2'],
      source: 'src.out-1',
      listener: 'a.out-1',
    });
  };
  it('are followed turn by turn until they are 80 dB down', () => {
    const { arrivals, graph, loops } = evaluate(loopOf(-20));
    const [node] = graph.nodesOf({ deviceId: 'a', portId: 'out-1' });
    const turns = arrivals[node!]!.map((a) => [a.delayMs.nominal, Math.round(a.levelDb)]).sort((a, b) => a[0]! - b[0]!);
    expect(turns).toEqual([
      [10, 0],
      [20, -20],
      [30, -40],
      [40, -60],
      [50, -80],
    ]);
    expect(loops).toMatchObject([{ gainDb: -20, delay: { value: { nominal: 10 } }, throughAir: false }]);
    expect([...loops[0]!.deviceIds].sort()).toEqual(['a', 'b']);
  });
  it('that howl end as well, and what was left out is counted', () => {
    const { dropped, loops, arrivals, graph } = evaluate(loopOf(+3));
    expect(dropped).toBeGreaterThan(0);
    expect(loops[0]!.gainDb).toBeCloseTo(3, 9);
    const [node] = graph.nodesOf({ deviceId: 'a', portId: 'out-1' });
    expect(arrivals[node!]!.length).toBeLessThanOrEqual(16);
  });
  it('are components: every edge leads to the same or a later one, and only loops lead back', () => {
    fc.assert(
      fc.property(
        fc.array(fc.tuple(fc.integer({ min: 0, max: 6 }), fc.integer({ min: 0, max: 6 })), { maxLength: 14 }),
        (wires) => {
          const used = new Map<number, number>();
          const cables = wires.flatMap(([from, to]) => {
            const n = (used.get(to) ?? 0) + 1;
            if (n > 4) return [];
            used.set(to, n);
            return [`d${from}.out-1 > d${to}.in-${n}`];
          });
          const type = box(
            'node',
            4,
            [1, 2, 3, 4].map((n) => through(n, 1, { do: 'fixed-gain', db: -10 })),
          );
          const rig = rigOf({
            types: [type],
            devices: Object.fromEntries([0, 1, 2, 3, 4, 5, 6].map((d) => [`d${d}`, 'node'])),
            cables,
            source: 'd0.out-1',
            listener: 'd6.out-1',
          });
          const graph = expand(rig);
          const components = findComponents(graph);
          const reach = new Set<string>();
          for (let e = 0; e < graph.edges.length; e++) {
            expect(components.of[graph.to[e]!]).toBeGreaterThanOrEqual(components.of[graph.from[e]!]!);
            reach.add(`${graph.from[e]} ${graph.to[e]}`);
          }
          // Warshall's closure as the obvious twin: two nodes are of one component when each reaches the other.
          const count = graph.nodes.length;
          const closed = Array.from({ length: count }, (_, i) =>
            Array.from({ length: count }, (_, j) => reach.has(`${i} ${j}`)),
          );
          for (let k = 0; k < count; k++)
            for (let i = 0; i < count; i++)
              if (closed[i]![k]) for (let j = 0; j < count; j++) closed[i]![j] ||= closed[k]![j]!;
          for (let i = 0; i < count; i++)
            for (let j = 0; j < count; j++)
              if (i !== j) expect(components.of[i] === components.of[j]).toBe(closed[i]![j]! && closed[j]![i]!);
          for (const loop of readLoops(graph, components)) expect(loop.gainDb).toBeLessThan(0);
          expect(() => evaluate(rig)).not.toThrow();
        },
      ),
      { numRuns: 150 },
    );
  });
});
