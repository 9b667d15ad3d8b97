// biome-ignore-all lint/complexity/useMathMinMax: Math.max minds NaN as well, and takes twice the time here

import { BLOCK, BLOCKS, type BlockPowers, MARGIN } from './blocks.ts';

/** Largest clock error between players and recorders. */
const MAX_PPM = 210;
const END = (BLOCKS - 1) * BLOCK;
/** Slopes of a tune's blocks under clock drift: step in samples at the last block. */
const COARSE_STEP = 4;
const FINE_STEP = 0.5;
const MAX_SHIFT = Math.ceil((MAX_PPM * 1e-6 * END) / COARSE_STEP) * COARSE_STEP;
/** Coarse step: lags are tested in groups of this size. */
export const GROUP = 4;
/** Where the blocks of a tune agree best. */
export interface Line {
  /** Sum of the scores along it. */
  readonly z: number;
  /** In lags of the ground, at the first block. */
  readonly lag: number;
  /** Samples by which the last block is later than by an exact clock. */
  readonly shift: number;
}

/** In which order the blocks are taken: as they are, or mixed, which makes of a tune that no one plays another one. */
export type Order = readonly number[];
export const AS_PLAYED: Order = Array.from({ length: BLOCKS }, (_, b) => b);

const asFloat = new Float32Array(1);
const asBits = new Uint32Array(asFloat.buffer);
/** Natural logarithm of 1 or more within 0.001: the exponent, and a polynomial for the rest; a fifth of the time. */
function logOf(x: number): number {
  asFloat[0] = x;
  const bits = asBits[0]!;
  asBits[0] = (bits & 0x7fffff) | 0x3f800000;
  const m = asFloat[0]!;
  return ((bits >>> 23) - 127 + (-2.153620718 + m * (3.047884161 + m * (-1.05187531 + m * 0.1582487)))) * Math.LN2;
}
/** No block alone, however loud, decides. */
const scoreOf = (power: number): number => logOf(1 + power);

/**
 * The best score of each twelve lags, every fourth, so that a coarse line covers all fine ones round it.
 * @param room  of an earlier tune, used again
 */
function widened({ powers, scales, width }: BlockPowers, room: Float32Array): Float32Array {
  const groups = Math.floor(width / GROUP);
  const wide = room.length >= BLOCKS * groups ? room : new Float32Array(BLOCKS * groups);
  for (let b = 0; b < BLOCKS; b++) widenRow(powers, b * width, scales[b]!, wide, b * groups, groups);
  return wide;
}

function widenRow(
  powers: Float32Array,
  row: number,
  scale: number,
  wide: Float32Array,
  to: number,
  groups: number,
): void {
  let before = 0;
  let here = largest(powers, row);
  for (let i = 0; i < groups; i++) {
    const next = i + 1 < groups ? largest(powers, row + GROUP * (i + 1)) : 0;
    const most = before > here ? (before > next ? before : next) : here > next ? here : next;
    wide[to + i] = scoreOf(most * scale);
    before = here;
    here = next;
  }
}

/** Of four. */
function largest(x: Float32Array, at: number): number {
  const a = x[at]!;
  const b = x[at + 1]!;
  const c = x[at + 2]!;
  const d = x[at + 3]!;
  const first = a > b ? a : b;
  const second = c > d ? c : d;
  return first > second ? first : second;
}

/** Number of positions grouped: the best of each group is refined, if it is among the best. */
const SEGMENT = 2048;
const LOOKED_AT = 24;

/** Where the blocks of a tune agree best, over all lags and clocks, for each order of its blocks. */
export function bestLines(
  of: BlockPowers,
  orders: readonly Order[],
  room: Float32Array = new Float32Array(0),
): [Line[], Float32Array] {
  const wide = widened(of, room);
  return [orders.map((order) => bestOf(of, wide, order)), wide];
}

interface Top {
  readonly sum: number;
  readonly lag: number;
  readonly shift: number;
}

function bestOf(of: BlockPowers, wide: Float32Array, order: Order): Line {
  const groups = Math.floor(of.width / GROUP);
  const places = Math.floor(of.lags / GROUP);
  const tops: Top[] = [];
  const rows = new Int32Array(BLOCKS);
  for (let shift = -MAX_SHIFT; shift <= MAX_SHIFT; shift += COARSE_STEP) {
    for (let b = 0; b < BLOCKS; b++) {
      rows[b] = order[b]! * groups + MARGIN / GROUP + Math.round((shift * b) / (BLOCKS - 1) / GROUP);
    }
    for (let from = 0; from < places; from += SEGMENT)
      tops.push({ ...topOf(wide, rows, from, Math.min(places, from + SEGMENT)), shift });
  }
  tops.sort((a, b) => b.sum - a.sum);
  let best: Line = { z: Number.NEGATIVE_INFINITY, lag: 0, shift: 0 };
  for (const top of tops.slice(0, LOOKED_AT)) {
    if (top.sum <= best.z) break;
    const fine = fineAround(of, order, top.lag, top.shift);
    if (fine.z > best.z) best = fine;
  }
  return best;
}

type Row = number;
type FifteenRows = [Row, Row, Row, Row, Row, Row, Row, Row, Row, Row, Row, Row, Row, Row, Row];

/** All fifteen rows in one go: a sum that is kept in memory for each row would take five times as long. */
function topOf(w: Float32Array, rows: Int32Array, from: number, to: number): { sum: number; lag: number } {
  const [a, b, c, d, e, f, g, h, j, k, l, m, n, o, p] = rows as unknown as FifteenRows;
  let most = Number.NEGATIVE_INFINITY;
  let at = from;
  for (let i = from; i < to; i++) {
    const sum =
      w[a + i]! +
      w[b + i]! +
      w[c + i]! +
      w[d + i]! +
      w[e + i]! +
      w[f + i]! +
      w[g + i]! +
      w[h + i]! +
      w[j + i]! +
      w[k + i]! +
      w[l + i]! +
      w[m + i]! +
      w[n + i]! +
      w[o + i]! +
      w[p + i]!;
    if (sum > most) {
      most = sum;
      at = i;
    }
  }
  return { sum: most, lag: GROUP * at };
}

/** The line itself, lag by lag, at every clock between the coarse ones. */
function fineAround(
  { powers, scales, from, width, lags }: BlockPowers,
  order: Order,
  near: number,
  about: number,
): Line {
  let best: Line = { z: Number.NEGATIVE_INFINITY, lag: near, shift: about };
  for (let lag = Math.max(0, near - GROUP); lag < Math.min(lags, near + 2 * GROUP); lag++)
    for (let shift = about - COARSE_STEP; shift <= about + COARSE_STEP; shift += FINE_STEP) {
      let z = 0;
      for (let b = 0; b < BLOCKS; b++) {
        const at = order[b]! * width + MARGIN + lag + Math.round((shift * b) / (BLOCKS - 1));
        z += scoreOf(powers[at]! * scales[order[b]!]!);
      }
      if (z > best.z) best = { z, lag: from + lag, shift };
    }
  return best;
}
