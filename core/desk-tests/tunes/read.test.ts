import { beforeAll, describe, expect, it } from 'vitest';
import { band, filterInPlace } from '#core/audio/process/index.ts';
import { testFft } from '#core/audio/samples/fft.testkit.ts';
import { type FftOf, recordingOf, resample, seededNormal, seededRandom } from '#core/audio/samples/index.ts';
import { game, voice } from '#core/desk-tests/stand-ins/index.ts';
import { PERHAPS_FROM, readTap, type TapReading, type TuneReading } from './index.ts';
import { aScene, type Played, renderScene, type Scene, stretched, trueAtMs } from './scene.testkit.ts';

let fftOf: FftOf;
beforeAll(async () => {
  fftOf = await testFft();
});

const HELD = 2;
/** Reads a scene for what was played in it and for a few tunes that were not. */
async function readScene(scene: Scene, spoil: (x: Float32Array) => Float32Array = (x) => x): Promise<TapReading> {
  const ids = scene.played.map((p) => p.id);
  const others = Array.from({ length: 16 }, (_, i) => i).filter((i) => !ids.includes(i));
  const x = spoil(renderScene(fftOf, scene));
  return (await readTap(fftOf, recordingOf([x], scene.rateHz), { ids: [...ids, ...others.slice(0, HELD)] }))!;
}
const of = (reading: TapReading, { id }: Played): TuneReading => reading.tunes.find((t) => t.id === id)!;
const found = (reading: TapReading) => reading.tunes.filter((t) => t.word === 'found').map((t) => t.id);
/** Errors about the middle one: when a take begins is no one's fault. */
const aboutMiddle = (errors: readonly number[]): number[] => {
  const middle = [...errors].sort((a, b) => a - b)[errors.length >> 1]!;
  return errors.map((e) => Math.abs(e - middle));
};

describe('a take of many tunes at once, in a room', () => {
  it.each([48_000, 44_100])(
    'is read at %i Hz: which, when, how loud, on whose clock, which way round',
    async (rateHz) => {
      const scene = aScene(3, [0, -7, -14, -20, -28], { rateHz });
      const reading = await readScene(scene);
      expect(found(reading).sort()).toEqual(scene.played.map((p) => p.id).sort());
      const heard = scene.played.map((p) => ({ p, h: of(reading, p).heard! }));
      for (const e of aboutMiddle(heard.map(({ p, h }) => h.atMs - trueAtMs(p)))) expect(e).toBeLessThan(0.1);
      for (const e of aboutMiddle(heard.map(({ p, h }) => h.gainDb - p.levelDb))) expect(e).toBeLessThan(2);
      for (const { p, h } of heard) expect(Math.abs(h.ppm! - p.ppm)).toBeLessThan(5);
      const strongest = scene.played[0]!.polarity;
      for (const { p, h } of heard) if (h.polarity !== null) expect(h.polarity).toBe(p.polarity * strongest);
      for (const p of scene.played) expect(of(reading, p).confidence).toBeGreaterThan(0.95);
    },
  );
  it('tells second ways, later and earlier than the strongest, and how far under it', async () => {
    const base = aScene(5, [0, -6], { roomDb: null }, 0);
    const [a, b] = base.played;
    const played = [
      { ...a!, second: { ms: 63.4, db: -9 } },
      // Louder by its second way: the first comes before the strongest.
      { ...b!, second: { ms: 210, db: 7 } },
    ];
    const reading = await readScene({ ...base, played });
    const [first] = of(reading, played[0]!).heard!.seconds.ways;
    expect(first!.afterMs).toBeCloseTo(63.4, 0);
    expect(Math.abs(first!.underDb - 9)).toBeLessThan(1.5);
    const late = of(reading, played[1]!).heard!;
    expect(late.seconds.ways[0]!.afterMs).toBeCloseTo(-210, 0);
    expect(Math.abs(late.seconds.ways[0]!.underDb - 7)).toBeLessThan(1.5);
    expect(late.atMs - trueAtMs(played[1]!)).toBeCloseTo(210, 0);
    expect(late.seconds.noneAboveDb).toBeLessThan(-15);
  });
  it('tells of no second way where there is none, and says up to where it looked', async () => {
    const scene = aScene(8, [0, -10], { roomDb: null }, 0);
    const reading = await readScene(scene);
    for (const p of scene.played) {
      expect(of(reading, p).heard!.seconds.ways.filter((w) => w.underDb < 20)).toEqual([]);
      expect(of(reading, p).heard!.seconds.noneAboveDb).toBeLessThan(-20);
    }
  });
  it('finds what lies under a talker who is as loud as the loudest', async () => {
    const scene = aScene(12, [0, -12, -20], { speechDb: 0 });
    expect(found(await readScene(scene)).sort()).toEqual(scene.played.map((p) => p.id).sort());
  });
});

