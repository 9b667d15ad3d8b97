import { describe, expect, it } from 'vitest';
import { seededRandom } from '#core/audio/samples/index.ts';
import { BLOCKS, type BlockPowers, MARGIN } from './blocks.ts';
import { AS_PLAYED, bestLines, GROUP, type Order } from './lines.ts';
import { bestPath, bestPathScores, MOVE_COST } from './paths.ts';
import { wanderOf } from './wander.ts';

const LAGS = 200;
const WIDTH = LAGS + 2 * MARGIN;

/** Noise as it comes, and a block that stands out where each is wanted. */
function scored(at: readonly (number | null)[], power = 200, seed = 1, from = 0): BlockPowers {
  const random = seededRandom(seed);
  const powers = Float32Array.from({ length: BLOCKS * WIDTH }, () => -Math.log(1 - random()));
  at.forEach((lag, b) => {
    if (lag !== null) powers[b * WIDTH + MARGIN + lag] = power;
  });
  return { powers, scales: new Float64Array(BLOCKS).fill(1), from, lags: LAGS, width: WIDTH };
}
const wideOf = (of: BlockPowers) => bestLines(of, [AS_PLAYED])[1];
const lineOf = (of: BlockPowers) => bestLines(of, [AS_PLAYED])[0][0]!;

/** Each place from each place, without a shortcut. */
function plainly(of: BlockPowers, wide: Float32Array, order: Order): number {
  const groups = Math.floor(of.width / GROUP);
  let sums = Array.from({ length: groups }, (_, i) => wide[order[0]! * groups + i]!);
  for (let b = 1; b < BLOCKS; b++) {
    const before = sums;
    sums = before.map((_, i) => {
      const reached = before.reduce((m, v, j) => Math.max(m, v - MOVE_COST * Math.abs(i - j)), 0);
      return reached + wide[order[b]! * groups + i]!;
    });
  }
  return Math.max(...sums);
}

const MOVING = [60, 62, 61, 90, 95, 94, 60, 40, 42, 75, 76, 77, 110, 112, 80];

describe('the best path of the seconds of a tune', () => {
  it.each([1, 2, 3])('is as good as every path tried one by one, in any order of them (%i)', (seed) => {
    const of = scored(
      MOVING.map((lag, b) => (b % 4 === seed ? null : lag)),
      60,
      seed,
    );
    const wide = wideOf(of);
    const turned: Order = [...AS_PLAYED].reverse();
    const mixed: Order = AS_PLAYED.map((b) => (7 * b) % BLOCKS);
    const orders = [AS_PLAYED, turned, mixed];
    bestPathScores(of, wide, orders).forEach((z, i) => {
      expect(z).toBeCloseTo(plainly(of, wide, orders[i]!), 3);
    });
    expect(bestPath(of, wide).z).toBeCloseTo(plainly(of, wide, AS_PLAYED), 3);
  });
  it('goes through every second that stands out, to the sample', () => {
    const of = scored(MOVING);
    expect(bestPath(of, wideOf(of)).lags).toEqual(MOVING);
    // In lags of the ground, wherever the row begins.
    const later = scored(MOVING, 200, 1, 5000);
    expect(bestPath(later, wideOf(later)).lags).toEqual(MOVING.map((lag) => 5000 + lag));
  });
  it('comes out far over chance where no line does', () => {
    const [there, none] = [scored(MOVING, 40), scored(MOVING.map(() => null))];
    const z = (of: BlockPowers) => bestPathScores(of, wideOf(of), [AS_PLAYED])[0]!;
    expect(z(there) - z(none)).toBeGreaterThan(12);
    expect(z(there) - z(none)).toBeGreaterThan(1.5 * (lineOf(there).z - lineOf(none).z));
  });
});

describe('whether a tune wanders', () => {
  const of = (at: readonly (number | null)[]) => {
    const one = scored(at);
    return wanderOf(one, lineOf(one), bestPath(one, wideOf(one)));
  };
  it('is told, with how late each second is against the middle one', () => {
    const wander = of(MOVING)!;
    const middle = [...MOVING].sort((a, b) => a - b)[7]!;
    expect(wander.middle).toBe(middle);
    expect(wander.late).toEqual(MOVING.map((lag) => lag - middle));
  });
  it('is not said of a line, of a clock that is off, nor of two ways that are equally loud', () => {
    expect(of(MOVING.map(() => 80))).toBeNull();
    expect(of(MOVING.map((_, b) => 80 + Math.round(0.7 * b)))).toBeNull();
    expect(of(MOVING.map((_, b) => (b % 3 === 1 ? 80 : 120)))).toBeNull();
  });
  it('is not said where too few seconds stand out to tell', () => {
    expect(of(MOVING.map((lag, b) => (b % 4 === 0 ? lag : null)))).toBeNull();
  });
  it('leaves out seconds that do not stand out', () => {
    const wander = of(MOVING.map((lag, b) => (b === 3 || b === 9 ? null : lag)))!;
    expect(wander.isClear.map((c, b) => (c ? null : b)).filter((b) => b !== null)).toEqual([3, 9]);
    expect([wander.late[3], wander.late[9]]).toEqual([0, 0]);
  });
});
