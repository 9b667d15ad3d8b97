import { type Biquad, kWeighting } from '#core/process/index.ts';

/** LUFS and LU; null where nothing is loud enough to be counted. */
export interface Loudness {
  readonly integratedLufs: number | null;
  readonly rangeLu: number | null;
  readonly maxMomentaryLufs: number | null;
  readonly maxShortTermLufs: number | null;
}

/** What is heard now. */
export interface Live {
  readonly momentaryLufs: number | null;
  readonly shortTermLufs: number | null;
}

export interface LoudnessMeter {
  /** One array for each channel, all of one length; in any pieces. */
  push(channels: readonly Float32Array[]): void;
  /** Whether all that was pushed were numbers: one that is none would make every figure after it none. */
  isWhole(): boolean;
  result(): Loudness;
  /** The windows that end now; null while they are not full, or silent. */
  latest(): Live;
  /** The short-term loudness at the end of every 100 ms from 3 s on, LUFS; -Infinity for silence. */
  shortTerm(): Float64Array;
  /** The momentary loudness at the end of every 100 ms from 400 ms on, LUFS; -Infinity for silence. */
  momentary(): Float64Array;
  /** The weighed power of every 100 ms, one after the other: what `integratedOf` and `lufsOf` read. */
  hops(): Float64Array;
}

/** The finest step: maxima are looked for this often, ten times as often as blocks are gated. */
const STEP_S = 0.01;
/** A block is 400 ms and begins every 100 ms (75 % overlap); short-term windows are 3 s and slide by 100 ms. */
const HOP_STEPS = 10;
const MOMENTARY_STEPS = 40;
const SHORT_TERM_STEPS = 300;
const ABSOLUTE_GATE_LUFS = -70;
const RELATIVE_GATE_LU = -10;
/** Loudness range: EBU Tech 3342. */
const RANGE_GATE_LU = -20;
const RANGE_PERCENTILES = [0.1, 0.95] as const;
const OFFSET_DB = -0.691;
/** Added to each sample: in silence the filters' memories would fade into numbers so small that processors crawl. -400 dB. */
const KEPT_AWAKE = 1e-20;
/** -150 LUFS. */
const SILENT_POWER = 1e-15;

/** Seconds of one of a meter's hops. */
export const HOP_S = HOP_STEPS * STEP_S;
const HOPS_OF_BLOCK = MOMENTARY_STEPS / HOP_STEPS;

/** The integrated loudness of what has these hops: powers of independent sounds may have been added. Null for silence. */
export function integratedOf(hops: Float64Array): number | null {
  const blocks = new Float64Array(Math.max(0, hops.length - HOPS_OF_BLOCK + 1));
  for (let i = 0; i < blocks.length; i++) {
    let sum = 0;
    for (let h = i; h < i + HOPS_OF_BLOCK; h++) sum += hops[h]!;
    blocks[i] = sum / HOPS_OF_BLOCK;
  }
  return gated(blocks);
}

/** The loudness of a weighed power. */
export const lufsOf = (power: number): number => lufs(power);

const lufs = (power: number): number => OFFSET_DB + 10 * Math.log10(power);
const power = (loudness: number): number => 10 ** ((loudness - OFFSET_DB) / 10);

/**
 * Programme loudness as it runs, at any sample rate. ITU-R BS.1770-5 (K weighting, gates at -70 LUFS and -10 LU),
 * momentary and short-term by EBU Tech 3341, range by EBU Tech 3342.
 * @param weights  how much each channel counts; 1 where absent, as it is for one or two
 */
