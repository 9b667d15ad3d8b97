import { beforeAll, describe, expect, it } from 'vitest';
import { testFft } from '#core/audio/samples/fft.testkit.ts';
import { corrected, type FftOf, recordingOf, resample, seededNormal } from '#core/audio/samples/index.ts';
import { voice } from '#core/desk-tests/stand-ins/index.ts';
import { measureJumps, measureOffset, offsetAtMs, piecesOf, stretchesOf } from './index.ts';

const RATE = 16_000;
let fftOf: FftOf;
beforeAll(async () => {
  fftOf = await testFft();
});
const noisy = (x: Float32Array, seed: number): Float32Array => {
  const normal = seededNormal(seed);
  return x.map((v) => v + 0.003 * normal());
};
const SECONDS = 200;
const dry = () => voice(175)((SECONDS + 4) * RATE, RATE, 31);

/** Another recorder: 1.5 s earlier, its clock off by so much; from `atS` on a stretch of `lostMs` is missing. */
function other(
  x: Float32Array,
  ppm: number,
  losses: readonly (readonly [atS: number, lostMs: number])[],
): Float32Array {
  let y = resample(x, 1.5 * RATE, 1 / (1 + ppm * 1e-6), (SECONDS - 2) * RATE);
  for (const [atS, lostMs] of losses) {
    const at = Math.round((atS - 1.5) * RATE);
    const lost = Math.round((lostMs / 1000) * RATE);
    const joined = new Float32Array(y.length - lost);
    joined.set(y.subarray(0, at));
    joined.set(y.subarray(at + lost), at);
    y = joined;
  }
  return y;
}

async function apart(x: Float32Array, y: Float32Array) {
  const [ref, late] = [recordingOf([noisy(x, 1)], RATE), recordingOf([noisy(y, 2)], RATE)];
  const offset = await measureOffset(fftOf, ref, late);
  return { offset, apart: await measureJumps(fftOf, ref, late, offset) };
}

describe('a recorder that lost a buffer', () => {
  it.each([
    [0.5, 107.2, 10],
    [-75, 151.3, 5.33],
    [20, 100, -20],
  ] as const)('whose clock is off by %f ppm: found at %f s, %f ms, within 1 s and 1 ms', async (ppm, atS, lostMs) => {
    const x = dry();
    const losses: [number, number][] = lostMs > 0 ? [[atS, lostMs]] : [];
    let y = other(x, ppm, losses);
    if (lostMs < 0) {
      // A buffer that came twice.
      const at = Math.round((atS - 1.5) * RATE);
      const twice = Math.round((-lostMs / 1000) * RATE);
      const longer = new Float32Array(y.length + twice);
      longer.set(y.subarray(0, at));
      longer.set(y.subarray(at - twice), at);
      y = longer;
    }
    const { offset, apart: found } = await apart(x, y);
    expect(offset.confidence).toBeGreaterThan(0.5);
    expect(found.jumps).toHaveLength(1);
    const [jump] = found.jumps;
    expect(Math.abs(jump!.atMs / 1000 - atS)).toBeLessThan(1);
    expect(Math.abs(jump!.stepMs + lostMs)).toBeLessThan(1);
    expect(Math.abs(found.driftPpm! - ppm)).toBeLessThan(1);
    expect(Math.abs(found.startMs + 1500)).toBeLessThan(0.5);
  });
  it('twice is found twice', async () => {
    const x = dry();
    const { apart: found } = await apart(
      x,
      other(x, 12, [
        [150.1, 10],
        [60.4, 21.3],
      ]),
    );
    expect(found.jumps.map((j) => Math.round(j.stepMs))).toEqual([-21, -10]);
    expect(Math.abs(found.driftPpm! - 12)).toBeLessThan(1);
  });
  it('is not seen where none was lost, whatever the clocks do', async () => {
    const x = dry();
    for (const ppm of [150]) {
      const { apart: found } = await apart(x, other(x, ppm, []));
      expect(found.jumps, `${ppm} ppm`).toEqual([]);
      expect(Math.abs(found.driftPpm! - ppm)).toBeLessThan(0.2);
    }
  });
});

describe('stretches', () => {
  const even = (offsetAt: (s: number) => number, seconds = 3600) =>
    Array.from({ length: seconds / 4 }, (_, i) => ({ atMs: 4000 * i, offsetMs: offsetAt(4 * i) }));
  it('are one straight line for clocks that keep their pace, cut where buffers were lost', () => {
    const normal = seededNormal(5);
    const readings = even((s) => 120 + 0.025 * s + (s > 1800 ? -10 : 0) + 0.03 * normal());
    const jumps = [{ atMs: 1_800_500, withinMs: 500, stepMs: -10 }];
    const found = stretchesOf({ readings, jumps, startMs: 120, driftPpm: 25, driftSdPpm: 0.1 });
    expect(found.map((s) => s.fromMs)).toEqual([0, 1_800_500]);
    expect(offsetAtMs(found, 1000)).toBeCloseTo(120.025, 3);
    expect(offsetAtMs(found, 3_600_000)).toBeCloseTo(120 + 90 - 10, 2);
  });
  it('bend with clocks that wander by 1 ppm with heat: nowhere off by a quarter of a millisecond', () => {
    const normal = seededNormal(9);
    // 40 ppm, and 1 ppm more and less as the room warms and cools, in half an hour.
    const truth = (s: number) => 5 + 0.04 * s + 1e-3 * (1800 / (2 * Math.PI)) * Math.sin((2 * Math.PI * s) / 1800);
    const readings = even((s) => truth(s) + 0.05 * normal() + (Math.round(s / 4) % 97 === 3 ? 30 : 0));
    const found = stretchesOf({ readings, jumps: [], startMs: 5, driftPpm: 40, driftSdPpm: 0.1 });
    expect(found.length).toBeGreaterThan(2);
    expect(found.length).toBeLessThan(24);
    for (let s = 0; s < 3600; s += 10) expect(Math.abs(offsetAtMs(found, 1000 * s) - truth(s))).toBeLessThan(0.25);
  });
  it('mend a take that lost a buffer, from end to end', async () => {
    const x = dry();
    const y = other(x, 40, [[110.3, 15]]);
    const { apart: found } = await apart(x, y);
    const mended = corrected(recordingOf([y], RATE), piecesOf(stretchesOf(found), RATE));
    const end = mended.frames / RATE;
    for (const [from, to] of [
      [2, 40],
      [70, 105],
      [116, 150],
      [end - 40, end - 2],
    ] as const) {
      const part = recordingOf([await mended.readMono(Math.round(from * RATE), Math.round((to - from) * RATE))], RATE);
      const same = recordingOf([x.subarray(Math.round(from * RATE), Math.round(to * RATE))], RATE);
      const left = await measureOffset(fftOf, same, part);
      expect(Math.abs(left.offsetMs), `${from} s`).toBeLessThan(0.1);
    }
  });
});