describe('what lies on the way of a tune', () => {
  it('is told as a band: 300 to 3400 Hz of a call, not more', async () => {
    const scene = aScene(15, [0, -5], { roomDb: null }, 0);
    const reading = await readScene(scene, (x) => {
      for (let n = 0; n < 2; n++) filterInPlace(x, band(300, 3400, scene.rateHz));
      return x;
    });
    const { bands } = of(reading, scene.played[0]!).heard!;
    const db = (lowHz: number) => bands.find((b) => b.lowHz === lowHz)!.db ?? -99;
    expect(db(640)).toBeGreaterThan(-4);
    expect(db(1250)).toBeGreaterThan(-4);
    expect(db(5000)).toBeLessThan(-15);
    expect(db(10_000)).toBeLessThan(-20);
    expect(db(80)).toBeLessThan(-15);
  });
  it('is told as a jump where a buffer was lost, and the rest is read all the same', async () => {
    const scene = aScene(18, [0, -8], { roomDb: null }, 0);
    const lostMs = 42;
    const atS = 9.3;
    const reading = await readScene(scene, (x) => {
      const [at, gone] = [Math.round(atS * scene.rateHz), Math.round((lostMs / 1000) * scene.rateHz)];
      const out = new Float32Array(x.length);
      out.set(x.subarray(0, at));
      out.set(x.subarray(at + gone), at);
      return out;
    });
    for (const p of scene.played) {
      const { jump } = of(reading, p).heard!;
      expect(jump!.ms).toBeCloseTo(-lostMs, 0);
      expect(Math.abs(jump!.atMs / 1000 - atS)).toBeLessThan(1.3);
    }
  });
  it('may be a clock that is 180 ppm off', async () => {
    const base = aScene(21, [0], { roomDb: null }, 0);
    const played = [{ ...base.played[0]!, ppm: -180 }];
    const reading = await readScene({ ...base, played });
    expect(of(reading, played[0]!).heard!.ppm).toBeCloseTo(-180, 0);
    expect(of(reading, played[0]!).heard!.wander).toBeNull();
  });
  it('may be a call that stretches what it lost: found all the same, and what cannot be told is not', async () => {
    const scene = aScene(24, [0, -8, -16, -20]);
    const reading = await readScene(scene, (x) => stretched(x, scene.rateHz, 5));
    expect(found(reading).sort()).toEqual(scene.played.map((p) => p.id).sort());
    const heard = scene.played.map((p) => ({ p, h: of(reading, p).heard! }));
    for (const { h } of heard) {
      expect(h).toMatchObject({ ppm: null, polarity: null, jump: null, seconds: { ways: [] } });
      expect(h.bands.every((b) => b.db === null)).toBe(true);
      const { earliestMs, latestMs } = h.wander!;
      expect(earliestMs).toBeLessThan(0);
      expect(latestMs).toBeGreaterThan(0);
      expect(latestMs - earliestMs).toBeGreaterThan(4);
      expect(latestMs - earliestMs).toBeLessThan(90);
    }
    // No time is better than the delay is steady.
    aboutMiddle(heard.map(({ p, h }) => h.atMs - trueAtMs(p))).forEach((e, i) => {
      const { earliestMs, latestMs } = heard[i]!.h.wander!;
      expect(e).toBeLessThan(Math.max(latestMs, -earliestMs));
    });
    for (const e of aboutMiddle(heard.map(({ p, h }) => h.gainDb - p.levelDb))) expect(e).toBeLessThan(4);
  });
});

