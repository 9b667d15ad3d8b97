import { BASE_HZ } from './baseband.ts';
import { BLOCKS, type BlockPowers, MARGIN } from './blocks.ts';
import type { Line } from './lines.ts';

/** From one second to the next a tune goes on earlier or later: a lost or a doubled buffer. */
export interface Jump {
  /** The first block behind it. */
  readonly block: number;
  /** Positive where the take goes on late: something was put in. */
  readonly ms: number;
}

/** Jumps to this far are looked for. */
const REACH = Math.round(0.12 * BASE_HZ);
/** Minimum peak of a block relative to the usual, for its position to be used. */
export const CLEAR = 16;
const FEWEST = 3;
/** Two blocks closer than this are on one line. */
export const SAME = 1.5;

/** Minimum fraction of the located blocks that are on the line. */
export const MIN_STRAIGHT = 0.75;
/** Minimum number of located blocks. */
export const FEWEST_STRAIGHT = 5;

/**
 * Which blocks lie on the line that was found, and whether the others lie on a second one beside it; straight where nearly
 * all lie on the first.
 */
export function jumpOf(
  { powers, scales, from, width }: BlockPowers,
  line: Line,
): { jump: Jump | null; used: boolean[]; isStraight: boolean } {
  const offsets: (number | null)[] = [];
  for (let b = 0; b < BLOCKS; b++) {
    const due = MARGIN + line.lag - from + (line.shift * b) / (BLOCKS - 1);
    let [peak, at] = [CLEAR / scales[b]!, -1];
    for (let i = Math.max(0, Math.round(due) - REACH); i <= Math.min(width - 1, Math.round(due) + REACH); i++)
      if (powers[b * width + i]! > peak) [peak, at] = [powers[b * width + i]!, i];
    offsets.push(at < 0 ? null : at - due);
  }
  const told = offsets.filter((o) => o !== null);
  const on = told.filter((o) => Math.abs(o) <= SAME).length;
  const isStraight = told.length >= FEWEST_STRAIGHT && on >= MIN_STRAIGHT * told.length;
  const all = { jump: null, used: new Array<boolean>(BLOCKS).fill(true), isStraight };
  let best = { block: 0, misfit: misfitOf(told) - SAME, before: 0, after: 0 };
  for (let block = FEWEST; block <= BLOCKS - FEWEST; block++) {
    const [a, z] = [offsets.slice(0, block).filter((o) => o !== null), offsets.slice(block).filter((o) => o !== null)];
    if (a.length < FEWEST || z.length < FEWEST) continue;
    const misfit = misfitOf(a) + misfitOf(z);
    if (misfit < best.misfit) best = { block, misfit, before: middle(a), after: middle(z) };
  }
  if (best.block === 0 || Math.abs(best.after - best.before) < 2 * SAME) return all;
  const agree = offsets.filter(
    (o, b) => o !== null && Math.abs(o - (b < best.block ? best.before : best.after)) <= SAME,
  );
  if (agree.length < AGREE_SHARE * told.length) return all;
  const onLine = Math.abs(best.before) <= Math.abs(best.after);
  return {
    jump: { block: best.block, ms: (1000 * (best.after - best.before)) / BASE_HZ },
    used: offsets.map((_, b) => b < best.block === onLine),
    isStraight: false,
  };
}
const AGREE_SHARE = 0.8;

const middle = (of: readonly number[]): number => [...of].sort((a, b) => a - b)[of.length >> 1] ?? 0;
/** Far outliers count as one line's width more, no further. */
const misfitOf = (of: readonly number[]): number => {
  const m = middle(of);
  return of.reduce((sum, o) => sum + Math.min(MAX_MISFIT, Math.abs(o - m)), 0);
};
const MAX_MISFIT = 8;
