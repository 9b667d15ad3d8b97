import { beforeAll, describe, expect, it } from 'vitest';
import { testFft } from '#core/audio/samples/fft.testkit.ts';
import { type FftOf, seededNormal, seededRandom } from '#core/audio/samples/index.ts';
import { BASE_HZ, tuneBaseband } from './baseband.ts';
import { BEFORE, BLOCK, BLOCKS, type BlockPowers, groundOf, MARGIN, powersOf } from './blocks.ts';
import { chanceOf, confidenceOf, FOUND_FROM, standsOut } from './chance.ts';
import { jumpOf } from './jump.ts';
import { AS_PLAYED, bestLines } from './lines.ts';
import { lagMs, RESPONSE_LAGS, type Response, secondWays } from './response.ts';

let fftOf: FftOf;
beforeAll(async () => {
  fftOf = await testFft();
});

/** A take of noise in which a tune stands from a sample on, and goes on later from a block on. */
function planted(id: number, at: number, jump: { block: number; by: number } | null = null): Float32Array {
  const tune = tuneBaseband(id);
  const normal = seededNormal(id + 11);
  const take = new Float32Array(2 * BASE_HZ * 22).map(() => 0.05 * normal());
  for (let n = 0; n < tune.length / 2; n++) {
    const on = at + n + (jump && n >= jump.block * BLOCK ? jump.by : 0);
    take[2 * on]! += tune[2 * n]!;
    take[2 * on + 1]! += tune[2 * n + 1]!;
  }
  return take;
}
const scored = (take: Float32Array, id: number): BlockPowers => {
  const ground = groundOf(fftOf, take);
  const powers = powersOf(ground, tuneBaseband(id), { from: 0, lags: ground.lags });
  ground.correlator.free();
  return powers;
};

describe('blocks of a tune along a line', () => {
  it('lie where the tune was put, and stand far over those of another tune', () => {
    const take = planted(3, 7123);
    const [[own]] = bestLines(scored(take, 3), [AS_PLAYED]);
    expect(own!.lag - BEFORE).toBe(7123);
    expect(Math.abs(own!.shift)).toBeLessThanOrEqual(0.5);
    const [[other]] = bestLines(scored(take, 4), [AS_PLAYED]);
    expect(own!.z).toBeGreaterThan(2 * other!.z);
  });
  it('are the same however often the room of an earlier one is used again', () => {
    const one = scored(planted(5, 4000), 5);
    const [first, room] = bestLines(one, [AS_PLAYED]);
    const [again] = bestLines(one, [AS_PLAYED], room);
    expect(again).toEqual(first);
  });
  it('go on beside their line where a buffer was lost, and it is said from which on', () => {
    const take = planted(6, 5000, { block: 9, by: -120 });
    const powers = scored(take, 6);
    const [[line]] = bestLines(powers, [AS_PLAYED]);
    const { jump, used } = jumpOf(powers, line!);
    expect(jump!.block).toBe(9);
    expect(jump!.ms).toBeCloseTo((-120 / BASE_HZ) * 1000, 0);
    expect(used).toEqual(Array.from({ length: BLOCKS }, (_, b) => b < 9));
    const straight = scored(planted(6, 5000), 6);
    const [[whole]] = bestLines(straight, [AS_PLAYED]);
    expect(jumpOf(straight, whole!)).toEqual({ jump: null, used: new Array(BLOCKS).fill(true), isStraight: true });
  });
  it('are looked for beside where they are due as far as clocks and buffers take them', () => {
    const { width, lags } = scored(planted(2, 3000), 2);
    expect(width).toBe(lags + 2 * MARGIN);
  });
});

