import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { testFft } from '#core/audio/samples/fft.testkit.ts';
import { type FftOf, recordingOf } from '#core/audio/samples/index.ts';
import {
  game,
  jingle,
  renderFrame,
  renderShotSound,
  renderSlateShot,
  voice,
} from '#core/desk-tests/stand-ins/index.ts';
import { hertz, rate } from '#core/model/units/index.ts';
import { beatsOf } from './chirps.ts';
import { CODE_BITS, codeOf, powerOf, readCells } from './code.ts';
import { BEATS, CHIRPS, secondsABeat } from './film.ts';
import {
  findChirps,
  findPanels,
  framesALoop,
  readSlates,
  renderSlateSound,
  SLATE_RATES,
  slateLayout,
  whiteBoxes,
} from './index.ts';
import { type Shot, sightsOf } from './slate.testkit.ts';

const RATE = 16_000;
const [, , AT_25, , AT_30, AT_50, AT_5994, AT_60] = SLATE_RATES as readonly [...typeof SLATE_RATES];
const base: Shot = { slate: { rate: AT_60!, id: 5 }, width: 240, height: 136, rateHz: 60, seconds: 4.5, zeroMs: -1000 };
const onStand = { x: 0.52, y: 0.5, scale: 0.6, turn: 0.08, lean: 0.12 };

async function read(fftOf: FftOf, shot: Shot, lateMs: number) {
  const chirps = await findChirps(fftOf, recordingOf([renderShotSound(shot, lateMs, RATE)], RATE));
  const sights = sightsOf(shot);
  return { sights, chirps, readings: readSlates(sights, chirps) };
}

describe('the code', () => {
  it('is read from any frame, alone or mixed with the next, whatever the curve that it was stored by', () => {
    fc.assert(
      fc.property(
        fc.integer({ min: 0, max: 1000 }),
        fc.integer({ min: 0, max: 15 }),
        fc.double({ min: 0, max: 0.95, noNaN: true }),
        fc.constantFrom(1, 2.2),
        (frame, id, blend, power) => {
          const [a, b] = [codeOf(frame, id), codeOf(frame + 1, id)];
          const cells = Float32Array.from({ length: 2 * CODE_BITS }, (_, i) => {
            const sign = i % 2 ? -1 : 1;
            const [p, q] = [a[i >> 1]! * sign, b[i >> 1]! * sign].map((v) => (v > 0 ? 1 : 0)) as [number, number];
            return (p * (1 - blend) + q * blend) ** (1 / power);
          });
          const found = readCells(cells, power)!;
          expect(found.id).toBe(id);
          expect(Math.abs(found.frame + found.blend - frame - blend)).toBeLessThan(0.081);
          if (blend > 0.2 && blend < 0.8) expect(powerOf([cells, cells])).toBeCloseTo(power, 1);
        },
      ),
    );
  });
  it('differs from frame to frame in two bits, and for every frame and id', () => {
    const seen = new Set<string>();
    for (let frame = 0; frame < 960; frame++) {
      const [a, b] = [codeOf(frame, 3), codeOf(frame + 1, 3)];
      expect(a.filter((v, i) => v !== b[i])).toHaveLength(2);
      seen.add(a.join());
    }
    expect(seen.size).toBe(960);
    expect(new Set(Array.from({ length: 16 }, (_, id) => codeOf(7, id).join())).size).toBe(16);
  });
  it('is not read from cells that stand at random', () => {
    fc.assert(
      fc.property(fc.array(fc.double({ min: 0, max: 1, noNaN: true }), { minLength: 32, maxLength: 32 }), (cells) => {
        expect(readCells(cells, 1.6)).toBeNull();
      }),
      { numRuns: 2000 },
    );
  });
});

