import { BLOCKS, type BlockPowers, MARGIN } from './blocks.ts';
import { GROUP, type Order } from './lines.ts';

/**
 * Where the blocks of a tune lie if its delay may move while it plays, as it does where the receiver of a call stretches
 * sound to bridge packets that were lost.
 */
export interface Path {
  /** Sum of the scores along it, less what its moves cost. */
  readonly z: number;
  /** Of each block: where the tune would begin if all of it lay as this one does, in lags of the ground. */
  readonly lags: readonly number[];
}

/** A move by one group of lags (1 ms) costs so much score: one by 25 ms as much as a second that stands out three times less. */
export const MOVE_COST = 0.045;

/** What the best paths come to, for each order of the blocks. @param wide  as `bestLines` left it */
export function bestPathScores(of: BlockPowers, wide: Float32Array, orders: readonly Order[]): number[] {
  const groups = Math.floor(of.width / GROUP);
  const sums = new Float64Array(groups);
  return orders.map((order) => {
    sums.fill(0);
    for (let b = 0; b < BLOCKS; b++) goOn(sums, wide, order[b]! * groups);
    return sums.reduce((m, v) => Math.max(m, v), 0);
  });
}

/** The best path itself, blocks as they are played. */
export function bestPath(of: BlockPowers, wide: Float32Array): Path {
  const groups = Math.floor(of.width / GROUP);
  const sums: Float64Array[] = [];
  for (let b = 0; b < BLOCKS; b++) {
    sums.push(b === 0 ? new Float64Array(groups) : sums[b - 1]!.slice());
    goOn(sums[b]!, wide, b * groups);
  }
  const last = sums[BLOCKS - 1]!;
  let at = last.reduce((top, v, i) => (v > last[top]! ? i : top), 0);
  const z = last[at]!;
  const lags = new Array<number>(BLOCKS);
  for (let b = BLOCKS - 1; b >= 0; b--) {
    if (b < BLOCKS - 1) at = cameFrom(sums[b]!, at);
    lags[b] = of.from - MARGIN + highestIn(of, b, at);
  }
  return { z, lags };
}

/** One block more: to each place the best that can be had from any other by a move, from both sides, and what stands there. */
function goOn(sums: Float64Array, wide: Float32Array, row: number): void {
  let best = 0;
  for (let i = 0; i < sums.length; i++) {
    best = Math.max(best - MOVE_COST, sums[i]!);
    sums[i] = best;
  }
  best = 0;
  for (let i = sums.length - 1; i >= 0; i--) {
    best = Math.max(best - MOVE_COST, sums[i]!);
    sums[i] = best + wide[row + i]!;
  }
}

const cameFrom = (sums: Float64Array, to: number): number => {
  let best = to;
  const worth = (i: number) => sums[i]! - MOVE_COST * Math.abs(i - to);
  for (let i = 0; i < sums.length; i++) if (worth(i) > worth(best)) best = i;
  return best;
};

/** Where in the row the block is strongest, of what a place of the path stands for. */
function highestIn({ powers, width }: BlockPowers, b: number, group: number): number {
  let best = GROUP * group;
  for (let i = Math.max(0, GROUP * (group - 1)); i < Math.min(width, GROUP * (group + 2)); i++)
    if (powers[b * width + i]! > powers[b * width + best]!) best = i;
  return best;
}
