import { type Biquad, kWeighting } from '#core/audio/process/index.ts';
import type { LevelsKernel } from './kernel/index.ts';

/** Added to each sample: in silence the filters' memories would fade into numbers so small that processors crawl. -400 dB. */
const KEPT_AWAKE = 1e-20;

/** The K-weighted energy of all channels, each times its weight, of each stretch: up to its end, from the end before it. */
export type Weigh = (channels: readonly Float32Array[], ends: readonly number[]) => Float64Array;

/** Weighs what comes, piece by piece: the filters' memories go on. */
export function weigher(
  channelCount: number,
  sampleRateHz: number,
  weights: readonly number[],
  kernel: LevelsKernel | null,
): Weigh {
  const sections = kWeighting(sampleRateHz);
  const counted = Array.from({ length: channelCount }, (_, c) => c).filter((c) => weights[c]! > 0);
  return kernel ? byTwos(counted, sections, weights, kernel) : oneByOne(counted, sections, weights);
}

type Sections = ReturnType<typeof kWeighting>;

function oneByOne(counted: readonly number[], [shelf, lowCut]: Sections, weights: readonly number[]): Weigh {
  // Of each channel: two memories of the shelf, two of the low cut.
  const memories = counted.map(() => new Float64Array(4));
  return (channels, ends) => {
    const energies = new Float64Array(ends.length);
    ends.forEach((end, i) => {
      counted.forEach((c, n) => {
        const energy = weighedEnergy(channels[c]!, ends[i - 1] ?? 0, end, shelf, lowCut, memories[n]!);
        energies[i]! += weights[c]! * energy;
      });
    });
    return energies;
  };
}

/** Two channels at a time, side by side in one register; the last one of an odd number goes beside silence. */
function byTwos(
  counted: readonly number[],
  [shelf, lowCut]: Sections,
  weights: readonly number[],
  kernel: LevelsKernel,
): Weigh {
  const sections = [shelf.b0, shelf.b1, shelf.b2, shelf.a1, shelf.a2, lowCut.a1, lowCut.a2];
  const pairs = counted
    .filter((_, n) => n % 2 === 0)
    .map((left, n) => ({ left, right: counted[2 * n + 1], memories: new Float64Array(8) }));
  return (channels, ends) => {
    const energies = new Float64Array(ends.length);
    const frames = ends.at(-1) ?? 0;
    kernel.sections.set(sections);
    for (const { left, right, memories } of pairs) {
      kernel.memories.set(memories);
      if (right === undefined) kernel.right.fill(0);
      for (let from = 0, i = 0; from < frames; from += kernel.frames) {
        const until = Math.min(frames, from + kernel.frames);
        kernel.left.set(channels[left]!.subarray(from, until));
        if (right !== undefined) kernel.right.set(channels[right]!.subarray(from, until));
        for (let at = from; at < until; ) {
          const end = Math.min(until, ends[i]!);
          kernel.weigh(at - from, end - at, KEPT_AWAKE);
          energies[i]! += weights[left]! * kernel.energies[0]!;
          if (right !== undefined) energies[i]! += weights[right]! * kernel.energies[1]!;
          at = end;
          if (end === ends[i]) i++;
        }
      }
      memories.set(kernel.memories);
    }
    return energies;
  };
}

/** The energy of a stretch through both sections of K weighting, with continuing state. A separate function, so that it is compiled once. */
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
    z1 = b1 * v + z2 - a1 * a;
    z2 = b2 * v - a2 * a;
    const b = a + y1;
    y1 = y2 - 2 * a - c1 * b;
    y2 = a - c2 * b;
    energy += b * b;
  }
  memory[0] = z1;
  memory[1] = z2;
  memory[2] = y1;
  memory[3] = y2;
  return energy;
}