describe('the film', () => {
  it('keeps its flash on whole frames, its boxes within any screen, and ten bits for its longest loop', () => {
    for (const of of SLATE_RATES) {
      expect(framesALoop(of)).toBeLessThan(1024);
      expect(Math.abs(secondsABeat(of) - 2)).toBeLessThan(0.003);
    }
    for (const [w, h] of [
      [1280, 720],
      [1920, 1080],
      [390, 844],
      [320, 180],
    ] as const) {
      const layout = slateLayout(w, h);
      expect(layout.panel.width).toBeGreaterThan(w * 0.4);
      for (const b of whiteBoxes({ rate: AT_30!, id: 0 }, 0, layout)) {
        expect(Math.min(b.x, b.y, b.width, b.height)).toBeGreaterThanOrEqual(0);
        expect(b.x + b.width).toBeLessThanOrEqual(w);
        expect(b.y + b.height).toBeLessThanOrEqual(h);
      }
    }
  });
  it('tells any three beats in a row from all others', () => {
    const threes = CHIRPS.map((_, i) => [0, 1, 2].map((k) => CHIRPS[(i + k) % BEATS]).join(''));
    expect(new Set(threes).size).toBe(BEATS);
    const chirps = [2, 3, 4].map((b) => ({ atMs: 2000 * b + 77, kind: CHIRPS[b]!, likeness: 1 }));
    expect(beatsOf(chirps, 2)).toEqual([2, 3, 4]);
    expect(beatsOf(chirps.slice(0, 1), 2)).toBeNull();
  });
});

describe('chirps', () => {
  it('are all found within 20 microseconds, alone and under speech', async () => {
    const fftOf = await testFft();
    for (const [sampleRateHz, gain] of [
      [48_000, 0],
      [16_000, 3],
      [44_100, 3],
    ] as const) {
      const slate = renderSlateSound({ rate: AT_5994!, id: 0 }, 20, sampleRateHz);
      const talk = voice(150)(slate.length, sampleRateHz, 4);
      const found = await findChirps(
        fftOf,
        recordingOf([slate.map((v, i) => 0.5 * v + gain * talk[i]!)], sampleRateHz),
      );
      expect(found.map((c) => c.kind)).toEqual([...CHIRPS, 0, 0]);
      expect(Math.max(...found.map((c, beat) => Math.abs(c.atMs - beat * 2002)))).toBeLessThan(0.02);
    }
  });
  it('are not heard in games, speech and music', async () => {
    const fftOf = await testFft();
    for (let seed = 0; seed < 8; seed++)
      for (const sound of [game, voice(110 + 15 * seed), jingle])
        expect(await findChirps(fftOf, recordingOf([sound(20 * RATE, RATE, seed)], RATE))).toEqual([]);
  });
});

describe('panels', () => {
  it('are found by a camera that stands askew, dim, noisy, burnt out, small and turned', () => {
    for (const over of [
      { gain: 0.25, noise: 6 },
      { gain: 1.5, noise: 4 },
      { place: { ...onStand, scale: 0.35 }, width: 480, height: 270, noise: 4 },
      { place: { ...onStand, turn: 0.3, lean: -0.2 }, width: 480, height: 270 },
      { place: { ...onStand, turn: Math.PI / 2, scale: 0.5 }, width: 480, height: 270 },
      { place: { ...onStand, turn: Math.PI }, noise: 4 },
    ]) {
      const shot: Shot = { ...base, ...over };
      const [found, ...more] = findPanels(renderSlateShot(shot, 30));
      expect(more).toEqual([]);
      expect(found).toMatchObject({ id: 5, frame: 90, blend: 0 });
    }
  });
  it('are not seen where there are none', () => {
    const bytes = new Uint8Array(320 * 180);
    const scene = { width: 320, height: 180, frameRateHz: 30, flashesS: [0.1], delayMs: 0, seed: 3 };
    for (let frame = 0; frame < 6; frame++) {
      renderFrame(scene, frame, bytes);
      expect(findPanels({ width: 320, height: 180, stride: 320, bytes })).toEqual([]);
    }
    expect(findPanels({ width: 320, height: 180, stride: 320, bytes: new Uint8Array(320 * 180) })).toEqual([]);
  });
});

