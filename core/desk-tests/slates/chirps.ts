import { bestLag, readWindow } from '#core/audio/measure/index.ts';
import { type FftOf, fftSize, type Recording } from '#core/audio/samples/index.ts';
import { hertz } from '#core/model/units/index.ts';
import { BEATS, CHIRPS, SLATE_RATES, secondsABeat } from './film.ts';
import { CHIRP_AFTER_S, CHIRP_HIGH_HZ, CHIRP_LOW_HZ, CHIRP_S, chirp } from './sound.ts';

/** A beat that was heard: the instant that its click represents. */
export interface Chirp {
  readonly atMs: number;
  readonly kind: 0 | 1;
  /** How alike it is to what was played, 0 to 1. */
  readonly likeness: number;
}

/** Chirps are looked for at this rate; it holds all of their band. */
const SEARCH_RATE_HZ = 16_000;
const BLOCK_S = 8;
const BAND = { lowHz: CHIRP_LOW_HZ * 0.85, highHz: CHIRP_HIGH_HZ * 1.1 };
/** Correlation from which a position is examined, and from which a chirp counts by itself. */
const MIN_LIKENESS = 0.28;
const SURE_LIKENESS = 0.55;
/** The same chirp through a room comes again within this time: the strongest counts. */
const APART_S = 0.5;
/** Two chirps of one slate stand a whole number of beats apart, this nearly. */
const ON_BEAT_S = 0.004;
/** Clocks of player and recorder differ by no more. */
const FASTEST_DRIFT = 300e-6;
/** Uncertain chirps need this many others of their run. */
const COMPANY = 2;

/**
 * The chirps of a slate in a recording, in order of time; none where there was no slate. A chirp is believed when it is
 * very like what was played, or when others stand whole beats away and their kinds follow the order of the film.
 */
export async function findChirps(
  fftOf: FftOf,
  recording: Recording,
  onProgress?: (done: number) => void,
): Promise<Chirp[]> {
  const rough = await search(fftOf, recording, onProgress);
  const believed = inCompany(rough);
  const fine: Chirp[] = [];
  for (const c of believed) fine.push(await refine(fftOf, recording, c));
  return fine;
}

interface Rough {
  readonly atS: number;
  readonly kind: 0 | 1;
  readonly likeness: number;
}

/** Normalised correlation with both chirps, block by block. */
async function search(fftOf: FftOf, recording: Recording, onProgress?: (done: number) => void): Promise<Rough[]> {
  const rate = Math.min(SEARCH_RATE_HZ, recording.sampleRateHz);
  const template = Math.ceil(CHIRP_S * rate);
  const size = fftSize(BLOCK_S * rate);
  const usable = size - 2 * template;
  const fft = fftOf(size);
  const kinds = ([0, 1] as const).map((kind) => {
    const padded = new Float32Array(size);
    padded.set(chirp(kind, rate).subarray(0, template));
    const spectrum = new Float32Array(size);
    fft.forward(padded, spectrum);
    keepBand(spectrum, rate);
    fft.inverse(spectrum, padded);
    return { kind, spectrum, norm: Math.sqrt(padded.reduce((sum, v) => sum + v * v, 0)) };
  });
  const x = new Float32Array(size);
  const spectrum = new Float32Array(size);
  const work = new Float32Array(size);
  const out: Rough[] = [];
  const lengthS = recording.frames / recording.sampleRateHz;
  for (let atS = -CHIRP_S; atS < lengthS; atS += usable / rate) {
    const part = await readWindow(recording, atS, size, rate);
    fft.forward(part, spectrum);
    keepBand(spectrum, rate);
    fft.inverse(spectrum, x);
    const energy = runningEnergy(x, template);
    const floor = (energy.total / size) * template * ENERGY_FLOOR + 1e-12;
    for (const { kind, spectrum: of, norm } of kinds) {
      timesConjugate(spectrum, of, work);
      fft.inverse(work, work);
      for (let i = 1; i < usable; i++) {
        const c = Math.abs(work[i]!);
        const likeness = c / (norm * Math.sqrt(energy.from(i) + floor));
        if (likeness < MIN_LIKENESS || c < Math.abs(work[i - 1]!) || c < Math.abs(work[i + 1]!)) continue;
        keepBest(out, { atS: atS + i / rate, kind, likeness: Math.min(1, likeness) });
      }
    }
    onProgress?.(Math.min(1, (atS + usable / rate) / lengthS));
  }
  return out.sort((a, b) => a.atS - b.atS);
}

/** Regularization against silence: this fraction of the block's mean energy is added. */
const ENERGY_FLOOR = 1e-4;

/** Of what stands too near to another, the liker one is kept. */
function keepBest(list: Rough[], next: Rough): void {
  for (let i = list.length - 1; i >= 0 && i >= list.length - 64; i--) {
    const other = list[i]!;
    if (Math.abs(other.atS - next.atS) >= APART_S) continue;
    if (other.likeness >= next.likeness) return;
    list.splice(i, 1);
  }
  list.push(next);
}

function keepBand(spectrum: Float32Array, rate: number): void {
  const perBin = rate / spectrum.length;
  spectrum.fill(0, 0, 2 * Math.max(1, Math.ceil(BAND.lowHz / perBin)));
  spectrum.fill(0, Math.min(spectrum.length, 2 * Math.floor(BAND.highHz / perBin)));
}

