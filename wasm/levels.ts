// The inner loops of loudness and true peak, in AssemblyScript: compiled to WebAssembly with SIMD by `scripts/wasm.mjs`.
// Each does what the plain code in core/audio/measure does, in the same order: `kernel.test.ts` holds one against the other.

/** Frames of a channel that are worked on at a time. */
const FRAMES: i32 = 8192;
/** As in core/audio/measure/true-peak.ts: samples that a point between samples is made of, half of them to each side. */
const TAPS: i32 = 32;
const REACH: i32 = 16;
const BLOCK: i32 = 64;
const MOST_PHASES: i32 = 8;

/** The last block of what is looked through is filled up. */
const LEFT: usize = memory.data(4 * (FRAMES + TAPS + BLOCK), 16);
const RIGHT: usize = memory.data(4 * FRAMES, 16);
/** K weighting: b0, b1, b2, a1, a2 of the shelf; a1, a2 of the low cut. */
const SECTIONS: usize = memory.data(8 * 7, 16);
/** Its memories: z1, z2, y1, y2, each for the left and the right. */
const MEMORIES: usize = memory.data(8 * 8, 16);
const ENERGIES: usize = memory.data(8 * 2, 16);
const MAXIMA: usize = memory.data(4 * (FRAMES / BLOCK + 3), 16);
/** Two phases side by side, tap by tap. */
const PHASES: usize = memory.data(8 * TAPS * MOST_PHASES, 16);
/** Six coefficients of the short filter, one side of it. */
const HALFWAY: usize = memory.data(4 * 6, 16);
/** Sample peak and true peak so far. */
const PEAKS: usize = memory.data(8 * 2, 16);

export function leftAt(): usize {
  return LEFT;
}
export function rightAt(): usize {
  return RIGHT;
}
export function sectionsAt(): usize {
  return SECTIONS;
}
export function memoriesAt(): usize {
  return MEMORIES;
}
export function energiesAt(): usize {
  return ENERGIES;
}
export function phasesAt(): usize {
  return PHASES;
}
export function halfwayAt(): usize {
  return HALFWAY;
}
export function peaksAt(): usize {
  return PEAKS;
}

/** The energies of `count` frames from `from` on, K-weighted; `awake` is added to each sample. */
export function weigh(from: i32, count: i32, awake: f64): void {
  const b0 = v128.load64_splat(SECTIONS);
  const b1 = v128.load64_splat(SECTIONS, 8);
  const b2 = v128.load64_splat(SECTIONS, 16);
  const a1 = v128.load64_splat(SECTIONS, 24);
  const a2 = v128.load64_splat(SECTIONS, 32);
  const c1 = v128.load64_splat(SECTIONS, 40);
  const c2 = v128.load64_splat(SECTIONS, 48);
  const lift = f64x2.splat(awake);
  const two = f64x2.splat(2);
  let z1 = v128.load(MEMORIES);
  let z2 = v128.load(MEMORIES, 16);
  let y1 = v128.load(MEMORIES, 32);
  let y2 = v128.load(MEMORIES, 48);
  let energy = f64x2.splat(0);
  let l = LEFT + 4 * from;
  let r = RIGHT + 4 * from;
  for (let i = 0; i < count; i++) {
    const x = v128.shuffle<f32>(v128.load32_zero(l), v128.load32_zero(r), 0, 4, 1, 5);
    const v = f64x2.add(f64x2.promote_low_f32x4(x), lift);
    const a = f64x2.add(f64x2.mul(b0, v), z1);
    z1 = f64x2.sub(f64x2.add(f64x2.mul(b1, v), z2), f64x2.mul(a1, a));
    z2 = f64x2.sub(f64x2.mul(b2, v), f64x2.mul(a2, a));
    const b = f64x2.add(a, y1);
    y1 = f64x2.sub(f64x2.sub(y2, f64x2.mul(two, a)), f64x2.mul(c1, b));
    y2 = f64x2.sub(a, f64x2.mul(c2, b));
    energy = f64x2.add(energy, f64x2.mul(b, b));
    l += 4;
    r += 4;
  }
  v128.store(MEMORIES, z1);
  v128.store(MEMORIES, z2, 16);
  v128.store(MEMORIES, y1, 32);
  v128.store(MEMORIES, y2, 48);
  v128.store(ENERGIES, energy);
}