describe('chance', () => {
  const gumbel = (middle: number, spread: number, n: number, seed: number) => {
    const random = seededRandom(seed);
    return Array.from({ length: n }, () => middle - spread * Math.log(-Math.log(random())));
  };
  it('is told from the maxima that it made, and scaled to a longer take', () => {
    const fit = chanceOf(gumbel(20, 1.4, 4000, 2), 1);
    expect(fit.middle).toBeCloseTo(20, 0);
    expect(fit.spread).toBeCloseTo(1.4, 1);
    const twice = chanceOf(gumbel(20, 1.4, 4000, 2), 2);
    expect(twice.middle - fit.middle).toBeCloseTo(Math.LN2 * fit.spread, 6);
  });
  it('never is narrower than noise makes it', () => {
    expect(chanceOf([5, 5, 5, 5, 5], 1).spread).toBeGreaterThan(0.8);
  });
  it('claims a tune that is not there in fewer than one of two thousand', () => {
    const fit = chanceOf(gumbel(0, 1, 50, 9), 1);
    const claims = gumbel(0, 1, 20_000, 10).filter((z) => standsOut(z, fit) >= FOUND_FROM).length;
    expect(claims).toBeLessThanOrEqual(20);
  });
  it('makes a claim the surer the further it stands out, and the less sure the more were looked for', () => {
    const sure = [4, 6, 8, 12, 30].map((g) => confidenceOf(g, 16));
    expect([...sure].sort((a, b) => a - b)).toEqual(sure);
    expect(sure.at(-1)).toBe(0.999);
    expect(confidenceOf(5, 1)).toBeGreaterThan(confidenceOf(5, 16));
    expect(confidenceOf(-2, 16)).toBe(0);
  });
});

describe('second ways in a response', () => {
  /** A response of noise with arrivals at some places, each with its phase. */
  function response(arrivals: readonly (readonly [ms: number, db: number])[], noiseDb: number, seed: number): Response {
    const normal = seededNormal(seed);
    const out = new Float32Array(2 * RESPONSE_LAGS).map(() => 10 ** (noiseDb / 20) * normal());
    for (const [ms, db] of arrivals) {
      let at = 0;
      for (let i = 0; i < RESPONSE_LAGS; i++) if (Math.abs(lagMs(i) - ms) < Math.abs(lagMs(at) - ms)) at = i;
      const v = 10 ** (db / 20);
      out[2 * at]! += v * Math.cos(ms);
      out[2 * at + 1]! += v * Math.sin(ms);
    }
    return out;
  }
  const seen = (arrivals: readonly (readonly [number, number])[], noiseDb = -50) =>
    secondWays(response(arrivals, noiseDb, 1), [response(arrivals, noiseDb, 2), response(arrivals, noiseDb, 3)]);
  it('are told with their time and level, loudest first, near ones as perhaps a wall', () => {
    const { ways } = seen([
      [0, 0],
      [120, -14],
      [-300, -8],
      [12, -10],
    ]);
    expect(ways.map((w) => Math.round(w.afterMs))).toEqual([-300, 12, 120]);
    expect(ways.map((w) => w.perhapsReflection)).toEqual([false, true, false]);
    expect(ways[0]!.underDb).toBeCloseTo(8, 0);
  });
  it('are at most three, and none that is 32 dB below the first', () => {
    const many = Array.from({ length: 8 }, (_, i): [number, number] => [50 + 60 * i, -6 - i]);
    expect(seen([[0, 0], ...many]).ways).toHaveLength(3);
    expect(
      seen(
        [
          [0, 0],
          [100, -36],
        ],
        -70,
      ).ways,
    ).toEqual([]);
  });
  it('are not seen in noise that would hide them, and it is said how loud they would have to be', () => {
    const { ways, noneAboveDb } = seen(
      [
        [0, 0],
        [200, -24],
      ],
      -30,
    );
    expect(ways).toEqual([]);
    expect(noneAboveDb).toBeGreaterThan(-24);
    expect(seen([[0, 0]], -60).noneAboveDb).toBeLessThan(-35);
  });
  it('have to be in both halves: what is in one of them only is speech', () => {
    const [there, not] = [
      [
        [0, 0],
        [150, -12],
      ] as const,
      [[0, 0]] as const,
    ];
    const halves = [response(there, -50, 2), response(not, -50, 3)] as const;
    expect(secondWays(response(there, -50, 1), halves).ways).toEqual([]);
  });
});
