import { beforeAll, describe, expect, it } from 'vitest';
import { measureOffset } from '#core/audio/measure/index.ts';
import { testFft } from '#core/audio/samples/fft.testkit.ts';
import { type FftOf, recordingOf } from '#core/audio/samples/index.ts';
import { parseRig, type Rig } from '#core/model/rig/index.ts';
import { dbFromPower, powerFromDb } from '#core/model/units/index.ts';
import { type Arrival, evaluate } from '#core/signal/index.ts';
import { boathouse } from '#demo/boathouse.ts';
import { skerryNet } from '#demo/skerry-net.ts';
import { type ListenOptions, renderListening } from './index.ts';

const parsed = (demo: Rig): Rig => parseRig(JSON.parse(JSON.stringify(demo)));
const relay = parsed(boathouse);
const evaluation = evaluate(relay);
const RATE = 16_000;
const listener = (id: string, rig = relay) => rig.listeners.find((l) => l.id === id)!.sound;
const render = (more: Partial<ListenOptions> & Pick<ListenOptions, 'at'>) =>
  renderListening({ rig: relay, evaluation, seconds: 6, sampleRateHz: RATE, withFloor: false, ...more });
const rmsDb = (x: Float32Array): number => dbFromPower(x.reduce((sum, v) => sum + v * v, 0) / x.length);
let fftOf: FftOf;
beforeAll(async () => {
  fftOf = await testFft();
});

/** The same, so quiet that nothing clips. */
const quietRelay: Rig = {
  ...relay,
  sources: relay.sources.map((s) => ({ ...s, level: s.level.map((db) => db - 30) as [number, number, number] })),
};
const quietly = evaluate(quietRelay);

/** Everything of one source at each channel of a place, as the table has it. */
function arrivalsOf(id: string, sourceId: string, { graph, arrivals } = evaluation): Arrival[][] {
  const index = relay.sources.findIndex((s) => s.id === sourceId);
  return graph
    .nodesOf(listener(id))
    .filter((n) => graph.nodes[n]!.carries === 'sound')
    .map((n) => arrivals[n]!.filter((a) => a.sourceIndex === index));
}
/** Nothing on the way takes off what the stand-ins have. */
const plain = (a: Arrival): boolean => a.lowHz <= 30 && a.highHz >= RATE / 2 && a.headroomDb > 18;
const nearlyPlain = (a: Arrival): boolean => a.lowHz <= 70 && a.highHz >= RATE / 2 && a.headroomDb > 18;

