import { MIN_BLEND } from './code.ts';

/** One picture of a take in which the slate was readable. */
export interface SeenFrame {
  /** The time that the file gives it. */
  readonly atMs: number;
  /** Frame of the slate, counted on through its loops; and the share of the next that is mixed in. */
  readonly frame: number;
  readonly blend: number;
  /** The middle of what it shows, in frames, where it shows more than two; null elsewhere. */
  readonly middle: number | null;
}

/** Alignment of a slate's picture in a take: the slate's time zero is at `zeroMs`, its seconds are `1 + ratePpm` long. */
export interface Phase {
  readonly zeroMs: number;
  /** Half width of the 95% interval. */
  readonly boundMs: number;
  readonly ratePpm: number;
  /** Exposure time, where mixed frames show it; null where they don't. */
  readonly exposureMs: number | null;
  /** Typical distance of a picture's time from where it should be, beyond what frames explain: one standard deviation. */
  readonly jitterMs: number;
}

/** Clocks of player and recorder differ by no more than this. */
const FASTEST_PPM = 400;
/** Below this span a slope says nothing. */
const MIN_SPAN_MS = 4000;
const MAX_FRAMES_USED = 1200;
const EXPOSURES = 24;
const ROUNDS = 48;
/** What the stamps of a file are rounded to at worst counts as nothing. */
const STAMP_MS = 0.5;
/** Never said to be known better. */
const MIN_BOUND_MS = 0.3;
/** Percentage of pictures that may have wrong time stamps. */
const STRAYS = 0.03;

/**
 * Where the slate's time stands in the take's. A picture that shows frame n was taken while n stood on the screen, which
 * leaves a frame's length of doubt; a picture with two frames in it was taken when one gave way to the other. All of
 * them together leave what every one allows: little where the rates differ or the phase moves, a frame where it stands.
 * @param follows  whether each picture of the file is one picture of the slate, handed on: then its time is its beginning
 */
export function fitPhase(
  seen: readonly SeenFrame[],
  slateFrameMs: number,
  takeFrameMs: number,
  follows: boolean,
): Phase {
  const step = Math.max(1, Math.ceil(seen.length / MAX_FRAMES_USED));
  const thinned = seen.filter((_, i) => i % step === 0);
  // A picture that is handed on holds one frame: a few that seem mixed are a codec's doing.
  const few = thinned.filter((s) => s.blend > 0 || s.middle !== null).length <= MIXED_BY_CODEC * thinned.length;
  const used = follows && few ? thinned.filter((s) => s.blend === 0 && s.middle === null) : thinned;
  const mixed = used.filter((s) => s.blend > 0 || s.middle !== null).length;
  const exposures =
    mixed < 2
      ? [0]
      : Array.from({ length: EXPOSURES }, (_, i) => ((i + 1) / EXPOSURES) * Math.max(slateFrameMs, takeFrameMs));
  const midMs = (used[0]!.atMs + used.at(-1)!.atMs) / 2;
  const spanMs = used.at(-1)!.atMs - used[0]!.atMs;
  const tried = exposures.map((exposureMs) => {
    const ppm = spanMs < MIN_SPAN_MS ? 0 : bestSlope(used, slateFrameMs, exposureMs, midMs);
    const settled = settle(rangesOf(used, slateFrameMs, exposureMs, ppm, midMs));
    return { ...settled, exposureMs, ppm, cost: settled.loss + used.length * slopeCost(ppm) };
  });
  const best = tried.reduce((a, b) => (b.cost < a.cost ? b : a));
  // What other exposures explain as well is equally likely: where the phase is constant, the exposure is unknown.
  const likely = tried.filter((t) => t.cost <= best.cost + used.length * AS_GOOD_MS);
  const low = Math.min(...likely.map((t) => t.low));
  const high = Math.max(...likely.map((t) => t.high));
  const told =
    mixed >= 2 && likely.every((t) => Math.abs(t.exposureMs - best.exposureMs) < TOLD_SHARE * best.exposureMs);
  const jitterMs = Math.max(0, (best.loss / used.length) * MEAN_TO_SD - STAMP_MS / 4);
  const half = (high - low) / 2;
  const locked = follows && mixed === 0 && half > LOCKED_SHARE * slateFrameMs;
  const atMid = locked ? high : (low + high) / 2;
  return {
    zeroMs: atMid - best.ppm * 1e-6 * midMs,
    boundMs: locked ? slateFrameMs / 2 : half + MIN_BOUND_MS + jitterMs,
    ratePpm: best.ppm,
    exposureMs: told ? best.exposureMs : null,
    jitterMs,
  };
}
/** Explanations worse by this much, on average, count as equally good. */
const AS_GOOD_MS = 0.04;
/** Mean absolute to standard deviation, for a normal spread. */
const MEAN_TO_SD = 1.2533;
const LOCKED_SHARE = 0.3;
const MIXED_BY_CODEC = 0.1;
const TOLD_SHARE = 0.3;
/** Clocks are seldom further apart than this: a slope is believed less the steeper it is, in ms that a picture may be off. */
const USUAL_PPM = 100;
const slopeCost = (ppm: number): number => 0.02 * (ppm / USUAL_PPM) ** 2;

