import type { Recording } from '#core/audio/samples/index.ts';

/** Power is followed so finely. */
export const HOP_MS = 0.5;
const hopOf = (sampleRateHz: number): number => Math.max(1, Math.round((sampleRateHz * HOP_MS) / 1000));

/** Band edges: claps are prominent above the body of the voice; hands, wood and clicks differ above the upper edge. */
const EDGES_HZ = [1500, 5000] as const;
/** Below -100 dBFS nothing is heard; it also keeps digital silence from making anything infinitely loud. */
export const FLOOR = 1e-10;

/** Two second-order high passes in a row (Butterworth sections of the audio EQ cookbook), with their memory. */
export function highPass(sampleRateHz: number, cornerHz: number): (x: Float32Array) => void {
  const w = (2 * Math.PI * Math.min(cornerHz, sampleRateHz * 0.3)) / sampleRateHz;
  const alpha = Math.sin(w) / Math.SQRT2;
  const a0 = 1 + alpha;
  const b = (1 + Math.cos(w)) / 2 / a0;
  const a1 = (-2 * Math.cos(w)) / a0;
  const a2 = (1 - alpha) / a0;
  const memory = new Float64Array(8);
  return (x) => {
    for (let section = 0; section < 8; section += 4) {
      let [x1, x2, y1, y2] = [memory[section]!, memory[section + 1]!, memory[section + 2]!, memory[section + 3]!];
      for (let i = 0; i < x.length; i++) {
        const v = x[i]!;
        const y = b * (v - 2 * x1 + x2) - a1 * y1 - a2 * y2;
        x2 = x1;
        x1 = v;
        y2 = y1;
        y1 = y;
        x[i] = y;
      }
      memory.set([x1, x2, y1, y2], section);
    }
  };
}

/** Mean power over any stretch of hops, at the cost of one subtraction; nothing outside the recording. */
type MeanOver = (from: number, to: number) => number;

export interface Envelopes {
  readonly hops: number;
  readonly hop: number;
  /** Of everything, above the voice's body, and at the top. */
  readonly all: MeanOver;
  readonly high: MeanOver;
  readonly top: MeanOver;
}

/** Hops that are read and filtered together. */
const BLOCK_HOPS = 8192;

/**
 * Follows the power of a recording in one pass.
 * @param onBlock  called with each block of the file and its surroundings while they are in memory
 */
export async function envelopesOf(
  recording: Recording,
  around: { readonly before: number; readonly behind: number },
  onBlock: (block: Block, envelopes: Envelopes) => void,
  onProgress?: (done: number) => void,
): Promise<Envelopes> {
  const hop = hopOf(recording.sampleRateHz);
  const hops = Math.ceil(recording.frames / hop);
  const filters = EDGES_HZ.map((edge) => highPass(recording.sampleRateHz, edge));
  const sums = Array.from({ length: 3 }, () => new Float64Array(hops + 1));
  const meanOver =
    (running: Float64Array): MeanOver =>
    (from, to) => {
      const a = Math.max(0, from);
      const b = Math.min(hops, to);
      return b > a ? (running[b]! - running[a]!) / (b - a) : 0;
    };
  const [all, high, top] = sums.map(meanOver) as [MeanOver, MeanOver, MeanOver];
  const envelopes: Envelopes = { hops, hop, all, high, top };
  for (let first = 0; first < hops; first += BLOCK_HOPS) {
    const count = Math.min(BLOCK_HOPS, hops - first);
    const start = first * hop - around.before;
    const samples = await recording.readMono(start, count * hop + around.before + around.behind);
    const x = samples.slice(around.before, around.before + count * hop);
    addPower(x, hop, sums[0]!, first);
    filters.forEach((filter, f) => {
      // The upper edge filters what the lower one left.
      filter(x);
      addPower(x, hop, sums[f + 1]!, first);
    });
    onBlock({ samples, start, firstHop: first, lastHop: first + count }, envelopes);
    onProgress?.((first + count) / hops);
  }
  return envelopes;
}

export interface Block {
  readonly samples: Float32Array;
  /** Frame of the recording that its first sample is. */
  readonly start: number;
  readonly firstHop: number;
  readonly lastHop: number;
}

function addPower(x: Float32Array, hop: number, running: Float64Array, first: number): void {
  for (let h = 0, i = 0; i < x.length; h++) {
    let sum = 0;
    for (const end = i + hop; i < end; i++) sum += x[i]! * x[i]!;
    running[first + h + 1] = running[first + h]! + sum / hop;
  }
}