describe('what one would hear at a place', () => {
  it('has every source at the level of the table: within 0.2 dB where it comes once, 1.5 dB of the power sum where twice', () => {
    let once = 0;
    let twice = 0;
    for (const { id, sound } of relay.listeners)
      for (const source of relay.sources) {
        const per = arrivalsOf(id, source.id, quietly);
        const only = { at: sound, sourceIds: [source.id] };
        const { channels, fullDb } = render({ rig: quietRelay, evaluation: quietly, ...only });
        per.forEach((ways, c) => {
          const clean = ways.length === 1 ? plain : nearlyPlain;
          if (ways.length === 0 || !ways.every(clean)) return;
          const is = rmsDb(channels[c]!) + fullDb;
          const sum = dbFromPower(ways.reduce((p, a) => p + powerFromDb(a.levelDb), 0));
          if (ways.length === 1) {
            once++;
            expect(Math.abs(is - sum), `${source.id} at ${id}`).toBeLessThan(0.2);
          } else {
            twice++;
            expect(Math.abs(is - sum), `${source.id} at ${id}, ${ways.length} ways`).toBeLessThan(1.5);
          }
        });
      }
    expect(once).toBeGreaterThan(12);
    expect(twice).toBeGreaterThan(3);
  });
  it('has every source as late as the table says, to the sample', async () => {
    const at = listener('track-2');
    const [way] = arrivalsOf('track-2', 'couch-game')[0]!;
    const late = render({ at }).channels[0]!;
    const { graph, nodes } = { graph: evaluation.graph, nodes: evaluation.graph.nodesOf(relay.sources[0]!.sound) };
    const first = nodes.find((n) => graph.nodes[n]!.carries === 'sound')!;
    const there = { deviceId: graph.nodes[first]!.deviceId, portId: graph.nodes[first]!.portId };
    const dry = render({ at: there, sourceIds: ['couch-game'] }).channels[0]!;
    const offset = await measureOffset(fftOf, recordingOf([dry], RATE), recordingOf([late], RATE));
    expect(offset.confidence).toBeGreaterThan(0.9);
    expect(Math.abs(offset.offsetMs - way!.delayMs.nominal)).toBeLessThan(1000 / RATE);
  });
  it('has the floor of the place under it, and the hum of leads that loop', () => {
    const at = listener('backup');
    const quiet = render({ at, sourceIds: [], withFloor: true });
    const node = evaluation.graph.nodesOf(at)[0]!;
    expect(rmsDb(quiet.channels[0]!) + quiet.fullDb).toBeCloseTo(evaluation.noiseDb[node]!, 1);
    expect(quiet.hums).toBe(false);
    const hums = render({ at, sourceIds: [], withFloor: true, humCableIds: ['extractor-line'] });
    expect(hums.hums).toBe(true);
    expect(rmsDb(hums.channels[0]!)).toBeGreaterThan(rmsDb(quiet.channels[0]!) + 6);
    expect(render({ at: listener('couch-safety'), withFloor: true, humCableIds: ['extractor-line'] }).hums).toBe(false);
  });
  it('goes round without a seam, and is the same each time', () => {
    const { channels } = render({ at: listener('stream') });
    const x = channels[0]!;
    const step = (i: number) => Math.abs(x[i % x.length]! - x[(i - 1 + x.length) % x.length]!);
    const usual = [...Array(2000).keys()].map((i) => step(i * 40 + 1)).sort((a, b) => a - b)[1990]!;
    expect(step(0)).toBeLessThan(2 * usual);
    expect(render({ at: listener('stream') }).channels[0]).toEqual(x);
  });
  it('is as narrow as was measured of the way to a listener, and there only', () => {
    const [at, elsewhere] = [listener('backup'), listener('stream')];
    const [way] = evaluation.pairs.find((p) => p.sourceId === 'wren' && p.listenerId === 'backup')!.ways;
    const rig: Rig = {
      ...relay,
      measurements: [
        {
          kind: 'band',
          id: 'b',
          label: 'tap',
          takenAt: '2026-11-01T10:00:00Z',
          sourceId: 'wren',
          listenerId: 'backup',
          deviceIds: [...way!.deviceIds],
          lowHz: null,
          highHz: [700, 800, 900],
        },
      ],
    };
    const only = { sourceIds: ['wren'], withFloor: false };
    /** Power in what changes from sample to sample, against all: little where highs are gone. */
    const highs = (x: Float32Array) => rmsDb(x.map((v, i) => v - (x[i - 1] ?? v))) - rmsDb(x);
    const of = (r: Rig, place: typeof at) =>
      highs(render({ rig: r, evaluation: evaluate(r), at: place, ...only }).channels[0]!);
    expect(of(rig, at)).toBeLessThan(of(relay, at) - 3);
    expect(of(rig, elsewhere)).toBeCloseTo(of(relay, elsewhere), 6);
  });
  it('is narrow by a radio, silent where nothing comes, and never over full scale by much', () => {
    const skerry = parsed(skerryNet);
    const seen = evaluate(skerry);
    const at = listener('operator', skerry);
    const heard = renderListening({
      rig: skerry,
      evaluation: seen,
      at,
      seconds: 4,
      sampleRateHz: RATE,
      withFloor: false,
    });
    expect(heard.sourceIds).toContain('boat-a');
    // Above 3 kHz a radio leaves little: what differs from sample to sample is small against what is there.
    const x = heard.channels[0]!;
    const difference = x.map((v, i) => v - (x[i - 1] ?? 0));
    expect(rmsDb(difference)).toBeLessThan(rmsDb(x) - 3);
    const nothing = render({ at: listener('track-5') });
    expect(nothing.sourceIds).toEqual([]);
    expect(nothing.channels.every((c) => c.every((v) => v === 0))).toBe(true);
    for (const l of relay.listeners)
      for (const c of render({ at: l.sound }).channels) expect(Math.max(...c.map(Math.abs))).toBeLessThan(1.5);
  });
});
