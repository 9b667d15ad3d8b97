import { BEATS, CHIRPS, framesABeat, type Slate } from './film.ts';

/** A chirp glides over three octaves in which voices, telephones and small speakers all carry something. */
export const CHIRP_LOW_HZ = 700;
export const CHIRP_HIGH_HZ = 5600;
export const CHIRP_S = 0.06;
/** Delay after the instant of its beat, when the click has decayed. */
export const CHIRP_AFTER_S = 0.02;
const EDGE_S = 0.006;
const CLICK_S = 0.0015;
const CLICK_HZ = 3000;
/** Peak of both, linear: -12 dBFS, so that no ear is startled and no converter full. */
const PEAK = 0.25;

/** One chirp, exponential, with soft edges; kind 0 rises, kind 1 falls. Its instant is its first sample. */
export function chirp(kind: 0 | 1, sampleRateHz: number, shiftS = 0): Float32Array {
  const octaves = Math.log(CHIRP_HIGH_HZ / CHIRP_LOW_HZ);
  const out = new Float32Array(Math.ceil((CHIRP_S + shiftS) * sampleRateHz));
  for (let i = 0; i < out.length; i++) {
    const t = i / sampleRateHz - shiftS;
    if (t < 0 || t > CHIRP_S) continue;
    const along = kind === 0 ? t : CHIRP_S - t;
    const phase = ((2 * Math.PI * CHIRP_LOW_HZ * CHIRP_S) / octaves) * Math.expm1((octaves * along) / CHIRP_S);
    const edge = Math.min(1, t / EDGE_S, (CHIRP_S - t) / EDGE_S);
    out[i] = PEAK * Math.sin(phase) * Math.sin((Math.PI / 2) * edge) ** 2;
  }
  return out;
}

/** The sound of a slate from its first frame on: a click at each beat, its chirp a little later. */
export function renderSlateSound(slate: Slate, seconds: number, sampleRateHz: number): Float32Array<ArrayBuffer> {
  const out = new Float32Array(Math.round(seconds * sampleRateHz));
  for (let beat = 0; beatS(slate, beat) < seconds; beat++) {
    const at = beatS(slate, beat) * sampleRateHz;
    const first = Math.ceil(at);
    for (let i = first; i < first + CLICK_S * sampleRateHz && i < out.length; i++) {
      const t = (i - at) / sampleRateHz;
      out[i] = PEAK * Math.cos(2 * Math.PI * CLICK_HZ * t) * Math.exp(-t / (CLICK_S / 4));
    }
    const from = at + CHIRP_AFTER_S * sampleRateHz;
    // Between samples, where the beat falls there: the chirp is made for the very instant.
    const start = Math.floor(from);
    const part = chirp(CHIRPS[beat % BEATS]!, sampleRateHz, (from - start) / sampleRateHz);
    for (let i = 0; i < part.length && start + i < out.length; i++) out[start + i]! += part[i]!;
  }
  return out;
}

/** The instants at which beats are due, in seconds of the film. */
const beatS = (slate: Slate, beat: number): number =>
  (beat * framesABeat(slate.rate) * slate.rate.den) / slate.rate.num;
