import { type FftOf, fftSize, type Recording } from '#core/audio/samples/index.ts';
import { BASE_HZ } from './baseband.ts';
import type { Fine } from './fine.ts';
import { renderTune, SILENCE_S, TUNE_S } from './tune.ts';

/** Level of a source in one octave, relative to the median of its own sound. */
export interface BandLevel {
  readonly lowHz: number;
  readonly highHz: number;
  /** Null where it isn't prominent over its surroundings. */
  readonly db: number | null;
  /** Upper limit of the level where it isn't prominent; null where it is, and where nothing is known. */
  readonly atMostDb: number | null;
}

const EDGES_HZ = [80, 160, 320, 640, 1250, 2500, 5000, 10_000, 14_000];
export const OCTAVES = EDGES_HZ.slice(1).map((highHz, i) => ({ lowHz: EDGES_HZ[i]!, highHz }));
/** Bands of a source of which nothing is known. */
export const UNTOLD_BANDS: readonly BandLevel[] = OCTAVES.map((o) => ({ ...o, db: null, atMostDb: null }));
/** Octaves of what is known to pass from one frequency to another, and nothing beyond: those on an edge are not told. */
export const bandLevels = (passesFromHz: number, passesToHz: number): BandLevel[] =>
  OCTAVES.map((octave) => {
    const isIn = octave.lowHz >= passesFromHz && octave.highHz <= passesToHz;
    const isOut = octave.highHz <= passesFromHz || octave.lowHz >= passesToHz;
    return { ...octave, db: isIn ? 0 : null, atMostDb: isOut ? GONE_DB : null };
  });
/** What does not pass is at least so far down. */
const GONE_DB = -36;

/** The octaves that every way passes, which the others are held against. */
export const MIDDLE_HZ = [640, 2500] as const;
/** Range around the arrival of the whole in which a band's arrival is searched: filters delay. */
const ROUND_MS = 12;
const MIN_OVER_DB = 14;
const AHEAD_S = 0.25;
const BEHIND_S = 0.5;

/** The spectrum of one stretch of a take, kept while sources are within it. */
export interface TakeStretch {
  readonly from: number;
  readonly frames: number;
  readonly spectrum: Float32Array;
}

async function stretchFor(
  fftOf: FftOf,
  sound: Recording,
  start: number,
  known: TakeStretch | null,
): Promise<TakeStretch> {
  const needs = Math.ceil((AHEAD_S + TUNE_S + BEHIND_S) * sound.sampleRateHz);
  if (known && start >= known.from && start + needs <= known.from + known.frames) return known;
  const frames = fftSize(needs);
  // Others are before and behind it.
  const from = Math.max(0, start - ((frames - needs) >> 1));
  const spectrum = new Float32Array(frames);
  fftOf(frames).forward(await sound.readMono(from, frames), spectrum);
  return { from, frames, spectrum };
}

/**
 * The band that a source comes through: octave by octave the tune is held against the take.
 * @param known  the stretch that the last source was read from
 */
export async function bandsOf(
  fftOf: FftOf,
  sound: Recording,
  id: number,
  { at, ppm }: Fine,
  known: TakeStretch | null,
): Promise<{ bands: BandLevel[]; stretch: TakeStretch }> {
  const rate = sound.sampleRateHz;
  const begins = (at / BASE_HZ) * rate;
  const stretch = await stretchFor(fftOf, sound, Math.floor(begins - AHEAD_S * rate), known);
  const { frames, spectrum } = stretch;
  const tune = new Float32Array(frames);
  tune.set(renderTune(id, rate * (1 + ppm * 1e-6)).subarray(0, frames));
  const s = new Float32Array(frames);
  fftOf(frames).forward(tune, s);
  const lag = begins - SILENCE_S * rate * (1 + ppm * 1e-6) - stretch.from;
  const bands = OCTAVES.map((o) => ({ ...o, gain: gainIn(fftOf, spectrum, s, lag, rate, o.lowHz, o.highHz) }));
  const middle = bands.filter((b) => b.gain?.standsOut && b.lowHz >= MIDDLE_HZ[0] && b.highHz <= MIDDLE_HZ[1]);
  const reference = Math.sqrt(middle.reduce((sum, b) => sum + b.gain!.times ** 2, 0) / Math.max(1, middle.length));
  return {
    stretch,
    bands: bands.map(({ lowHz, highHz, gain }) => {
      const db = gain === null || reference === 0 ? null : 20 * Math.log10(gain.times / reference);
      return { lowHz, highHz, db: gain?.standsOut ? db : null, atMostDb: gain?.standsOut ? null : db };
    }),
  };
}

interface Gain {
  readonly times: number;
  /** It is as loud as this; otherwise at most. */
  readonly standsOut: boolean;
}

/** How strongly the tune is in the take within a band, round a lag; null where the take does not go there. */
function gainIn(
  fftOf: FftOf,
  x: Float32Array,
  s: Float32Array,
  lag: number,
  rate: number,
  lowHz: number,
  highHz: number,
): Gain | null {
  const size = x.length;
  if (highHz > rate / 2.1) return null;
  const [from, to] = [Math.ceil((lowHz * size) / rate), Math.floor((highHz * size) / rate)];
  const points = fftSize(to - from);
  const cross = new Float32Array(2 * points);
  let energy = 0;
  for (let k = from; k < to; k++) {
    const xr = x[2 * k]!;
    const xi = x[2 * k + 1]!;
    const sr = s[2 * k]!;
    const si = s[2 * k + 1]!;
    cross[2 * (k - from)] = xr * sr + xi * si;
    cross[2 * (k - from) + 1] = xi * sr - xr * si;
    energy += sr * sr + si * si;
  }
  if (energy === 0) return null;
  const out = new Float32Array(2 * points);
  fftOf.complex(points).inverse(cross, out);
  const perSample = points / size;
  const power = new Float32Array(points);
  for (let i = 0; i < points; i++) power[i] = out[2 * i]! ** 2 + out[2 * i + 1]! ** 2;
  const round = Math.max(2, Math.ceil((ROUND_MS / 1000) * rate * perSample));
  const due = Math.round(lag * perSample);
  let [peak, top] = [0, due];
  for (let i = due - round; i <= due + round; i++) {
    const p = power[(i + points) % points]!;
    if (p > peak) [peak, top] = [p, i];
  }
  const usual = power.slice().sort()[points >> 1]!;
  const least = usual * 10 ** (MIN_OVER_DB / 10);
  const standsOut = peak >= least;
  return { times: (Math.sqrt(standsOut ? between(out, top, points) : least) * points) / energy, standsOut };
}

/** The top of the power between its samples. */
function between(c: Float32Array, top: number, points: number): number {
  let best = 0;
  for (let t = -0.5; t <= 0.5; t += 0.125) {
    let re = 0;
    let im = 0;
    for (let i = -6; i <= 6; i++) {
      const d = t - i;
      const w = d === 0 ? 1 : (Math.cos((Math.PI * d) / 14) ** 2 * Math.sin(Math.PI * d)) / (Math.PI * d);
      const at = (top + i + points) % points;
      // The band is above its own zero: the half turn a sample of its center is removed.
      const sign = (i & 1) === 0 ? w : -w;
      re += c[2 * at]! * sign;
      im += c[2 * at + 1]! * sign;
    }
    best = Math.max(best, re * re + im * im);
  }
  return best;
}