/**
 * Goes through the first `count` samples of the left: the highest sample, and the highest point between those that
 * have all their taps, are kept in PEAKS where they are higher than what is there.
 * @param phases  how many points between two samples, an even number
 * @param bound   no point is higher than the samples near it, times this
 * @param near    a stretch whose points halfway stand under this part of the peak is passed over
 */
export function look(count: i32, phases: i32, bound: f64, near: f64): void {
  let samplePeak = load<f64>(PEAKS);
  let truePeak = load<f64>(PEAKS, 8);
  const last = count - TAPS;
  const blocks = (count + BLOCK - 1) / BLOCK;
  // The last block is filled up with silence.
  for (let i = count; i < blocks * BLOCK; i++) store<f32>(LEFT + 4 * i, 0);
  for (let b = 0, at = LEFT; b < blocks; b++) {
    let most = f32x4.splat(0);
    for (let k = 0; k < BLOCK; k += 4, at += 16) most = f32x4.max(most, f32x4.abs(v128.load(at)));
    store<f32>(MAXIMA + 4 * b, highestOf(most));
  }
  store<f32>(MAXIMA + 4 * blocks, 0);
  for (let b = 0, at = 0; at < last; b++, at += BLOCK) {
    const most = <f64>max(load<f32>(MAXIMA + 4 * b), load<f32>(MAXIMA + 4 * b, 4));
    if (most > samplePeak) samplePeak = most;
    if (most > truePeak) truePeak = most;
    if (most * bound > truePeak) truePeak = lookClosely(at, min(last, at + BLOCK), phases, near, truePeak);
  }
  store<f64>(PEAKS, samplePeak);
  store<f64>(PEAKS, truePeak, 8);
}

function highestOf(x: v128): f32 {
  const pair = f32x4.max(x, v128.shuffle<f32>(x, x, 2, 3, 0, 1));
  return max(f32x4.extract_lane(pair, 0), f32x4.extract_lane(pair, 1));
}

function lookClosely(at: i32, end: i32, phases: i32, near: f64, highest: f64): f64 {
  let truePeak = highest;
  for (let i = at; i < end; i += 4) {
    const l = LEFT + 4 * (i + REACH - 1);
    let v = f32x4.splat(0);
    for (let k = 0; k < 6; k++) {
      const both = f32x4.add(v128.load(l - 4 * k), v128.load(l + 4 * (k + 1)));
      v = f32x4.add(v, f32x4.mul(v128.load32_splat(HALFWAY + 4 * k), both));
    }
    const height = f32x4.max(f32x4.abs(v), f32x4.max(f32x4.abs(v128.load(l)), f32x4.abs(v128.load(l, 4))));
    if (!v128.any_true(f32x4.ge(height, f32x4.splat(<f32>(truePeak * near))))) continue;
    for (let p = 0; p < phases; p += 2) {
      const coefficients = PHASES + 8 * TAPS * p;
      for (let n = i; n < min(end, i + 4); n++) {
        let between = f64x2.splat(0);
        for (let k = 0; k < TAPS; k++) {
          const x = f64x2.splat(<f64>load<f32>(LEFT + 4 * (n + k)));
          between = f64x2.add(between, f64x2.mul(v128.load(coefficients + 16 * k), x));
        }
        const size = f64x2.abs(between);
        truePeak = max(truePeak, max(f64x2.extract_lane(size, 0), f64x2.extract_lane(size, 1)));
      }
    }
  }
  return truePeak;
}
