import { say } from '#core/audio/measure/sayings.ts';
import { type Fault, sayAt, sideName } from './fault.ts';

/** What counts as nothing: one step of 16 bits. */
const NOTHING = 3.2e-5;
const MIN_GAP_S = 0.0004;
const MAX_GAP_S = 3;
/** Length of the stretches on both sides of a gap, s, and their minimum level (RMS). */
const BESIDE_S = 0.02;
const MIN_BESIDE = 0.003;
/** The same relative to the loud parts of the take: synthetic voices gate their quiet consonants. */
const MIN_OF_LOUD = 0.3;
const LOUD_PART = 0.9;
/** A gap in a wave begins and ends in the midst of it, as parts of the RMS beside it; a pause begins and ends at rest. */
const BOTH_EDGES = 0.1;
const ONE_EDGE = 0.3;
/** Minimum and maximum length of a repeated piece, and the number of samples that identify it. */
const REPEAT_S = [0.003, 0.4] as const;
const WINDOW = 24;
const TABLE = 1 << 14;
const FACTOR = 0x01000193;
/** Minimum length relative to the distance, and the largest spacing of anchors, in samples. */
const MIN_PART = 0.75;
const MAX_APART = 64;
/** A tone repeats all the time: a buffer only a few times over. */
const MAX_TIMES = 8;
const MAX_COMPARED = 1024;
/** A splice bends the wave this many times as sharply as usual; a lively wave turns at least at every sixtieth sample. */
const JUMPS = 6;
const LIVELY = 1 / 60;
const PLACES = 5;

interface Found {
  readonly at: number;
  readonly frames: number;
  readonly kind: 'gap' | 'repeat';
  /** RMS of the quieter side, or of what comes twice. */
  readonly level: number;
}

/** Looks for gaps in the midst of sound, and for pieces that come twice. */
export function dropoutMeter(channelCount: number, sampleRateHz: number) {
  const found = Array.from({ length: channelCount }, (): Found[] => []);
  const margin = Math.ceil(BESIDE_S * sampleRateHz);
  // The end of the piece before stands in front of the next one, so that what lies across a border is seen.
  // Twice the longest: what comes a second time has to be seen not to have been there a third time before.
  const kept = Math.ceil(2 * REPEAT_S[1] * sampleRateHz) + margin;
  const before = Array.from({ length: channelCount }, () => new Float32Array(0));
  const blocks = Array.from({ length: channelCount }, (): number[] => []);
  const until = new Int32Array(channelCount);
  let from = 0;
  const look = (c: number, x: Float32Array, start: number, isLast: boolean) => {
    for (const one of [...gapsIn(x, sampleRateHz), ...repeatsIn(x, sampleRateHz)]) {
      // What ends near the border is seen again, whole, with the next piece.
      if (!isLast && one.at + one.frames > x.length - margin) continue;
      const at = start + one.at;
      if (at < until[c]!) continue;
      found[c]!.push({ ...one, at });
    }
    if (!isLast) until[c] = start + x.length - margin - kept;
  };
  const join = (a: Float32Array, b: Float32Array) => {
    const x = new Float32Array(a.length + b.length);
    x.set(a);
    x.set(b, a.length);
    return x;
  };
  return {
    push(channels: readonly Float32Array[]): void {
      for (let c = 0; c < channelCount; c++) {
        const x = join(before[c]!, channels[c]!);
        for (let at = 0; at + margin <= channels[c]!.length; at += margin)
          blocks[c]!.push(rmsOf(channels[c]!, at, at + margin));
        look(c, x, from - before[c]!.length, false);
        before[c] = x.slice(Math.max(0, x.length - kept - margin));
      }
      from += channels[0]?.length ?? 0;
    },
    result(): Fault[] {
      return found.flatMap((all, c) => {
        look(c, before[c]!, from - before[c]!.length, true);
        const loud = blocks[c]!.sort((a, b) => a - b)[Math.floor(LOUD_PART * blocks[c]!.length)] ?? 0;
        const told = all.filter((f) => f.level >= MIN_OF_LOUD * loud);
        return judge(distinct(told), c, channelCount, sampleRateHz);
      });
    },
  };
}

/** Each position is reported once: the same gap may have been found in two pieces, and a gap may contain a repeat. */
function distinct(all: readonly Found[]): Found[] {
  const sorted = [...all].sort((a, b) => a.at - b.at);
  return sorted.filter((f, i) => i === 0 || f.at > sorted[i - 1]!.at + sorted[i - 1]!.frames);
}