/** x times the conjugate of a template: its inverse is the correlation, lag by lag. */
function timesConjugate(x: Float32Array, template: Float32Array, out: Float32Array): void {
  out[0] = x[0]! * template[0]!;
  out[1] = x[1]! * template[1]!;
  for (let i = 2; i < x.length; i += 2) {
    const [xr, xi, tr, ti] = [x[i]!, x[i + 1]!, template[i]!, template[i + 1]!];
    out[i] = xr * tr + xi * ti;
    out[i + 1] = xi * tr - xr * ti;
  }
}

function runningEnergy(x: Float32Array, span: number): { total: number; from: (i: number) => number } {
  const sums = new Float64Array(x.length + 1);
  for (let i = 0; i < x.length; i++) sums[i + 1] = sums[i]! + x[i]! * x[i]!;
  return { total: sums[x.length]!, from: (i) => sums[Math.min(x.length, i + span)]! - sums[i]! };
}

/** Beats between two chirps, or null where they are not a whole number of beats apart at any rate of slates. */
function beatsBetween(a: Rough, b: Rough): number | null {
  const apart = b.atS - a.atS;
  for (const beat of BEAT_LENGTHS) {
    const n = Math.round(apart / beat);
    if (n !== 0 && Math.abs(n) <= 2 * BEATS && Math.abs(apart - n * beat) < ON_BEAT_S + Math.abs(apart) * FASTEST_DRIFT)
      return n;
  }
  return null;
}
const BEAT_LENGTHS = [...new Set(SLATE_RATES.map(secondsABeat))];

/** Chirps that are sure for themselves, and those whose neighbors keep the order of the film with them. */
function inCompany(rough: readonly Rough[]): readonly Rough[] {
  const kept = rough.filter((c) => c.likeness >= SURE_LIKENESS || keepsCompany(c, rough));
  // Repeat: drop chirps that were kept only because of a neighbor now dropped.
  return kept.length === rough.length ? kept : inCompany(kept);
}

function keepsCompany(c: Rough, all: readonly Rough[]): boolean {
  const others = all.flatMap((other) => {
    const by = other === c || Math.abs(other.atS - c.atS) > NEAR_S ? null : beatsBetween(c, other);
    return by === null ? [] : [{ by, kind: other.kind }];
  });
  return CHIRPS.some((kind, place) => {
    if (kind !== c.kind) return false;
    const agreeing = others.filter((o) => CHIRPS[(place + o.by + 4 * BEATS) % BEATS] === o.kind).length;
    return agreeing >= COMPANY && agreeing >= MAX_AGREE * others.length;
  });
}
const MAX_AGREE = 0.75;
const NEAR_S = 9;

const REFINE_BEFORE_S = 0.004;

/** The instant at the recording's own rate, to a part of a sample. */
async function refine(fftOf: FftOf, recording: Recording, { atS, kind, likeness }: Rough): Promise<Chirp> {
  const rate = Math.min(48_000, recording.sampleRateHz);
  const from = Math.round((atS - REFINE_BEFORE_S) * rate) / rate;
  const ref = chirp(kind, rate);
  const other = await readWindow(recording, from, ref.length + Math.ceil(3 * REFINE_BEFORE_S * rate), rate);
  const reach = Math.ceil(2 * REFINE_BEFORE_S * rate);
  const peak = bestLag(fftOf, { ref, other, sampleRateHz: rate, band: BAND, lowestLag: 0, highestLag: reach });
  const startS = peak ? from + peak.lag / rate : atS;
  return { atMs: 1000 * (startS - CHIRP_AFTER_S), kind, likeness };
}

/** Which beat of the loop each chirp is, by the order of their kinds; null where ambiguous. */
export function beatsOf(chirps: readonly Chirp[], beatS: number): number[] | null {
  if (chirps.length === 0) return null;
  const at = chirps.map((c) => Math.round((c.atMs - chirps[0]!.atMs) / (1000 * beatS)));
  const fits = Array.from(
    { length: BEATS },
    (_, place) => chirps.filter((c, i) => CHIRPS[(place + at[i]!) % BEATS] === c.kind).length,
  );
  const best = Math.max(...fits);
  const place = fits.indexOf(best);
  const second = Math.max(...fits.filter((_, p) => p !== place));
  return best > second ? at.map((n) => (place + n) % BEATS) : null;
}

/** The length of a beat by the sound alone, seconds; null for fewer than two chirps. */
export function beatHeardS(chirps: readonly Chirp[]): number | null {
  if (chirps.length < 2) return null;
  const apart = (chirps.at(-1)!.atMs - chirps[0]!.atMs) / 1000;
  const lengths = BEAT_LENGTHS.map((beat) => ({ beat, off: Math.abs(apart / beat - Math.round(apart / beat)) * beat }));
  const best = lengths.reduce((a, b) => (b.off < a.off ? b : a));
  return apart / Math.round(apart / best.beat);
}

/** The rates whose beats are as long as heard. */
export const ratesHeard = (beat: number): typeof SLATE_RATES =>
  SLATE_RATES.filter((r) => Math.abs(secondsABeat(r) / beat - 1) < FASTEST_DRIFT && hertz(r) > 0);
