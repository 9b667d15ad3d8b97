import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { testFft } from '#core/audio/samples/fft.testkit.ts';
import { recordingOf, seededNormal, seededRandom } from '#core/audio/samples/index.ts';
import {
  type ClapScene,
  clapsAt,
  convolve,
  game,
  jingle,
  renderFrame,
  roomResponse,
  voice,
} from '#core/desk-tests/stand-ins/index.ts';
import { rate } from '#core/model/units/index.ts';
import {
  type Brightness,
  findClaps,
  findFlashes,
  frameRateOf,
  GRID_CELLS,
  GRID_COLUMNS,
  GRID_ROWS,
  meanBrightness,
  pairMarks,
  unevenFrames,
} from './index.ts';
import { fitLine } from './line.ts';

const RATE = 48_000;
const fftOf = await testFft();

describe('claps', () => {
  it('are found within two milliseconds in speech and a room, with at most one that is none', async () => {
    let [wanted, found, worst] = [0, 0, 0];
    for (let seed = 0; seed < 8; seed++) {
      const random = seededRandom(seed);
      const instants = [1, 2.6, 4.1].map((t) => t + random() * 0.8);
      const speech = voice(110 + 20 * seed)(6 * RATE, RATE, seed);
      const claps = clapsAt(instants)(6 * RATE, RATE, seed + 50);
      const together = speech.map((v, i) => v + claps[i]! * (0.7 + 0.6 * random()));
      const room = seed % 2 ? convolve(fftOf, together, roomResponse(RATE, 0.5, 3, seed)) : together;
      const answer = await findClaps(fftOf, recordingOf([room], RATE));
      const hits = instants.map((t) => answer.find((c) => Math.abs(c.atMs - t * 1000) < 2));
      wanted += instants.length;
      found += hits.filter(Boolean).length;
      hits.forEach((hit, i) => {
        if (hit) worst = Math.max(worst, Math.abs(hit.atMs - instants[i]! * 1000));
      });
      expect(answer.length - hits.filter(Boolean).length).toBeLessThanOrEqual(1);
    }
    expect(found).toBe(wanted);
    expect(worst).toBeLessThan(0.5);
  });
  it('are not heard in speech, noise or silence', async () => {
    const normal = seededNormal(4);
    for (const sound of [
      voice(200)(8 * RATE, RATE, 3),
      Float32Array.from({ length: RATE * 4 }, () => 0.1 * normal()),
      new Float32Array(RATE * 2),
    ]) {
      expect((await findClaps(fftOf, recordingOf([sound], RATE))).length).toBeLessThanOrEqual(1);
    }
  });
  it('are not heard in plucked notes, and alone stand out from a game with its bangs', async () => {
    for (let seed = 0; seed < 6; seed++) {
      expect(await findClaps(fftOf, recordingOf([jingle(10 * RATE, RATE, seed)], RATE))).toEqual([]);
      const bangs = game(10 * RATE, RATE, seed);
      expect(await findClaps(fftOf, recordingOf([bangs], RATE))).toEqual([]);
      const claps = clapsAt([2, 5, 8])(10 * RATE, RATE, seed);
      const found = await findClaps(fftOf, recordingOf([bangs.map((v, i) => 0.5 * v + 2 * claps[i]!)], RATE));
      expect(found.map((c) => Math.round(c.atMs / 10))).toEqual([200, 500, 800]);
    }
  });
  it('begin where they begin, whatever was said just before', async () => {
    const speech = voice(170)(8 * RATE, RATE, 12);
    for (const instant of [1.31, 2.02, 3.77, 5.4]) {
      const claps = clapsAt([instant])(8 * RATE, RATE, 3);
      const [found] = await findClaps(fftOf, recordingOf([speech.map((v, i) => 0.8 * v + claps[i]!)], RATE));
      expect(Math.abs(found!.atMs - instant * 1000)).toBeLessThan(0.6);
    }
  });
  it('of a row are each found once, though a wall throws them back', async () => {
    const instants = [1.2, 2.2, 3.2];
    const claps = clapsAt(instants)(5 * RATE, RATE, 6);
    const back = Math.round(0.11 * RATE);
    const normal = seededNormal(2);
    const heard = claps.map((v, i) => 0.4 * v + 0.08 * (claps[i - back] ?? 0) + 0.0005 * normal());
    const found = await findClaps(fftOf, recordingOf([heard], RATE));
    expect(found.map((c) => Math.round(c.atMs / 10))).toEqual(instants.map((s) => Math.round(100 * s)));
    for (const { confidence } of found) expect(confidence).toBeGreaterThan(0.9);
  });
  it('are not what comes again and again, however sharp: keys, a clock, a drum', async () => {
    const normal = seededNormal(8);
    for (const everyS of [0.25, 0.5]) {
      const tick = Float32Array.from({ length: 400 }, (_, i) => normal() * Math.exp(-i / 60));
      const out = Float32Array.from({ length: 15 * RATE }, () => 0.002 * normal());
      for (let s = 0.3; s < 14.8; s += everyS)
        for (const [i, v] of tick.entries()) out[Math.round(s * RATE) + i]! += 0.2 * v;
      expect(await findClaps(fftOf, recordingOf([out], RATE)), `every ${everyS} s`).toEqual([]);
    }
  });
  it('keep their rank: the stronger they are made, the stronger they are said to be', async () => {
    const speech = voice(150)(6 * RATE, RATE, 4);
    const strengths: number[] = [];
    for (const gain of [0.5, 1, 2]) {
      const claps = clapsAt([2.5])(6 * RATE, RATE, 9);
      const [found] = await findClaps(fftOf, recordingOf([speech.map((v, i) => v + gain * claps[i]!)], RATE));
      strengths.push(found!.strength);
    }
    expect(strengths).toEqual([...strengths].sort((a, b) => a - b));
  });
  it.each([8000, 16_000, 44_100, 96_000])('are found at %i Hz', async (sampleRateHz) => {
    const claps = clapsAt([0.7, 1.9])(3 * sampleRateHz, sampleRateHz, 2);
    const answer = await findClaps(fftOf, recordingOf([claps], sampleRateHz));
    expect(answer.map((c) => Math.round(c.atMs / 2) * 2)).toEqual([700, 1900]);
  });
});