interface Ranges {
  /** Possible position of the slate's zero by each picture alone, ms, at the middle of the take. */
  readonly low: Float64Array;
  readonly high: Float64Array;
}

function rangesOf(seen: readonly SeenFrame[], frameMs: number, exposureMs: number, ppm: number, midMs: number): Ranges {
  const low = new Float64Array(seen.length);
  const high = new Float64Array(seen.length);
  // A fraction too small to be told from zero counts as zero.
  const half = Math.min(exposureMs, frameMs) * (0.5 - MIN_BLEND);
  seen.forEach((s, i) => {
    const at = s.atMs - ppm * 1e-6 * (s.atMs - midMs);
    if (s.middle !== null) {
      low[i] = at - s.middle * frameMs;
      high[i] = low[i]!;
    } else if (s.blend > 0) {
      low[i] = at - (s.frame + 1) * frameMs - (s.blend - 0.5) * exposureMs;
      high[i] = low[i]!;
    } else {
      low[i] = at - (s.frame + 1) * frameMs + half;
      high[i] = at - s.frame * frameMs - half;
    }
  });
  return { low, high };
}

/** What nearly all ranges allow; where they contradict each other, the place that does them least wrong. */
function settle({ low, high }: Ranges): { low: number; high: number; loss: number } {
  const lows = low.slice().sort();
  const highs = high.slice().sort();
  const strays = Math.floor(low.length * STRAYS);
  const from = lows[low.length - 1 - strays]!;
  const to = highs[strays]!;
  const at = from <= to ? (from + to) / 2 : leastWrong(low, high, to, from);
  let loss = 0;
  for (let i = 0; i < low.length; i++) loss += Math.max(0, low[i]! - at) + Math.max(0, at - high[i]!);
  return from <= to ? { low: from, high: to, loss } : { low: at, high: at, loss };
}

/** The least of a convex sum, by thirds. */
function leastWrong(low: Float64Array, high: Float64Array, from: number, to: number): number {
  const wrong = (at: number) => {
    let sum = 0;
    for (let i = 0; i < low.length; i++) sum += Math.max(0, low[i]! - at) + Math.max(0, at - high[i]!);
    return sum;
  };
  return leastOf(wrong, from, to, ROUNDS);
}

function leastOf(f: (x: number) => number, from: number, to: number, rounds: number): number {
  let [a, b] = [from, to];
  for (let round = 0; round < rounds && b - a > 1e-4; round++) {
    const [p, q] = [a + (b - a) / 3, b - (b - a) / 3];
    if (f(p) <= f(q)) b = q;
    else a = p;
  }
  return (a + b) / 2;
}

/** The rate at which the ranges contradict each other least; none unless that says something. */
function bestSlope(seen: readonly SeenFrame[], frameMs: number, exposureMs: number, midMs: number): number {
  const wrong = (ppm: number) =>
    settle(rangesOf(seen, frameMs, exposureMs, ppm, midMs)).loss + seen.length * slopeCost(ppm);
  return leastOf(wrong, -FASTEST_PPM, FASTEST_PPM, 24);
}