function gapsIn(x: Float32Array, sampleRateHz: number): Found[] {
  const gaps: Found[] = [];
  const least = Math.max(8, Math.round(MIN_GAP_S * sampleRateHz));
  const most = MAX_GAP_S * sampleRateHz;
  const beside = Math.round(BESIDE_S * sampleRateHz);
  const isNothing = (i: number) => x[i]! <= NOTHING && x[i]! >= -NOTHING;
  // A gap is long enough to contain one of these positions.
  for (let at = least - 1; at < x.length; at += least) {
    if (!isNothing(at)) continue;
    let start = at;
    while (start > 0 && isNothing(start - 1)) start--;
    let end = at + 1;
    while (end < x.length && isNothing(end)) end++;
    const frames = end - start;
    if (frames >= least && frames <= most && start >= beside && end + beside <= x.length) {
      const [left, right] = [rmsOf(x, start - beside, start), rmsOf(x, end, end + beside)];
      const [a, b] = [Math.abs(x[start - 1]!) / left, Math.abs(x[end]!) / right];
      if (Math.min(left, right) > MIN_BESIDE && Math.min(a, b) > BOTH_EDGES && Math.max(a, b) > ONE_EDGE)
        gaps.push({ at: start, frames, kind: 'gap', level: Math.min(left, right) });
    }
    while (at + least < end) at += least;
  }
  return gaps;
}

function rmsOf(x: Float32Array, start: number, end: number): number {
  let sum = 0;
  for (let i = start; i < end; i++) sum += x[i]! * x[i]!;
  return Math.sqrt(sum / (end - start));
}

/**
 * Pieces whose samples are those of the piece right before, each and all. Every few samples an anchor is kept under the
 * hash of the samples that end there (Rabin-Karp): so few apart that the shortest piece holds one.
 */
function repeatsIn(x: Float32Array, sampleRateHz: number): Found[] {
  const repeats: Found[] = [];
  const bits = new Int32Array(x.buffer, x.byteOffset, x.length);
  const least = Math.round(REPEAT_S[0] * sampleRateHz);
  const most = Math.round(REPEAT_S[1] * sampleRateHz);
  const shortest = Math.ceil(MIN_PART * least);
  const apart = Math.max(1, Math.min(MAX_APART, shortest - WINDOW + 1));
  const anchors: Anchors = { hash: new Int32Array(TABLE), at: new Int32Array(TABLE).fill(-1) };
  // The one that leaves is taken out by the multiplier's own power.
  let leaving = 1;
  for (let i = 0; i < WINDOW; i++) leaving = Math.imul(leaving, FACTOR);
  let hash = 0;
  let next = WINDOW;
  for (let i = 0; i < x.length; i++) {
    hash = (Math.imul(hash, FACTOR) + bits[i]!) | 0;
    if (i < WINDOW) continue;
    hash = (hash - Math.imul(bits[i - WINDOW]!, leaving)) | 0;
    const slot = slotOf(hash);
    const lag = anchors.hash[slot] === hash ? i - anchors.at[slot]! : 0;
    if (lag >= least && lag <= most && sameEnd(bits, i - lag, i)) {
      const same = sameFrom(bits, i, lag);
      // The same piece may also have occurred further back, and been found there first: the nearest one counts.
      const others = new Map([[lag, same]]);
      for (let k = i + 1; k < Math.min(same.end, i + apart); k++) {
        const other = k - anchors.at[slotOf(hashOf(bits, k))]!;
        if (other >= least && other < lag && !others.has(other) && sameEnd(bits, k - other, k))
          others.set(other, sameFrom(bits, k, other));
      }
      const nearest = [...others].sort(([a], [b]) => a - b);
      const repeat = nearest.find(([by, { start, end }]) => end < x.length && isRepeat(x, start, end - start, by));
      const { start, end } = repeat?.[1] ?? same;
      if (repeat) repeats.push({ at: start, frames: end - start, kind: 'repeat', level: rmsOf(x, start, end) });
      // What was compared needs no other look: the hash begins again behind it.
      hash = hashOf(bits, end - 1);
      for (; next < end; next += apart) keep(anchors, hashOf(bits, next), next);
      i = end - 1;
      continue;
    }
    if (i === next) {
      keep(anchors, hash, i);
      next += apart;
    }
  }
  return repeats;
}

