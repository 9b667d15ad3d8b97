import { beforeAll, describe, expect, it } from 'vitest';
import { testFft } from '#core/audio/samples/fft.testkit.ts';
import { type FftOf, recordingOf } from '#core/audio/samples/index.ts';
import { readTap, renderTune, SILENCE_S } from '#core/desk-tests/tunes/index.ts';
import { parseRig } from '#core/model/rig/index.ts';
import { difference, evaluate, uncertain } from '#core/signal/index.ts';
import { boathouse } from '#demo/boathouse.ts';
import { hiddenTruth, renderTapTake, standInPlayers, TAP_TAKE_S, trueDelayMs, tuneFrom } from './index.ts';

const RATE = 16_000;
const rig = parseRig(JSON.parse(JSON.stringify(boathouse)));
let fftOf: FftOf;
beforeAll(async () => {
  fftOf = await testFft();
});

describe('stand-ins that play tunes', () => {
  const tunes = rig.sources.map((s, tune) => ({ sourceId: s.id, tune }));
  it('press within two seconds, each on a clock of its own, the same for a seed', () => {
    const players = standInPlayers(tunes, 3);
    expect(standInPlayers(tunes, 3)).toEqual(players);
    for (const p of players) {
      expect(p.startS).toBeGreaterThanOrEqual(1);
      expect(p.startS).toBeLessThan(3);
      expect(Math.abs(p.ppm)).toBeLessThanOrEqual(40);
    }
    expect(new Set(players.map((p) => p.startS)).size).toBe(players.length);
  });
  it('begin when they were pressed', () => {
    const x = tuneFrom({ sourceId: 'a', tune: 2, startS: 2.5, ppm: 0 })(20 * RATE, RATE, 0);
    const dry = renderTune(2, RATE);
    const at = Math.round((2.5 - SILENCE_S) * RATE);
    for (let i = SILENCE_S * RATE; i < 5 * RATE; i += 97) expect(x[at + i]!).toBeCloseTo(dry[i]!, 4);
  });
});

describe('figures that nobody knows', () => {
  it('lie within what is typical, are the same for a seed, and differ from the drawing', () => {
    const truth = hiddenTruth(rig, 4);
    expect(hiddenTruth(rig, 4)).toEqual(truth);
    let [apart, all] = [0, 0];
    for (const { ways } of evaluate(rig).pairs)
      for (const way of ways)
        for (const { term } of uncertain(difference(way.soundTerms, []))) {
          const ms = truth.delaysMs[term.key]!;
          expect(ms).toBeGreaterThanOrEqual(term.ms.low - 1e-9);
          expect(ms).toBeLessThanOrEqual(term.ms.high + 1e-9);
          all++;
          if (Math.abs(ms - term.ms.nominal) > 0.5) apart++;
        }
    expect(apart).toBeGreaterThan(all / 4);
    for (const ppm of Object.values(truth.clocksPpm)) expect(Math.abs(ppm)).toBeLessThanOrEqual(60);
  });
});

describe('the take of a listener', () => {
  const players = standInPlayers(
    rig.sources.map((s, tune) => ({ sourceId: s.id, tune })),
    7,
  );
  const truth = hiddenTruth(rig, 7);
  const take = (alive: Parameters<typeof renderTapTake>[1]['alive']) =>
    renderTapTake(fftOf, { rig, truth, listenerId: 'backup', players, sampleRateHz: 24_000, seed: 7, alive });
  it('has what comes there by ways that are alive, as late as they truly are', async () => {
    const samples = take(() => true);
    expect(samples).toHaveLength(TAP_TAKE_S * 24_000);
    const ids = players.map((p) => p.tune);
    const reading = (await readTap(fftOf, recordingOf([samples], 24_000), { ids }))!;
    const pairs = evaluate(rig).pairs.filter((p) => p.listenerId === 'backup' && p.ways.length > 0);
    expect(pairs.length).toBeGreaterThan(3);
    const heard = pairs.flatMap((pair) => {
      const player = players.find((p) => p.sourceId === pair.sourceId)!;
      const atMs = reading.tunes.find((t) => t.id === player.tune)!.heard?.atMs;
      const delays = pair.ways.map((w) => trueDelayMs(w.soundTerms, truth));
      return atMs === undefined ? [] : [{ late: atMs - 1000 * player.startS, delays }];
    });
    expect(heard.length).toBeGreaterThanOrEqual(pairs.length - 1);
    // All of a take are off by when its recorder was started, and by nothing else.
    const begun = heard[0]!.late - heard[0]!.delays[0]!;
    for (const { late, delays } of heard)
      expect(Math.min(...delays.map((d) => Math.abs(late - d - begun)))).toBeLessThan(0.5);
  });
  it('is silent where nothing is alive', () => {
    expect(take(() => false).reduce((most, v) => Math.max(most, Math.abs(v)), 0)).toBeLessThan(0.01);
  });
});
