import { BLOCKS, type BlockPowers, MARGIN } from './blocks.ts';
import { GROUP, type Order } from './lines.ts';

/**
 * Where the blocks of a tune lie if its delay may move while it plays, as it does where the receiver of a call stretches
 * sound to bridge packets that were lost.
 */
export interface Path {
  /** Sum of the scores along it, less what its moves cost. */
  readonly z: number;
  /** For each block: where the tune would begin if all of it were placed like this one, in lags of the grid. */
  readonly lags: readonly number[];
}

/** Penalty of a move by one group of lags (1 ms): one by 25 ms costs as much as a second that is three times less prominent. */
export const MOVE_COST = 0.045;

/** Scores of the best paths (dynamic programming), for each order of the blocks. @param wide  as `bestLines` returned it */
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

/** One step of the dynamic program: for each position the best predecessor within a move, from both sides, plus its own score. */
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

/** The strongest position of the block within the range that a step of the path represents. */
function highestIn({ powers, width }: BlockPowers, b: number, group: number): number {
  let best = GROUP * group;
  for (let i = Math.max(0, GROUP * (group - 1)); i < Math.min(width, GROUP * (group + 2)); i++)
    if (powers[b * width + i]! > powers[b * width + best]!) best = i;
  return best;
}