export function loudnessMeter(
  channelCount: number,
  sampleRateHz: number,
  weights: readonly number[] = new Array<number>(channelCount).fill(1),
): LoudnessMeter {
  const [shelf, lowCut] = kWeighting(sampleRateHz);
  // Of each channel: two memories of the shelf, two of the low cut.
  const memories = Array.from({ length: channelCount }, () => new Float64Array(4));
  // The power of all steps so far, step by step: a window is a difference of two.
  let total = new Float64Array(4096);
  let count = 0;
  let sum = 0;
  let seen = 0;
  let from = 0;
  let until = Math.round(STEP_S * sampleRateHz);
  const close = () => {
    if (count + 1 === total.length) {
      const longer = new Float64Array(2 * total.length);
      longer.set(total);
      total = longer;
    }
    total[count + 1] = total[count]! + sum / (until - from);
    count++;
    sum = 0;
    from = until;
    until = Math.round((count + 1) * STEP_S * sampleRateHz);
  };
  /** Windows of so many steps, one every `hop` steps. */
  const windows = (length: number, hop: number): Float64Array => {
    const out = new Float64Array(Math.max(0, Math.floor((count - length) / hop) + 1));
    for (let i = 0; i < out.length; i++) out[i] = Math.max(0, (total[i * hop + length]! - total[i * hop]!) / length);
    return out;
  };
  const last = (length: number): number | null => {
    const energy = count < length ? 0 : (total[count]! - total[count - length]!) / length;
    return energy > SILENT_POWER ? lufs(energy) : null;
  };
  return {
    push(channels) {
      const frames = channels[0]?.length ?? 0;
      for (let at = 0; at < frames; ) {
        const end = Math.min(frames, at + until - seen);
        for (let c = 0; c < channelCount; c++)
          if (weights[c]! > 0) sum += weights[c]! * weighedEnergy(channels[c]!, at, end, shelf, lowCut, memories[c]!);
        seen += end - at;
        at = end;
        if (seen === until) close();
      }
    },
    isWhole: () => Number.isFinite(total[count]! + sum),
    result: () => ({
      integratedLufs: gated(windows(MOMENTARY_STEPS, HOP_STEPS)),
      rangeLu: rangeOf(windows(SHORT_TERM_STEPS, HOP_STEPS)),
      maxMomentaryLufs: loudest(windows(MOMENTARY_STEPS, 1)),
      maxShortTermLufs: loudest(windows(SHORT_TERM_STEPS, 1)),
    }),
    latest: () => ({ momentaryLufs: last(MOMENTARY_STEPS), shortTermLufs: last(SHORT_TERM_STEPS) }),
    shortTerm: () => windows(SHORT_TERM_STEPS, HOP_STEPS).map(lufs),
    momentary: () => windows(MOMENTARY_STEPS, HOP_STEPS).map(lufs),
    hops: () => windows(HOP_STEPS, HOP_STEPS),
  };
}

/** The energy of a stretch through both sections of K weighting; their memories go on. A function of its own, lest every meter has it compiled anew. */
function weighedEnergy(
  x: Float32Array,
  start: number,
  end: number,
  { b0, b1, b2, a1, a2 }: Biquad,
  { a1: c1, a2: c2 }: Biquad,
  memory: Float64Array,
): number {
  let z1 = memory[0]!;
  let z2 = memory[1]!;
  let y1 = memory[2]!;
  let y2 = memory[3]!;
  let energy = 0;
  for (let i = start; i < end; i++) {
    const v = x[i]! + KEPT_AWAKE;
    const a = b0 * v + z1;
    z1 = b1 * v - a1 * a + z2;
    z2 = b2 * v - a2 * a;
    const b = a + y1;
    y1 = -2 * a - c1 * b + y2;
    y2 = a - c2 * b;
    energy += b * b;
  }
  memory[0] = z1;
  memory[1] = z2;
  memory[2] = y1;
  memory[3] = y2;
  return energy;
}

const meanOver = (blocks: Float64Array, gate: number): number | null => {
  let total = 0;
  let n = 0;
  for (const p of blocks)
    if (p > gate) {
      total += p;
      n++;
    }
  return n > 0 ? total / n : null;
};

function gated(blocks: Float64Array): number | null {
  const first = meanOver(blocks, power(ABSOLUTE_GATE_LUFS));
  if (first === null) return null;
  const gate = Math.max(power(ABSOLUTE_GATE_LUFS), first * 10 ** (RELATIVE_GATE_LU / 10));
  const mean = meanOver(blocks, gate);
  return mean === null ? null : lufs(mean);
}

function loudest(blocks: Float64Array): number | null {
  let most = 0;
  for (let i = 0; i < blocks.length; i++) if (blocks[i]! > most) most = blocks[i]!;
  // Sums of powers leave a rounding behind: what is lower than any sound is silence.
  return most > SILENT_POWER ? lufs(most) : null;
}

function rangeOf(blocks: Float64Array): number | null {
  const first = meanOver(blocks, power(ABSOLUTE_GATE_LUFS));
  if (first === null) return null;
  const gate = Math.max(power(ABSOLUTE_GATE_LUFS), first * 10 ** (RANGE_GATE_LU / 10));
  const counted = blocks.filter((p) => p > gate).sort();
  const at = (part: number) => lufs(counted[Math.round(part * (counted.length - 1))]!);
  return at(RANGE_PERCENTILES[1]) - at(RANGE_PERCENTILES[0]);
}