describe('what was not played', () => {
  it.each([
    ['a talker', (n: number) => voice(130)(n, 16_000, 3)],
    ['a game', (n: number) => game(n, 16_000, 4)],
    ['noise', (n: number) => Float32Array.from({ length: n }, seededNormal(5))],
    // Notes that repeat: what is most like a tune of all that is none.
    [
      'an arpeggio',
      (n: number) =>
        Float32Array.from({ length: n }, (_, i) => {
          const hz = 330 * 2 ** ([0, 3, 7, 12][Math.floor((i / 16_000) * 4) % 4]! / 12);
          return 0.2 * Math.sin((2 * Math.PI * hz * i) / 16_000);
        }),
    ],
  ])('is not claimed of %s', async (_, make) => {
    const reading = await readTap(fftOf, recordingOf([make(16_000 * 22)], 16_000));
    expect(found(reading!)).toEqual([]);
    expect(reading!.tunes.every((t) => t.heard === null && t.confidence === null)).toBe(true);
  });
  it('is not claimed where a tune would have begun before the take, of which only rounding is left', async () => {
    const rateHz = 16_000;
    for (const phaseS of [0.3, 0.6, 0.9]) {
      const normal = seededNormal(1);
      const x = Float32Array.from({ length: 12.8 * rateHz }, (_, i) => {
        const beepS = i < 8.8 * rateHz ? (i / rateHz + 1 - phaseS) % 1 : 1;
        return (beepS < 0.02 ? Math.sign(Math.sin(2 * Math.PI * 700 * beepS)) : 0) + 1e-4 * normal();
      });
      const reading = (await readTap(fftOf, recordingOf([x], rateHz)))!;
      expect(Math.max(...reading.tunes.map((t) => t.overChance))).toBeLessThan(PERHAPS_FROM);
    }
  });
  it('is not claimed where silence lies round the tunes, as calls leave it', async () => {
    const scene = aScene(33, [0, -14, -26], { rateHz: 16_000 });
    const tunes = renderScene(fftOf, scene);
    const padded = new Float32Array(tunes.length + 24 * 16_000);
    padded.set(tunes, 14 * 16_000);
    // Not quite nothing: what a codec makes up between words.
    const normal = seededNormal(3);
    for (let i = 0; i < padded.length; i++) padded[i]! += 3e-6 * normal();
    const reading = (await readTap(fftOf, recordingOf([padded], 16_000)))!;
    const played = scene.played.map((p) => p.id);
    expect(found(reading).sort()).toEqual([...played].sort());
    for (const t of reading.tunes) if (!played.includes(t.id)) expect(t.overChance).toBeLessThan(5);
  });
  it('is nothing at all of a take that is silent or too short', async () => {
    expect(await readTap(fftOf, recordingOf([new Float32Array(16_000 * 20)], 16_000))).toBeNull();
    const random = seededRandom(1);
    const short = Float32Array.from({ length: 16_000 * 8 }, () => random() - 0.5);
    expect(await readTap(fftOf, recordingOf([short], 16_000))).toBeNull();
  });
});

describe('a take that does not hold all of a tune', () => {
  it('is read where two thirds of it are there, begun late or stopped early', async () => {
    const scene = aScene(27, [0, -6], { roomDb: null }, 0);
    const whole = renderScene(fftOf, scene);
    const cut = 5 * scene.rateHz;
    const ids = scene.played.map((p) => p.id);
    const late = (await readTap(fftOf, recordingOf([whole.slice(cut)], scene.rateHz), { ids }))!;
    for (const p of scene.played) expect(of(late, p).heard!.atMs).toBeCloseTo(trueAtMs(p) - 5000, 0);
    const early = (await readTap(fftOf, recordingOf([whole.slice(0, 14 * scene.rateHz)], scene.rateHz), { ids }))!;
    for (const p of scene.played) expect(of(early, p).heard!.atMs).toBeCloseTo(trueAtMs(p), 0);
  });
  it('tells how far it is while it works', async () => {
    const scene = aScene(30, [0], { roomDb: null, rateHz: 16_000 }, 0);
    const shares: number[] = [];
    const x = resample(renderScene(fftOf, scene), 0, 1, 16_000 * 20);
    await readTap(fftOf, recordingOf([x], 16_000), { ids: [scene.played[0]!.id], onDone: (s) => shares.push(s) });
    expect(shares.length).toBeGreaterThan(5);
    expect([...shares].sort((a, b) => a - b)).toEqual(shares);
    expect(shares.at(-1)).toBeCloseTo(1, 6);
  });
});
