import { beforeAll, describe, expect, it } from 'vitest';
import { diagnose, findClaps, measureOffset } from '#core/audio/measure/index.ts';
import { type Aim, balanceTake, judged, type MixTrack, measureTracks } from '#core/audio/mix/index.ts';
import { testFft } from '#core/audio/samples/fft.testkit.ts';
import { bytesInMemory, type FftOf, openWav, recordingOf } from '#core/audio/samples/index.ts';
import { trueDelayMs } from '#core/desk-tests/stand-ins/index.ts';
import { parseRig } from '#core/model/rig/index.ts';
import { evaluate } from '#core/signal/index.ts';
import { boathouse } from './boathouse.ts';
import { BURST_S, renderFiveTracks } from './five-tracks.ts';
import { boathouseTruth, COUCH_CLAPS_S, DRIFT_STARTS_S, demoTakes, renderCouchSound, SPOILT } from './takes.ts';

let fftOf: FftOf;
beforeAll(async () => {
  fftOf = await testFft();
});
const rig = parseRig(JSON.parse(JSON.stringify(boathouse)));
const trueMs = (sourceId: string, listenerId: string): number =>
  trueDelayMs(
    evaluate(rig).pairs.find((p) => p.sourceId === sourceId && p.listenerId === listenerId)!.ways[0]!.soundTerms,
    boathouseTruth,
  );

describe('the takes of the Boathouse relay', () => {
  it('are the same every time', () => {
    const [take] = demoTakes;
    expect(take!.render(fftOf)).toEqual(take!.render(fftOf));
  });
  it('hold the couch’s claps where the hidden figures put them', async () => {
    const claps = await findClaps(fftOf, recordingOf([renderCouchSound(fftOf)], 48_000));
    const expected = COUCH_CLAPS_S.map((s) => s * 1000 + trueMs('couch', 'track-3'));
    expect(claps).toHaveLength(expected.length);
    claps.forEach((c, i) => {
      expect(Math.abs(c.atMs - expected[i]!)).toBeLessThan(1);
    });
  });
  it('hold true figures that lie within what the catalogue calls typical', () => {
    const terms = new Map(
      evaluate(rig).pairs.flatMap((p) =>
        p.ways.flatMap((w) => w.offsetTerms.map((t) => [t.term.key, t.term] as const)),
      ),
    );
    for (const [key, ms] of Object.entries(boathouseTruth.delaysMs)) {
      const term = terms.get(key);
      if (!term) continue;
      expect(ms, key).toBeGreaterThanOrEqual(term.ms.low);
      expect(ms, key).toBeLessThanOrEqual(key === 'camera-capture.sound' ? 170 : term.ms.high);
    }
  });
  it('of two recorders lie to each other as their starts, ways and clocks say', async () => {
    const [a, b] = await Promise.all(demoTakes.slice(1, 3).map((t) => openWav(bytesInMemory(t.render(fftOf)))));
    const found = await measureOffset(fftOf, a!, b!);
    const expected =
      (DRIFT_STARTS_S.backup - DRIFT_STARTS_S.mixer) * 1000 + trueMs('wren', 'track-4') - trueMs('wren', 'backup');
    expect(Math.abs(found.offsetMs - expected)).toBeLessThan(0.1);
    expect(found.driftPpm).toBeCloseTo(
      boathouseTruth.clocksPpm.mixer! - boathouseTruth.clocksPpm['backup-recorder']!,
      0,
    );
  });
});

describe('the relay on five tracks', () => {
  const parts = ['main', 'voice', 'voice', 'bed', 'bed'] as const;
  const aim: Aim = { parts, underLu: [0, 2, 1, 11, 16], targetLufs: -16, ride: true, duckDb: 0, ceilingDbtp: -1 };
  it('comes into balance: each distance within 0.5 LU, the whole within 0.2, peaks under the ceiling', async () => {
    const recording = await openWav(bytesInMemory(renderFiveTracks()));
    expect(recording.trackNames).toEqual(
      ['wren', 'ilse', 'couch', 'couch-game', 'jingles'].map((id) => rig.sources.find((s) => s.id === id)!.name),
    );
    const tracks = [0, 1, 2, 3, 4].map((c): MixTrack => ({ recording, channels: [c] }));
    const measured = await measureTracks(tracks);
    const before = judged(measured, parts, { gainsDb: [0, 0, 0, 0, 0], rides: [] });
    expect(before[3]!.underLu!, 'the game over the voice, as recorded').toBeLessThan(0);
    const { plan, levels } = await balanceTake(tracks, measured, aim);
    expect(Math.abs(levels.integratedLufs! - aim.targetLufs)).toBeLessThan(0.2);
    expect(levels.truePeakDbtp!).toBeLessThan(-1);
    judged(measured, parts, plan).forEach(({ underLu }, i) => {
      expect(Math.abs(underLu! - aim.underLu[i]!)).toBeLessThan(0.5);
    });
    // The explosion is what no fader mends.
    expect(plan.rides.length).toBeGreaterThan(0);
    const [from, to] = BURST_S;
    for (const ride of plan.rides) expect([ride.track, ride.toS > from && ride.fromS < to]).toEqual([3, true]);
  });
});

describe('takes that were spoilt', () => {
  const diagnosed = async (name: string) => {
    const take = demoTakes.find((t) => t.name.startsWith(name))!;
    return diagnose(fftOf, await openWav(bytesInMemory(take.render(fftOf))));
  };
  it('are told by what was done to them', async () => {
    const hummed = await diagnosed('host with hum');
    expect(hummed.faults.map((f) => f.id)).toEqual(['hum-50']);
    const clipped = await diagnosed('host too loud');
    expect(clipped.faults.map((f) => f.id)).toEqual(['clipping']);
    expect(clipped.faults[0]!.evidence).toMatchObject({ params: { level: SPOILT.turnedDownDb.toFixed(1) } });
  });
});
