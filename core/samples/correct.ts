import type { Recording } from './recording.ts';
import { kaiser, sinc } from './sinc.ts';

/** Taps to each side of a sample. With beta 10.5 what folds back lies more than 100 dB down, up to 0.45 of the rate all passes. */
const HALF_TAPS = 32;
const TAPS = 2 * HALF_TAPS;
const BETA = 10.5;
/** Positions between two samples at which the filter is tabulated; between them it is interpolated, at -130 dB. */
const STEPS = 2048;

/** The filter row by row: row p for a position p / STEPS after a sample; made when it is first asked for. */
let rows: Float32Array | null = null;
function filterRows(): Float32Array {
  if (rows) return rows;
  const made = new Float32Array((STEPS + 1) * TAPS);
  for (let p = 0; p <= STEPS; p++) {
    let sum = 0;
    for (let j = 0; j < TAPS; j++) {
      const t = p / STEPS + HALF_TAPS - 1 - j;
      const v = sinc(t) * kaiser(t / HALF_TAPS, BETA);
      made[p * TAPS + j] = v;
      sum += v;
    }
    // Each row passes a constant unchanged, so that no level comes and goes with the position.
    for (let j = 0; j < TAPS; j++) made[p * TAPS + j]! /= sum;
  }
  rows = made;
  return made;
}

/**
 * A recording moved and stretched by parts of a sample: frame n is read at `firstFrame + n * step` of the one given.
 * For clocks that drift, by up to a thousandth: steps far from 1 would fold back.
 * @param firstFrame  where the new one begins; below 0 it begins with silence
 * @param step        frames of the old one in one of the new: over 1 makes it shorter
 * @throws RangeError for a step that is further than a thousandth from 1
 */
export function corrected(recording: Recording, firstFrame: number, step: number): Recording {
  if (!(Math.abs(step - 1) <= 1e-3)) throw new RangeError(`A step of ${step} is no drift of a clock.`);
  const frames = Math.max(0, Math.ceil((recording.frames - firstFrame) / step));
  const read = async (start: number, count: number): Promise<Float32Array[]> => {
    const from = Math.floor(firstFrame + start * step) - HALF_TAPS;
    const length = Math.ceil(count * step) + TAPS + 2;
    const parts = await recording.read(from, length);
    return parts.map((x) => readAt(x, firstFrame + start * step - from, step, count));
  };
  const { sampleRateHz, channels, trackNames } = recording;
  return {
    sampleRateHz,
    channels,
    frames,
    ...(trackNames && { trackNames }),
    read,
    async readMono(start, count) {
      const out = new Float32Array(count);
      for (const x of await read(start, count)) for (let i = 0; i < count; i++) out[i]! += x[i]! / channels;
      return out;
    },
  };
}

function readAt(x: Float32Array, first: number, step: number, count: number): Float32Array<ArrayBuffer> {
  const filter = filterRows();
  const out = new Float32Array(count);
  for (let o = 0; o < count; o++) {
    const at = first + o * step;
    const base = Math.floor(at);
    const phase = (at - base) * STEPS;
    const row = Math.floor(phase);
    const part = phase - row;
    const r0 = row * TAPS;
    const r1 = r0 + TAPS;
    const start = base - HALF_TAPS + 1;
    let low = 0;
    let high = 0;
    for (let j = 0; j < TAPS; j++) {
      const v = x[start + j] ?? 0;
      low += v * filter[r0 + j]!;
      high += v * filter[r1 + j]!;
    }
    out[o] = low + (high - low) * part;
  }
  return out;
}
