import type { FftOf } from '#core/audio/samples/index.ts';
import type { Baseband, Evening } from './baseband.ts';
import { BEFORE, BLOCKS, type BlockPowers, MARGIN } from './blocks.ts';
import { blockOf, type FineBlock, holdAt } from './fine.ts';
import { CLEAR, FEWEST_STRAIGHT, MIN_STRAIGHT, SAME } from './jump.ts';
import type { Line } from './lines.ts';
import type { Path } from './paths.ts';

/** Positions of the seconds of a tune that aren't on a line: its delay moves while it plays. */
export interface Wander {
  /** The median of the prominent ones, in lags of the grid. */
  readonly middle: number;
  /** Whole samples by which each second is later; 0 where it isn't prominent. */
  readonly late: readonly number[];
  readonly isClear: readonly boolean[];
}

/**
 * Whether the seconds of a tune are on a path rather than on a line, or on a line and a second path beside it.
 * @param line  null where none was found
 */
export function wanderOf({ powers, scales, from, width }: BlockPowers, line: Line | null, path: Path): Wander | null {
  const isClear = path.lags.map((lag, b) => powers[b * width + lag - from + MARGIN]! * scales[b]! > CLEAR);
  const told = path.lags.filter((_, b) => isClear[b]).sort((a, b) => a - b);
  if (told.length < FEWEST_STRAIGHT) return null;
  if (line) {
    const beside = path.lags.map((lag, b) => lag - line.lag - (line.shift * b) / (BLOCKS - 1));
    const isOn = (x: number, lag: number) => Math.abs(x - lag) <= SAME;
    const off = beside.filter((x, b) => isClear[b] && !isOn(x, 0));
    const second = Math.max(0, ...off.map((lag) => off.filter((x) => isOn(x, lag)).length));
    if (told.length - off.length + second >= MIN_STRAIGHT * told.length) return null;
  }
  const middle = told[told.length >> 1]!;
  return { middle, isClear, late: path.lags.map((lag, b) => (isClear[b] ? lag - middle : 0)) };
}

/** A tune that was read second by second, each at its own position. */
export interface Wandering {
  /** Where its first note begins by the middle of its seconds, in samples of the baseband. */
  readonly at: number;
  /** Of the tune as it was made (see `TUNE_GAIN`), linear. */
  readonly gain: number;
  /** Samples by which the first and the last of its clear seconds are off the median. */
  readonly earliest: number;
  readonly latest: number;
  readonly blocks: readonly FineBlock[];
}

/** Seconds in which the delay moved read too quiet: the level is that of the louder ones. */
const LEVEL_AT = 0.75;

export function readWandering(
  fftOf: FftOf,
  take: Baseband,
  evening: Evening,
  id: number,
  { middle, late, isClear }: Wander,
): Wandering {
  const held = holdAt(fftOf, take, evening, id, middle - BEFORE, 0, late);
  const blocks = late.map((l, b): FineBlock => {
    const one = blockOf(held, b, 0);
    return { ...one, late: l + one.late };
  });
  const gains = blocks.flatMap((b, i) => (isClear[i] ? [b.gain] : [])).sort((a, b) => a - b);
  return {
    at: middle - BEFORE,
    gain: gains[Math.floor(LEVEL_AT * (gains.length - 1))]!,
    earliest: Math.min(...late),
    latest: Math.max(...late),
    blocks,
  };
}