/** A film of the stand-in scene as Measure would read it: cells of mean brightness. */
function film(scene: ClapScene, frames: number): Brightness {
  const luma = new Uint8Array(scene.width * scene.height);
  const cells = new Float32Array(frames * GRID_CELLS);
  for (let f = 0; f < frames; f++) {
    renderFrame(scene, f, luma);
    const counts = new Float32Array(GRID_CELLS);
    for (let y = 0; y < scene.height; y++) {
      for (let x = 0; x < scene.width; x++) {
        const cell =
          Math.floor((y * GRID_ROWS) / scene.height) * GRID_COLUMNS + Math.floor((x * GRID_COLUMNS) / scene.width);
        cells[f * GRID_CELLS + cell]! += luma[y * scene.width + x]!;
        counts[cell]!++;
      }
    }
    for (let c = 0; c < GRID_CELLS; c++) cells[f * GRID_CELLS + c]! /= counts[c]!;
  }
  return { timesMs: Float64Array.from({ length: frames }, (_, f) => (1000 * f) / scene.frameRateHz), cells };
}
const scene: ClapScene = {
  width: 160,
  height: 90,
  frameRateHz: 60,
  flashesS: [0.5, 1.25, 2.01],
  delayMs: 100,
  seed: 1,
};

describe('flashes', () => {
  it('are found in the very frame, however small in the picture', () => {
    const found = findFlashes(film(scene, 150));
    expect(found.map((f) => f.frame)).toEqual(scene.flashesS.map((s) => Math.ceil((s + 0.1) * 60 - 0.5)));
  });
  it('are not seen in a still scene, a slow dawn or a cut', () => {
    const still = film({ ...scene, flashesS: [] }, 60);
    expect(findFlashes(still)).toEqual([]);
    const dawn = { ...still, cells: still.cells.map((v, i) => v + Math.floor(i / GRID_CELLS) * 2) };
    expect(findFlashes(dawn)).toEqual([]);
    const cut = { ...still, cells: still.cells.map((v, i) => v + (i / GRID_CELLS >= 20 ? 90 : 0)) };
    expect(findFlashes(cut)).toEqual([]);
  });
  it('have a mean and a frame rate to be drawn with, also from whole-millisecond stamps', () => {
    const brightness = film(scene, 40);
    expect(meanBrightness(brightness)).toHaveLength(40);
    expect(frameRateOf(brightness.timesMs)).toEqual(rate(60));
    const rounded = Float64Array.from({ length: 600 }, (_, f) => Math.round((f * 1001) / 30));
    expect(frameRateOf(rounded)).toEqual(rate(30000, 1001));
    expect(frameRateOf(Float64Array.of(1))).toBeNull();
  });
  it('are known to come unevenly from any stamps, and evenly in spite of rounding and a lost one', () => {
    const random = seededRandom(3);
    for (const hz of [23.976, 25, 29.97, 50, 59.94, 120]) {
      const even = Float64Array.from({ length: 300 }, (_, f) => Math.round((1000 * f) / hz));
      expect(unevenFrames(even), `${hz} Hz`).toBeNull();
      expect(unevenFrames(even.filter((_, f) => f % 37 !== 0))).toBeNull();
    }
    let at = 0;
    const screen = Float64Array.from({ length: 300 }, () => (at += 15 + 40 * random()));
    const found = unevenFrames(screen)!;
    expect(found.fromMs).toBeGreaterThan(14);
    expect(found.fromMs).toBeLessThan(22);
    expect(found.toMs).toBeGreaterThan(45);
    expect(found.toMs).toBeLessThan(56);
  });
});

