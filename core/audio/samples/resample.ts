import { besselI0 } from './sinc.ts';

/** Taps to each side of a sample at the lower of the two rates; stop band below -80 dB with beta 8. */
const HALF_TAPS = 16;
const KAISER_BETA = 8;
/** Share of the lower Nyquist frequency at which half is left (-6 dB); up to 0.76 of it nothing is lost (-66 dB). */
const PASS = 0.92;
/** Positions between two taps at which the window is tabulated; between them it is interpolated. */
const TABLE_STEPS = 512;

/** Windowed sinc from the middle outwards, `TABLE_STEPS` values a tap. */
const TABLE = (() => {
  const table = new Float64Array(HALF_TAPS * TABLE_STEPS + 2);
  const norm = besselI0(KAISER_BETA);
  for (let i = 0; i < table.length; i++) {
    const t = i / TABLE_STEPS;
    const edge = Math.min(1, t / HALF_TAPS);
    const sinc = t === 0 ? PASS : Math.sin(Math.PI * PASS * t) / (Math.PI * t);
    table[i] = (sinc * besselI0(KAISER_BETA * Math.sqrt(1 - edge * edge))) / norm;
  }
  return table;
})();

/**
 * Band-limited reading of `x` at evenly spaced instants: Kaiser-windowed sinc, so that nothing folds back.
 * Good for delays of parts of a sample, for clocks that drift, and for lower rates.
 * @param first  where in `x` the first output stands, in samples of `x`, fractions allowed
 * @param step   samples of `x` per output: above 1 lowers the rate (and the band with it)
 * @param count  how many to make; outside `x` is silence
 */
export function resample(x: Float32Array, first: number, step: number, count: number): Float32Array<ArrayBuffer> {
  const out = new Float32Array(count);
  if (step <= ABOUT_ONE) atFullBand(x, first, step, out);
  else lowered(x, first, step, out);
  return out;
}

/** Steps up to here keep the whole band: a clock's drift folds nothing back that could be heard or measured. */
const ABOUT_ONE = 1.001;
const TAPS = 2 * HALF_TAPS;

/** The same window row by row: row p holds the taps for a position p / TABLE_STEPS between two samples. */
const ROWS = (() => {
  const rows = new Float32Array((TABLE_STEPS + 1) * TAPS);
  for (let p = 0; p <= TABLE_STEPS; p++) {
    for (let j = 0; j < TAPS; j++) {
      rows[p * TAPS + j] = TABLE[Math.min(TABLE.length - 1, Math.abs(p + (HALF_TAPS - 1 - j) * TABLE_STEPS))]!;
    }
  }
  return rows;
})();

function atFullBand(x: Float32Array, first: number, step: number, out: Float32Array): void {
  for (let o = 0; o < out.length; o++) {
    const centre = first + o * step;
    const base = Math.floor(centre);
    const phase = (centre - base) * TABLE_STEPS;
    const row = Math.floor(phase);
    const r0 = row * TAPS;
    const r1 = r0 + TAPS;
    const start = base - HALF_TAPS + 1;
    let low = 0;
    let high = 0;
    const from = Math.max(0, -start);
    const to = Math.min(TAPS, x.length - start);
    for (let j = from; j < to; j++) {
      const v = x[start + j]!;
      low += v * ROWS[r0 + j]!;
      high += v * ROWS[r1 + j]!;
    }
    out[o] = low + (high - low) * (phase - row);
  }
}

function lowered(x: Float32Array, first: number, step: number, out: Float32Array): void {
  const shrink = 1 / step;
  const reach = HALF_TAPS * step;
  const scale = TABLE_STEPS * shrink;
  for (let o = 0; o < out.length; o++) {
    const centre = first + o * step;
    const from = Math.max(0, Math.ceil(centre - reach));
    const to = Math.min(x.length - 1, Math.floor(centre + reach));
    let sum = 0;
    for (let i = from; i <= to; i++) {
      const at = Math.abs(i - centre) * scale;
      const k = at | 0;
      const low = TABLE[k]!;
      sum += x[i]! * (low + (TABLE[k + 1]! - low) * (at - k));
    }
    out[o] = sum * shrink;
  }
}

/** Taps to each side of `decimate`, for each of its steps. */
const DECIMATE_REACH = 8;
const decimators = new Map<number, Float32Array>();

/** The half filter from its middle outwards: Kaiser-windowed sinc, pass band up to 0.85 of the new Nyquist frequency. */
function decimatorOf(factor: number): Float32Array {
  const known = decimators.get(factor);
  if (known) return known;
  const taps = new Float32Array(DECIMATE_REACH * factor + 1);
  const norm = besselI0(KAISER_BETA);
  for (let i = 0; i < taps.length; i++) {
    const t = i / factor;
    const sinc = i === 0 ? 0.85 : Math.sin(Math.PI * 0.85 * t) / (Math.PI * t);
    taps[i] = (sinc * besselI0(KAISER_BETA * Math.sqrt(1 - (t / DECIMATE_REACH) ** 2))) / norm / factor;
  }
  decimators.set(factor, taps);
  return taps;
}

/** Decimation: every `factor`th sample after a low-pass filter; output k is at input k times `factor`. Faster than `resample`, integer factors only. */
export function decimate(x: Float32Array, factor: number): Float32Array<ArrayBuffer> {
  const taps = decimatorOf(factor);
  const reach = taps.length - 1;
  const out = new Float32Array(Math.ceil(x.length / factor));
  for (let o = 0; o < out.length; o++) {
    const c = o * factor;
    let sum = taps[0]! * x[c]!;
    if (c >= reach && c + reach < x.length) {
      for (let i = 1; i <= reach; i++) sum += taps[i]! * (x[c - i]! + x[c + i]!);
    } else {
      for (let i = 1; i <= reach; i++) sum += taps[i]! * ((x[c - i] ?? 0) + (x[c + i] ?? 0));
    }
    out[o] = sum;
  }
  return out;
}

/** How many input samples on each side `decimate` looks at. */
export const decimateReach = (factor: number): number => DECIMATE_REACH * factor;

/** Filter half-length of `resample` in input samples: read this much more than the range you want. */
export const resampleReach = (step: number): number => Math.ceil(HALF_TAPS * Math.max(1, step)) + 1;
