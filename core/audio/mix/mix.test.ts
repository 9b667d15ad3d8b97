import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { loudnessMeter } from '#core/audio/measure/index.ts';
import { bytesInMemory, encodeWav, openWav, recordingOf } from '#core/audio/samples/index.ts';
import { game, jingle, voice } from '#core/desk-tests/stand-ins/index.ts';
import { dbFromRatio, ratioFromDb } from '#core/model/units/index.ts';
import {
  type Aim,
  balanceTake,
  judged,
  type MixTrack,
  measureTracks,
  mixDown,
  mixStretch,
  solveBalance,
} from './index.ts';
import { type Ride, rideCurve, rideDbAt } from './plan.ts';

const RATE = 16_000;
const SECONDS = 24;
const frames = RATE * SECONDS;
const at = (db: number, x: Float32Array): Float32Array => x.map((v) => v * ratioFromDb(db));
const only = (x: Float32Array, ...stretches: [number, number][]): Float32Array =>
  x.map((v, i) => (stretches.some(([a, b]) => i >= a * RATE && i < b * RATE) ? v : 0));

/** A host who pauses, a guest who answers, a game all the time and once very loud, music at the end. */
const host = only(at(4, voice(205)(frames, RATE, 1)), [0, 8], [12, 18]);
const guest = only(at(-4, voice(150)(frames, RATE, 2)), [8, 12], [18, 21]);
const calm = at(2, game(frames, RATE, 3));
const loudFor: [number, number] = [14, 15.5];
const bursting = calm.map((v, i) => (i >= loudFor[0] * RATE && i < loudFor[1] * RATE ? v * ratioFromDb(16) : v));
const music = only(at(6, jingle(frames, RATE, 4)), [20, 24]);
const trackOf = (...sides: Float32Array[]): MixTrack => ({
  recording: recordingOf(sides, RATE),
  channels: sides.length === 2 ? [0, 1] : [0],
});
const tracks = [
  trackOf(host),
  trackOf(guest),
  trackOf(
    bursting,
    calm.map((v) => 0.8 * v),
  ),
  trackOf(music),
];
const aim: Aim = {
  parts: ['main', 'voice', 'bed', 'bed'],
  underLu: [0, 2, 11, 16],
  targetLufs: -16,
  ride: true,
  duckDb: 0,
  ceilingDbtp: -1,
};

