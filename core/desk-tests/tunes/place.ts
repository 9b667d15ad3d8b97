import type { FftOf } from '#core/audio/samples/index.ts';
import { BASE_HZ, type Baseband, type Evening } from './baseband.ts';
import { BEFORE, BLOCK, BLOCKS } from './blocks.ts';
import { type Fine, finest, holdAt } from './fine.ts';
import type { Jump } from './jump.ts';
import type { Line } from './lines.ts';
import {
  addSource,
  gainOf,
  type MeasurementStatus,
  type Response,
  responseOf,
  type Seconds,
  secondWays,
  standingOf,
} from './response.ts';

/** A tune that was found on a line. */
export interface OnLine {
  readonly id: number;
  readonly line: Line;
  readonly jump: Jump | null;
  /** Number of blocks on it. */
  readonly used: readonly boolean[];
}

/** The same to a part of a sample, with its response and its second ways. */
export interface Placed {
  readonly seen: OnLine;
  readonly fine: Fine;
  readonly standing: MeasurementStatus;
  readonly response: Response;
  readonly seconds: Seconds;
}

const ROUNDS = 2;

/** Every tune to a part of a sample, the strongest first; each is taken away before the next, and read again without the others. */
export function placeAll(fftOf: FftOf, even: Baseband, evening: Evening, found: readonly OnLine[]): Placed[] {
  const rest = even.slice();
  let placed: Placed[] = [];
  const order = [...found].sort((a, b) => b.line.z - a.line.z);
  for (let round = 0; round < ROUNDS; round++) {
    const next: Placed[] = [];
    for (const seen of order) {
      const before = placed.find((p) => p.seen === seen);
      if (before) addSource(fftOf, rest, before.standing, before.response, before.seconds.ways, 1);
      const one = placeOne(fftOf, rest, evening, seen);
      const now = round < ROUNDS - 1 ? one : { ...one, seconds: weighed(fftOf, rest, evening, one) };
      addSource(fftOf, rest, now.standing, now.response, now.seconds.ways, -1);
      next.push(now);
    }
    placed = next;
  }
  return placed;
}

function placeOne(fftOf: FftOf, take: Baseband, evening: Evening, seen: OnLine): Placed {
  const { id, line, used } = seen;
  const ppm = (1e6 * line.shift) / ((BLOCKS - 1) * BLOCK);
  const fine = finest(holdAt(fftOf, take, evening, id, line.lag - BEFORE, ppm), used);
  const standing = standingOf(fftOf, evening, id, fine);
  const response = responseOf(fftOf, take, standing);
  const halves = [responseOf(fftOf, take, standing, 0), responseOf(fftOf, take, standing, 1)] as const;
  return { seen, fine, standing, response, seconds: secondWays(response, halves) };
}

const SILENT = 1e-9;

/**
 * How loud the second ways truly are. What is evened counts every place the same, and a second way often lies where little
 * else does: each is held against the take where it lies, as the strongest is.
 */
function weighed(fftOf: FftOf, take: Baseband, evening: Evening, { seen, fine, seconds }: Placed): Seconds {
  // Behind a lost buffer a tune is in step with half of itself only.
  if (seen.jump) return seconds;
  const ways = seconds.ways.map((way) => {
    const at = fine.at + (way.afterMs * BASE_HZ) / 1000;
    const gain = gainOf(take, standingOf(fftOf, evening, seen.id, { at, ppm: fine.ppm }));
    return { ...way, underDb: Math.max(0, 20 * Math.log10(fine.gain / Math.max(gain, SILENT))) };
  });
  return { ...seconds, ways: ways.sort((a, b) => a.underDb - b.underDb) };
}
