import { type LevelsKernel, levelsKernel } from './kernel/index.ts';
import { weigher } from './weighing.ts';

/** LUFS and LU; null where nothing is loud enough to be counted. */
export interface Loudness {
  readonly integratedLufs: number | null;
  readonly rangeLu: number | null;
  readonly maxMomentaryLufs: number | null;
  readonly maxShortTermLufs: number | null;
}

/** What is heard now. */
interface Live {
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
  /** What `loudnessOf` reads. */
  steps(): StepPowers;
}

/** The finest step: maxima are looked for this often, ten times as often as blocks are gated. */
export const STEPS_PER_S = 100;
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
/** -150 LUFS. */
const SILENT_POWER = 1e-15;

/** Seconds of one of a meter's hops. */
export const HOP_S = HOP_STEPS / STEPS_PER_S;
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

/** The weighed power of every 10 ms of a recording, one after the other: what all figures are made of. */
export type StepPowers = Float64Array;

/** What the figures of a whole recording are, from the powers of its steps. */
export function loudnessOf(steps: StepPowers): Loudness {
  const total = new Float64Array(steps.length + 1);
  for (let i = 0; i < steps.length; i++) total[i + 1] = total[i]! + steps[i]!;
  return figuresOf(total, steps.length);
}

const figuresOf = (total: Float64Array, count: number): Loudness => ({
  integratedLufs: gated(windowsOf(total, count, MOMENTARY_STEPS, HOP_STEPS)),
  rangeLu: rangeOf(windowsOf(total, count, SHORT_TERM_STEPS, HOP_STEPS)),
  maxMomentaryLufs: loudest(windowsOf(total, count, MOMENTARY_STEPS, 1)),
  maxShortTermLufs: loudest(windowsOf(total, count, SHORT_TERM_STEPS, 1)),
});

/** Mean powers of windows of this many steps, one every `hop` steps; `total` is the cumulative power up to each step. */
function windowsOf(total: Float64Array, count: number, length: number, hop: number): Float64Array {
  const out = new Float64Array(Math.max(0, Math.floor((count - length) / hop) + 1));
  for (let i = 0; i < out.length; i++) out[i] = Math.max(0, (total[i * hop + length]! - total[i * hop]!) / length);
  return out;
}

export interface LoudnessOptions {
  /** How much each channel counts; 1 where absent, as it is for one or two. */
  readonly weights?: readonly number[];
  /** What weighs; the plain code where null. */
  readonly kernel?: LevelsKernel | null;
}

/**
 * Programme loudness as it runs, at any sample rate. ITU-R BS.1770-5 (K weighting, gates at -70 LUFS and -10 LU),
 * momentary and short-term by EBU Tech 3341, range by EBU Tech 3342.
 */
export function loudnessMeter(
  channelCount: number,
  sampleRateHz: number,
  { weights = new Array<number>(channelCount).fill(1), kernel = levelsKernel() }: LoudnessOptions = {},
): LoudnessMeter {
  const weigh = weigher(channelCount, sampleRateHz, weights, kernel);
  // Cumulative power, step by step: a window is a difference of two.
  let total = new Float64Array(4096);
  let count = 0;
  let sum = 0;
  let seen = 0;
  let from = 0;
  // In whole samples, so that a step that ends between two samples doesn't end elsewhere a second later.
  const endOf = (step: number) => Math.round(((step + 1) * sampleRateHz) / STEPS_PER_S);
  let until = endOf(0);
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
    until = endOf(count);
  };
  /** Where the steps of these frames end, the last one perhaps not: from the first of them on. */
  const cutsOf = (frames: number): number[] => {
    const cuts: number[] = [];
    for (let step = count; (cuts.at(-1) ?? 0) < frames; step++) cuts.push(Math.min(frames, endOf(step) - seen));
    return cuts;
  };
  const last = (length: number): number | null => {
    const energy = count < length ? 0 : (total[count]! - total[count - length]!) / length;
    return energy > SILENT_POWER ? lufs(energy) : null;
  };
  return {
    push(channels) {
      const frames = channels[0]?.length ?? 0;
      const cuts = cutsOf(frames);
      const energies = weigh(channels, cuts);
      cuts.forEach((end, i) => {
        sum += energies[i]!;
        seen += end - (cuts[i - 1] ?? 0);
        if (seen === until) close();
      });
    },
    isWhole: () => Number.isFinite(total[count]! + sum),
    result: () => figuresOf(total, count),
    latest: () => ({ momentaryLufs: last(MOMENTARY_STEPS), shortTermLufs: last(SHORT_TERM_STEPS) }),
    shortTerm: () => windowsOf(total, count, SHORT_TERM_STEPS, HOP_STEPS).map(lufs),
    momentary: () => windowsOf(total, count, MOMENTARY_STEPS, HOP_STEPS).map(lufs),
    hops: () => windowsOf(total, count, HOP_STEPS, HOP_STEPS),
    steps: () => Float64Array.from({ length: count }, (_, i) => total[i + 1]! - total[i]!),
  };
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