describe('the balance of a take', () => {
  it('stands where it is wanted when it is measured: every distance, the whole, and under the ceiling', async () => {
    const measured = await measureTracks(tracks);
    const { plan, levels } = await balanceTake(tracks, measured, aim);
    expect(Math.abs(levels.integratedLufs! - aim.targetLufs)).toBeLessThan(0.2);
    expect(levels.truePeakDbtp!).toBeLessThan(-1);
    // Measured again from each track as it went into the mix, rides and all.
    const alone = await Promise.all(
      tracks.map(async (_, i) => {
        const one = { ...plan, limit: null, gainsDb: plan.gainsDb.map((db, k) => (k === i ? db : null)) };
        return trackOf(...(await mixStretch(tracks, one, { fromS: 0, toS: SECONDS })));
      }),
    );
    const after = judged(await measureTracks(alone), aim.parts, { gainsDb: [0, 0, 0, 0], rides: [] });
    after.forEach(({ underLu }, i) => {
      expect(Math.abs(underLu! - aim.underLu[i]!), `track ${i}`).toBeLessThan(0.5);
    });
  });
  it('says where no fader helps, and by how much it has to go down there', async () => {
    const measured = await measureTracks(tracks);
    const faders = solveBalance(measured, { ...aim, ride: false });
    const near = judged(measured, aim.parts, faders)[2]!.places.filter((p) => p.underLu < 11 - 4);
    expect(near.length).toBeGreaterThan(0);
    for (const p of near) expect(p.toS > loudFor[0] && p.fromS < loudFor[1]).toBe(true);
    const ridden = solveBalance(measured, aim);
    expect(ridden.rides.map((r) => r.track)).toContain(2);
    for (const p of judged(measured, aim.parts, ridden)[2]!.places) expect(p.underLu).toBeGreaterThan(11 - 4.5);
  });
  it('ducks beds by as much as is said, and keeps their distance while somebody speaks', async () => {
    const measured = await measureTracks(tracks);
    const ducked = await balanceTake(tracks, measured, { ...aim, ride: false, duckDb: 6 });
    const plain = await balanceTake(tracks, measured, { ...aim, ride: false });
    expect(judged(measured, aim.parts, ducked.plan)[2]!.underLu!).toBeCloseTo(11, 1);
    expect(ducked.levels.integratedLufs!).toBeCloseTo(-16, 0);
    // Beside the voice the game is as it was; while no one speaks it stands 6 dB higher.
    const apart = (plan: typeof plain.plan) => plan.gainsDb[2]! - plan.gainsDb[0]!;
    expect(apart(ducked.plan) - apart(plain.plan)).toBeGreaterThan(4.5);
    expect(apart(ducked.plan) - apart(plain.plan)).toBeLessThan(6.1);
    expect(ducked.plan.rides.filter((r) => r.track === 2).every((r) => r.db === -6)).toBe(true);
    expect(ducked.plan.rides.some((r) => r.track < 2)).toBe(false);
    // What comes too near all the same goes deeper there.
    const both = solveBalance(measured, { ...aim, duckDb: 6 });
    expect(both.rides.filter((r) => r.track === 2 && r.db < -6).length).toBeGreaterThan(0);
    for (const p of judged(measured, aim.parts, both)[2]!.places) expect(p.underLu).toBeGreaterThan(11 - 4.5);
  });
  it('is a plain sum where nothing is turned, and leaves out what is to be left out', async () => {
    const plain = { gainsDb: [0, null, null, -6.0206], rides: [], limit: null };
    const [left] = await mixStretch(tracks, plain, { fromS: 19, toS: 22 });
    left.forEach((v, i) => {
      expect(Math.abs(v - host[i + 19 * RATE]! - 0.5 * music[i + 19 * RATE]!)).toBeLessThan(1e-5);
    });
  });
  it('may begin and end anywhere, limiter and all', async () => {
    const { plan } = await balanceTake(tracks, await measureTracks(tracks), aim);
    const whole = await mixStretch(tracks, { ...plan, limit: null }, { fromS: 0, toS: SECONDS });
    const part = await mixStretch(tracks, { ...plan, limit: null }, { fromS: 13, toS: 16 });
    part[0].forEach((v, i) => {
      expect(Math.abs(v - whole[0][i + 13 * RATE]!)).toBeLessThan(1e-3);
    });
    const limited = await mixStretch(tracks, plan, { fromS: 13, toS: 16 });
    expect(limited[0]).toHaveLength(3 * RATE);
  });
  it('finds its gains whatever was recorded how loud', () => {
    const db = fc.double({ min: -20, max: 6, noNaN: true });
    return fc.assert(
      fc.asyncProperty(db, db, db, async (a, b, c) => {
        const turned = [trackOf(at(a, host)), trackOf(at(b, guest)), trackOf(at(c, calm))];
        const measured = await measureTracks(turned);
        const parts = ['main', 'voice', 'bed'] as const;
        const plan = solveBalance(measured, { ...aim, parts, underLu: [0, 2, 11], ride: false });
        const [m, v, g] = judged(measured, parts, plan);
        expect([m!.underLu, v!.underLu, g!.underLu].map((lu) => lu!.toFixed(6))).toEqual([
          '0.000000',
          '2.000000',
          '11.000000',
        ]);
      }),
      { numRuns: 6 },
    );
  });
  it('takes a silent track, a take without a voice, and one without anything', async () => {
    const silent = trackOf(new Float32Array(frames));
    const some = await balanceTake([tracks[0]!, silent], await measureTracks([tracks[0]!, silent]), {
      ...aim,
      parts: ['main', 'bed'],
      underLu: [0, 11],
    });
    expect(some.levels.integratedLufs).toBeCloseTo(-16, 1);
    const beds = await balanceTake([tracks[2]!], await measureTracks([tracks[2]!]), {
      ...aim,
      parts: ['bed'],
      underLu: [11],
    });
    expect(Math.abs(beds.levels.integratedLufs! + 16)).toBeLessThan(0.1);
    const nothing = await balanceTake([silent], await measureTracks([silent]), {
      ...aim,
      parts: ['main'],
      underLu: [0],
    });
    expect(nothing.levels.integratedLufs).toBeNull();
    expect(nothing.plan.gainsDb).toEqual([0]);
  });
  it('refuses tracks of different rates, and samples that are no numbers', async () => {
    const other: MixTrack = { recording: recordingOf([host], 48_000), channels: [0] };
    await expect(measureTracks([tracks[0]!, other])).rejects.toMatchObject({ code: 'rates-differ' });
    const broken = trackOf(host.map((v, i) => (i === 5000 ? Number.NaN : v)));
    await expect(measureTracks([broken])).rejects.toMatchObject({ code: 'not-a-number' });
  });
});

describe('rides', () => {
  const rides: Ride[] = [
    { track: 1, fromS: 2, toS: 4, db: -6 },
    { track: 1, fromS: 3.5, toS: 5, db: -9 },
    { track: 0, fromS: 0, toS: 9, db: -3 },
  ];
  it('go down before their stretch and come up after it, the deeper one where two meet', () => {
    const at = (s: number) => rideDbAt(rides, 1, s);
    const wanted = [0, -3, -6, -6, -9, -9, -4.5, 0];
    [1, 1.9, 2, 3, 4.2, 5, 5.25, 6].forEach((s, i) => {
      expect(at(s), `${s} s`).toBeCloseTo(wanted[i]!, 9);
    });
  });
  it('are the same hop by hop as instant by instant', () => {
    const curve = rideCurve(rides, 1, 80);
    curve.forEach((db, h) => {
      expect(db).toBeCloseTo(rideDbAt(rides, 1, (h + 0.5) * 0.1), 9);
    });
  });
});

describe('a mix', () => {
  it('is as loud as its sides say, whether a track has one channel or two', async () => {
    const levels = await mixDown([trackOf(host)], { gainsDb: [0], rides: [], limit: null });
    const meter = loudnessMeter(2, RATE);
    meter.push([host, host]);
    expect(levels.integratedLufs).toBeCloseTo(meter.result().integratedLufs!, 6);
    const file = await openWav(bytesInMemory(encodeWav([host, guest, calm], RATE)));
    const third = await mixDown([{ recording: file, channels: [2] }], { gainsDb: [6], rides: [], limit: null });
    const mono = calm.reduce((most, v) => Math.max(most, Math.abs(v)), 0);
    expect(third.samplePeakDbfs).toBeCloseTo(dbFromRatio(mono) + 6, 2);
    expect(third.limited).toBeNull();
  });
});