describe('a slate read back', () => {
  const shots: readonly (readonly [string, Partial<Shot>, number, number])[] = [
    ['handed on at its own rate', { zeroMs: -1000 - 0.01 }, 130, 0.1],
    ['taken at 50 by ms stamps, clocks 40 ppm apart', { rateHz: 50, zeroMs: -812.3, ppm: 40, stampsMs: 1 }, -60, 2],
    [
      '25 by a camera at 60',
      { slate: { rate: AT_25!, id: 9 }, zeroMs: -421.7, exposureMs: 9, light: true, noise: 4, place: onStand },
      210,
      1.5,
    ],
    [
      '59.94 by a camera at 50',
      { slate: { rate: AT_5994!, id: 0 }, rateHz: 50, zeroMs: -333.3, exposureMs: 14, light: true, place: onStand },
      40,
      0.5,
    ],
    [
      '60 by a camera whose shutter stands open',
      { rateHz: 29.97, zeroMs: -540.2, exposureMs: 31, light: true, noise: 4, place: onStand },
      88,
      2.5,
    ],
    [
      '50 by frames that are mixed',
      { slate: { rate: AT_50!, id: 12 }, zeroMs: -611, exposureMs: 16, gain: 0.6 },
      350,
      0.5,
    ],
    [
      '30 by a camera at 30, the phase standing still',
      { slate: { rate: AT_30!, id: 1 }, rateHz: 30, zeroMs: -707, exposureMs: 8, light: true, place: onStand },
      -120,
      16.7,
    ],
  ];
  it.each(shots)('%s', async (_, over, lateMs, within) => {
    const shot: Shot = { ...base, ...over };
    const { sights, readings } = await read(await testFft(), shot, lateMs);
    expect(sights.read).toBe(sights.timesMs.length);
    expect(readings).toHaveLength(1);
    const { id, rate: found, run, offset } = readings[0]!;
    expect(id).toBe(shot.slate.id);
    expect(hertz(found)).toBeCloseTo(hertz(shot.slate.rate), 6);
    expect(run.seenBy).toBe(shot.place ? 'camera' : 'direct');
    const off = Math.abs(offset!.offsetMs - lateMs);
    expect(off).toBeLessThan(within);
    expect(off).toBeLessThan(offset!.boundMs);
    expect(offset!.count).toBeGreaterThanOrEqual(2);
  });
  it('counts pictures that stand still, and sound that is later than the nearest beat', async () => {
    const shot: Shot = { ...base, seconds: 8, zeroMs: -5000 - 0.01, stuck: [60, 200] };
    const { readings } = await read(await testFft(), shot, 2600);
    expect(readings[0]!.run).toMatchObject({ repeated: 2, read: 480, missing: 0 });
    expect(readings[0]!.offset!.offsetMs).toBeCloseTo(2600, 0);
  });
  it('is told apart when it was started anew, and on two screens at once', () => {
    const one = sightsOf({ ...base, seconds: 2 });
    const two = sightsOf({ ...base, seconds: 2, zeroMs: -4321 });
    const later = two.panels.map((p) => ({ ...p, atMs: p.atMs + 2000 }));
    const timesMs = Float64Array.from([...one.timesMs, ...two.timesMs.map((t) => t + 2000)]);
    const anew = readSlates({ panels: [...one.panels, ...later], timesMs }, []);
    expect(anew).toHaveLength(2);
    expect(Math.abs(anew[0]!.run.phase.zeroMs + 1000)).toBeLessThan(0.1);
    expect(Math.abs(anew[1]!.run.phase.zeroMs + 2321)).toBeLessThan(1000 / 60);
    const beside = sightsOf({ ...base, seconds: 2, zeroMs: -980 }).panels.map((p) => ({
      ...p,
      quad: p.quad.map((c) => ({ x: c.x + 400, y: c.y })) as unknown as typeof p.quad,
    }));
    const both = readSlates({ panels: [...one.panels, ...beside], timesMs: one.timesMs }, []);
    expect(both).toHaveLength(2);
    expect(Math.abs(both[1]!.run.phase.zeroMs - both[0]!.run.phase.zeroMs - 20)).toBeLessThan(1000 / 60);
  });
  it('says nothing of a rate that no slate has', () => {
    const odd = sightsOf({ ...base, slate: { rate: rate(41), id: 1 }, seconds: 2 });
    expect(readSlates(odd, [])).toEqual([]);
  });
  it('is read from pictures that come unevenly, some of them lacking, whenever the take begins', async () => {
    const shot: Shot = { ...base, seconds: 6, rateHz: 50, zeroMs: -700.4 };
    const { panels, timesMs } = sightsOf(shot);
    const lacks = (atMs: number) => Math.round(atMs / 20) % 23 === 7;
    const moved = {
      panels: panels.filter((p) => !lacks(p.atMs)).map((p) => ({ ...p, atMs: p.atMs + 3300 })),
      timesMs: timesMs.filter((t) => !lacks(t)).map((t) => t + 3300),
    };
    const sound = recordingOf(
      [Float32Array.from([...new Float32Array(3.3 * RATE), ...renderShotSound(shot, 90, RATE)])],
      RATE,
    );
    const [found] = readSlates(moved, await findChirps(await testFft(), sound));
    expect(Math.abs(found!.offset!.offsetMs - 90)).toBeLessThan(2);
    expect(found!.run.missing).toBe(timesMs.filter(lacks).length);
  });
});