const mark = (atMs: number, used = true) => ({ atMs, used });

describe('flash and clap', () => {
  it('are paired whatever the offset, with claps that nobody saw and flashes that nobody heard', () => {
    fc.assert(
      fc.property(fc.double({ min: -350, max: 450, noNaN: true }), fc.integer({ min: 1, max: 6 }), (offset, count) => {
        const flashes = Array.from({ length: count }, (_, i) => mark(1000 + 2100 * i + 137 * (i % 3)));
        const claps = flashes.map((f) => mark(f.atMs + offset));
        const found = pairMarks([...flashes, mark(90_000)], [mark(20_000.5), ...claps], 1000 / 60)!;
        expect(found.count).toBe(count);
        expect(found.offsetMs).toBeCloseTo(offset, 6);
        expect(found.sdMs).toBeCloseTo(1000 / 60 / Math.sqrt(12), 6);
      }),
    );
  });
  it('leave out the odd one, and what a person left out', () => {
    const flashes = [1000, 3000, 5000, 7000].map((t) => mark(t));
    const claps = [mark(1064), mark(3065), mark(5163), mark(7063, false)];
    const found = pairMarks(flashes, claps, 16.7)!;
    expect(found.pairs.map((p) => p.used)).toEqual([true, true, false]);
    expect(found.offsetMs).toBeCloseTo(64.5, 6);
  });
  it('say nothing where nothing belongs together', () => {
    expect(pairMarks([], [mark(5)], 16)).toBeNull();
    expect(pairMarks([mark(0)], [mark(5000)], 16)).toBeNull();
  });
});

describe('a robust line', () => {
  it('is right although a quarter of the readings is wrong', () => {
    const normal = seededNormal(2);
    const readings = Array.from({ length: 40 }, (_, i) => ({
      x: i * 30,
      y: 0.5 + 60e-6 * i * 30 + 2e-6 * normal() + (i % 4 === 3 ? 0.01 * normal() : 0),
      weight: 1,
    }));
    const line = fitLine(readings, 1e-6);
    expect(line.slope * 1e6).toBeCloseTo(60, 1);
    expect(Math.abs(line.start - 0.5)).toBeLessThan(5e-6);
    expect(line.agrees.filter(Boolean).length).toBeGreaterThanOrEqual(30);
    // The spread that it states is the spread that it has, within a factor of three.
    expect(Math.abs(line.slope - 60e-6)).toBeLessThan(3 * line.slopeSd);
  });
  it('admits what it cannot know', () => {
    expect(fitLine([], 1)).toMatchObject({ slopeSd: Number.POSITIVE_INFINITY });
    const one = fitLine([{ x: 3, y: 7, weight: 1 }], 0.1);
    expect(one).toMatchObject({ start: 7, slope: 0, slopeSd: Number.POSITIVE_INFINITY });
  });
});
