import type { Recording } from './recording.ts';
import { kaiser, sinc } from './sinc.ts';

/** Taps on each side of a sample. With beta 10.5, aliases are more than 100 dB down; the passband ends at 0.45 of the rate. */
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

/** From a frame of the new recording on, where it is read in the old one, and how far on for each frame. */
export interface Piece {
  readonly fromFrame: number;
  /** May be negative or fractional. */
  readonly readAt: number;
  /** Frames of the old one in one of the new: over 1 makes it shorter. */
  readonly step: number;
}

/** Crossfade where one piece does not continue the previous one, s. */
const BLEND_S = 0.006;
/** Places this near are one: no buffer was lost there. */
const SAME_FRAMES = 0.01;

/**
 * A recording moved and stretched by parts of a sample, piece by piece: for clocks that drift, by up to a thousandth
 * (steps far from 1 would alias), and cut where a buffer was lost or repeated.
 * @param pieces  in order, the first from frame 0
 * @throws RangeError for a step that is further than a thousandth from 1
 */
export function corrected(recording: Recording, pieces: readonly Piece[]): Recording {
  const wrong = pieces.find((p) => !(Math.abs(p.step - 1) <= 1e-3));
  if (wrong) throw new RangeError(`A step of ${wrong.step} is no drift of a clock.`);
  const last = pieces.at(-1)!;
  const frames = Math.max(0, Math.ceil(last.fromFrame + (recording.frames - last.readAt) / last.step));
  const blend = Math.round(BLEND_S * recording.sampleRateHz);
  /** What one piece would read there, whether it is its turn or not. */
  const readPiece = async (piece: Piece, start: number, count: number): Promise<Float32Array[]> => {
    const first = piece.readAt + (start - piece.fromFrame) * piece.step;
    const from = Math.floor(first) - HALF_TAPS;
    const parts = await recording.read(from, Math.ceil(count * piece.step) + TAPS + 2);
    return parts.map((x) => readAt(x, first - from, piece.step, count));
  };
  const read = async (start: number, count: number): Promise<Float32Array[]> => {
    const out = Array.from({ length: recording.channels }, () => new Float32Array(count));
    const seams: { at: number; old: Float32Array[]; fresh: Float32Array[]; into: number }[] = [];
    for (const [k, piece] of pieces.entries()) {
      const next = pieces[k + 1];
      const from = Math.max(start, k === 0 ? start : Math.round(piece.fromFrame));
      const to = Math.min(start + count, next ? Math.round(next.fromFrame) : Number.POSITIVE_INFINITY);
      if (to > from) (await readPiece(piece, from, to - from)).forEach((x, c) => void out[c]!.set(x, from - start));
      if (!next) continue;
      const jumps =
        Math.abs(piece.readAt + (next.fromFrame - piece.fromFrame) * piece.step - next.readAt) > SAME_FRAMES;
      // The piece that ends goes on for a moment under the one that begins.
      const seam = Math.round(next.fromFrame);
      const [a, b] = [Math.max(start, seam), Math.min(start + count, seam + blend)];
      if (!jumps || b <= a) continue;
      const [old, fresh] = [await readPiece(piece, a, b - a), await readPiece(next, a, b - a)];
      seams.push({ at: a - start, old, fresh, into: a - seam });
    }
    for (const { at, old, fresh, into } of seams)
      for (const [c, x] of out.entries())
        for (let i = 0; i < fresh[c]!.length; i++) {
          const share = Math.sin((Math.PI / 2) * ((into + i + 0.5) / blend)) ** 2;
          x[at + i] = old[c]![i]! * (1 - share) + fresh[c]![i]! * share;
        }
    return out;
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
