import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { textOf } from '#core/base/said/index.ts';
import { parseRig, type Rig } from '#core/model/rig/index.ts';
import { dbFromPower } from '#core/model/units/index.ts';
import { boathouse } from '#demo/boathouse.ts';
import { clayHour } from '#demo/clay-hour.ts';
import { mothNight } from '#demo/moth-night.ts';
import { quayTalk } from '#demo/quay-talk.ts';
import { skerryNet } from '#demo/skerry-net.ts';
import { evaluate, ladderOf, noiseParts, openChannels } from './index.ts';
import { box, rigOf, through } from './rigs.testkit.ts';

const demos = [boathouse, clayHour, mothNight, quayTalk, skerryNet].map((r) => parseRig(JSON.parse(JSON.stringify(r))));
const pairsOf = (rig: Rig) => {
  const evaluation = evaluate(rig);
  return evaluation.pairs.flatMap((pair) => pair.ways.map((way) => ({ way, evaluation })));
};

describe('a gain ladder', () => {
  it('ends where the table says: level, noise, headroom and conversions of every way of every demo', () => {
    let ways = 0;
    for (const rig of demos)
      for (const { way, evaluation } of pairsOf(rig)) {
        const { rungs, conversions } = ladderOf(rig, evaluation.graph, evaluation.noiseDb, way.arrival);
        const last = rungs.at(-1)!;
        // Two copies at one instant add up in the table; a ladder walks one way.
        if (Math.abs(last.levelDb.nominal - way.levelDb.nominal) < 7)
          expect(last.levelDb.nominal).toBeLessThanOrEqual(way.levelDb.nominal + 1e-6);
        expect(last.scale).toBe(way.scale);
        if (way.noiseDb === null) expect(last.noiseDb).toBeNull();
        else expect(last.noiseDb).toBeCloseTo(way.noiseDb, 6);
        const least = Math.min(...rungs.map((r) => (r.ceilingDb === null ? 999 : r.ceilingDb - r.levelDb.nominal)));
        if (way.headroomDb !== null) expect(least).toBeCloseTo(way.headroomDb, 5);
        expect(conversions).toBe(way.conversions);
        ways++;
      }
    expect(ways).toBeGreaterThan(60);
  });
  it('loses what a textbook cascade loses, and names the stage that loses most', () => {
    // A preamplifier turned too low into a stage with a floor of -90: -60 + 20 against -90, after -60 against -127.
    const rig = rigOf({
      types: [
        box('talker', 1, []),
        box('pre', 1, [
          through(1, 1, { do: 'noise', db: -127 }, { do: 'fixed-gain', db: 20 }, { do: 'ceiling', db: 20 }),
        ]),
        box('line', 1, [
          through(1, 1, { do: 'noise', db: -90 }, { do: 'fixed-gain', db: 10 }, { do: 'ceiling', db: 0 }),
        ]),
      ],
      devices: { talker: 'talker', pre: 'pre', line: 'line' },
      cables: ['talker.out-1 > pre.in-1', 'pre.out-1 > line.in-1'],
      source: 'talker.out-1',
      listener: 'line.out-1',
    });
    const evaluation = evaluate(rig);
    const way = evaluation.pairs[0]!.ways[0]!;
    const { rungs, worst, tightest } = ladderOf(rig, evaluation.graph, evaluation.noiseDb, way.arrival);
    const first = way.arrival.levelDb - 30;
    expect(rungs.map((r) => textOf(r.stage))).toEqual([rig.sources[0]!.name, 'signal.fixedGain', 'signal.fixedGain']);
    expect(rungs[0]!.snrDb).toBeCloseTo(first + 127, 6);
    const after = dbFromPower(10 ** -10.7 + 10 ** -9);
    expect(rungs[1]!.snrDb).toBeCloseTo(first + 20 - after, 6);
    expect(rungs[1]!.lostDb).toBeCloseTo(127 - 20 + after, 6);
    expect(worst).toBe(1);
    expect(tightest).toBe(2);
    expect(rungs[2]!.headroomDb).toBeCloseTo(0 - (first + 30) - 12, 6);
  });
});

describe('noise', () => {
  it('is the sum of what its parts bring, at every node of the demos', () => {
    for (const rig of demos) {
      const { graph, noiseDb, loops } = evaluate(rig);
      if (loops.length > 0) continue;
      for (let node = 0; node < graph.nodes.length; node += 3) {
        const sum = noiseParts(graph, node).reduce((p, part) => p + part.power, 0);
        if (sum > 0) expect(dbFromPower(sum)).toBeCloseTo(noiseDb[node]!, 6);
        else expect(noiseDb[node]).toBe(Number.NEGATIVE_INFINITY);
      }
    }
  });
  it('of an unused open input costs what the floor falls by when it is shut', () => {
    fc.assert(
      fc.property(fc.integer({ min: -40, max: 0 }), fc.integer({ min: -110, max: -80 }), (fader, hiss) => {
        const strip = (n: number) =>
          through(
            n,
            1,
            { do: 'noise', db: hiss },
            { do: 'door', setting: `mute-${n}`, openWhen: false },
            { do: 'gain', setting: `fader-${n}` },
          );
        const rig = rigOf({
          types: [
            box('source', 1, []),
            box('mixer', 3, [1, 2, 3].map(strip), {
              settings: [1, 2, 3].flatMap((n) => [
                { id: `mute-${n}`, name: `Strip ${n}, mute`, kind: 'mute' as const, default: n === 3 },
                {
                  id: `fader-${n}`,
                  name: `Strip ${n}, fader`,
                  kind: 'gain' as const,
                  min: -90,
                  max: 10,
                  step: 0.5,
                  default: n === 2 ? fader : 0,
                  offAtMin: true,
                },
              ]),
            }),
          ],
          devices: { source: 'source', mixer: 'mixer' },
          cables: ['source.out-1 > mixer.in-1'],
          source: 'source.out-1',
          listener: 'mixer.out-1',
        });
        const before = evaluate(rig);
        const found = openChannels(rig, before, rig.listeners[0]!.id);
        const shut: Rig = {
          ...rig,
          devices: rig.devices.map((d) =>
            d.id === 'mixer' ? { ...d, settings: { 'mute-2': { value: true, known: 'confirmed' as const } } } : d,
          ),
        };
        const node = before.graph.nodesOf(rig.listeners[0]!.sound)[0]!;
        const falls = before.noiseDb[node]! - evaluate(shut).noiseDb[node]!;
        if (falls < 0.1) {
          expect(found).toEqual([]);
          return;
        }
        expect(found).toMatchObject([
          { deviceId: 'mixer', portId: 'in-2', shut: { settingId: 'mute-2', value: true } },
        ]);
        expect(found[0]!.costDb).toBeCloseTo(falls, 6);
      }),
      { numRuns: 60 },
    );
  });
});