/** The whole neighborhood of a position that equals what came one lag earlier. */
function sameFrom(bits: Int32Array, i: number, lag: number): { start: number; end: number } {
  let start = i - WINDOW + 1;
  while (start > lag && bits[start - 1] === bits[start - 1 - lag]) start--;
  let end = i + 1;
  while (end < bits.length && bits[end] === bits[end - lag]) end++;
  return { start, end };
}

interface Anchors {
  readonly hash: Int32Array;
  readonly at: Int32Array;
}

const slotOf = (hash: number): number => (hash ^ (hash >>> 15)) & (TABLE - 1);

function keep({ hash: hashes, at }: Anchors, hash: number, i: number): void {
  const slot = slotOf(hash);
  hashes[slot] = hash;
  at[slot] = i;
}

/** The hash of the samples that end here. */
function hashOf(bits: Int32Array, end: number): number {
  let hash = 0;
  for (let i = end - WINDOW + 1; i <= end; i++) hash = (Math.imul(hash, FACTOR) + bits[i]!) | 0;
  return hash;
}

function sameEnd(bits: Int32Array, a: number, b: number): boolean {
  for (let k = 0; k < WINDOW; k++) if (bits[a - k] !== bits[b - k]) return false;
  return true;
}

function isRepeat(x: Float32Array, at: number, frames: number, lag: number): boolean {
  if (frames < MIN_PART * lag || frames > MAX_TIMES * lag || rmsOf(x, at, at + frames) < MIN_BESIDE) return false;
  let same = 0;
  for (let i = at + 1; i < at + frames; i++) if (x[i] === x[i - 1]) same++;
  // Rest, and waves of two levels, repeat by themselves; and so do tones.
  return same < 0.3 * frames && !isTone(x, at, lag) && isSplice(x, at, lag);
}

/** A tone repeats after a part of the lag, or occurred before the first of the two as well. */
function isTone(x: Float32Array, at: number, lag: number): boolean {
  const length = Math.min(lag, MAX_COMPARED);
  const off = (from: number, by: number) => {
    let [sum, power] = [0, 0];
    if (Math.max(from, by) >= from + length) return Number.POSITIVE_INFINITY;
    for (let i = Math.max(from, by); i < from + length; i++) {
      sum += (x[i]! - x[i - by]!) ** 2;
      power += x[i]! * x[i]!;
    }
    return power === 0 ? 0 : sum / power;
  };
  if (off(at - lag, lag) < 0.1) return true;
  for (let by = 8; by <= Math.min(0.75 * lag, MAX_COMPARED); by++) if (off(at, by) < 0.02) return true;
  return false;
}

/** At a splice the wave jumps; or it is too lively to tell. */
function isSplice(x: Float32Array, at: number, lag: number): boolean {
  const bend = (i: number) => Math.abs(x[i]! - 2 * x[i - 1]! + x[i - 2]!);
  const bends: number[] = [];
  let turns = 0;
  for (let i = Math.max(3, at - lag + 2); i < at; i++) {
    bends.push(bend(i));
    if ((x[i]! - x[i - 1]!) * (x[i - 1]! - x[i - 2]!) < 0) turns++;
  }
  const usual = bends.sort((a, b) => a - b)[bends.length >> 1] ?? 0;
  return Math.max(bend(at), bend(at + 1)) > JUMPS * usual || turns > LIVELY * bends.length;
}

function judge(found: readonly Found[], channel: number, channels: number, sampleRateHz: number): Fault[] {
  if (found.length === 0) return [];
  const atS = found.slice(0, PLACES).map((f) => f.at / sampleRateHz);
  const gaps = found.filter((f) => f.kind === 'gap').length;
  const longest = found.reduce((most, f) => Math.max(most, f.frames), 0);
  const parts = [
    ...(gaps > 0 ? [say.gapInMiddleAudio({ gaps })] : []),
    ...(found.length > gaps ? [say.pieceRepeatedAtOnce({ repeats: found.length - gaps })] : []),
  ];
  const evidence = say.upToMsFirst({
    side: sideName(channel, channels),
    found: parts,
    longest: ((1000 * longest) / sampleRateHz).toFixed(1),
    first: sayAt(atS[0]!),
  });
  return [{ id: 'dropouts', severity: 'fix', evidence, atS, channel: channels > 1 ? channel : null }];
}
