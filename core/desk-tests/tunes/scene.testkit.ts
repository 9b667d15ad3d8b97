import { type FftOf, fftSize, resample, seededNormal, seededRandom } from '#core/audio/samples/index.ts';
import { convolve, roomResponse, voice } from '#core/desk-tests/stand-ins/index.ts';
import { renderTune } from './tune.ts';

/** A tune as it comes to a made-up take: when, how loud against the loudest, on a clock that is off by so much. */
export interface Played {
  readonly id: number;
  readonly startS: number;
  readonly levelDb: number;
  readonly ppm: number;
  readonly polarity: 1 | -1;
  /** A second way, later and under the first. */
  readonly second: { readonly ms: number; readonly db: number } | null;
}

export interface Scene {
  readonly rateHz: number;
  readonly seconds: number;
  readonly played: readonly Played[];
  /** Direct sound over what comes back; null for no room. */
  readonly roomDb: number | null;
  /** A talker over the loudest tune; null for none. */
  readonly speechDb: number | null;
  readonly noiseDb: number;
  readonly seed: number;
}

/** When its first note begins, on the take's own clock. */
export const trueAtMs = ({ startS, ppm }: Played): number => 1000 * startS * (1 + ppm * 1e-6);

/** Scenes as they come: starts within 2 s, clocks within 100 ppm, delays to 600 ms; polarity by chance. */
export function aScene(seed: number, levelsDb: readonly number[], rest: Partial<Scene> = {}, secondEvery = 2): Scene {
  const random = seededRandom(seed * 7919 + 3);
  const ids = Array.from({ length: 16 }, (_, i) => i);
  for (let i = 15; i > 0; i--) {
    const j = Math.floor(random() * (i + 1));
    [ids[i], ids[j]] = [ids[j]!, ids[i]!];
  }
  return {
    rateHz: 48_000,
    seconds: 22,
    roomDb: 8,
    speechDb: null,
    noiseDb: -66,
    seed,
    ...rest,
    played: levelsDb.map((levelDb, i) => ({
      id: ids[i]!,
      startS: 1 + 2 * random() + 0.6 * random(),
      levelDb,
      ppm: 200 * random() - 100,
      polarity: random() < 0.5 ? -1 : 1,
      second: secondEvery > 0 && i % secondEvery === 0 ? { ms: 10 * 40 ** random(), db: -6 - 14 * random() } : null,
    })),
  };
}

const LOUDEST_DBFS = -26;
const TUNE_RMS_DB = -16;

export function renderScene(fftOf: FftOf, scene: Scene): Float32Array {
  const { rateHz, seconds, played, roomDb, speechDb, noiseDb, seed } = scene;
  const frames = Math.round(seconds * rateHz);
  const out = new Float32Array(frames);
  const gainOf = (db: number) => 10 ** ((LOUDEST_DBFS - TUNE_RMS_DB + db) / 20);
  for (const p of played) {
    const dry = renderTune(p.id, rateHz);
    // The tune's own silence is one second; its first note stands at `startS`.
    const at = (startS: number, gain: number, into: Float32Array) => {
      const part = resample(dry, -(startS - 1) * rateHz, 1 / (1 + p.ppm * 1e-6), frames);
      for (let i = 0; i < frames; i++) into[i]! += gain * part[i]!;
    };
    const sum = new Float32Array(frames);
    at(p.startS, p.polarity * gainOf(p.levelDb), sum);
    if (p.second) at(p.startS + p.second.ms / 1000, p.polarity * gainOf(p.levelDb + p.second.db), sum);
    const wet = roomDb === null ? sum : convolve(fftOf, sum, roomResponse(rateHz, 0.4, roomDb, seed * 31 + p.id));
    for (let i = 0; i < frames; i++) out[i]! += wet[i]!;
  }
  if (speechDb !== null) {
    const talk = voice(120 + (seed % 7) * 15)(frames, rateHz, seed + 77);
    let power = 0;
    for (let i = 0; i < frames; i++) power += talk[i]! ** 2;
    const k = 10 ** ((LOUDEST_DBFS + speechDb) / 20) / Math.sqrt(power / frames);
    for (let i = 0; i < frames; i++) out[i]! += k * talk[i]!;
  }
  const normal = seededNormal(seed + 5);
  const floor = 10 ** ((LOUDEST_DBFS + noiseDb) / 20);
  for (let i = 0; i < frames; i++) out[i]! += floor * normal();
  return out;
}

const RUN_S = [0.15, 0.9] as const;
const STEP_MS = [3, 12] as const;
const MAX_OFF_MS = 40;
const FADE_MS = 2.5;

/**
 * What the receiver of a call makes of a sound to bridge packets that were lost: every now and then some milliseconds of
 * it are left out, or played twice, so that it stays about in time.
 */
export function stretched(x: Float32Array, rateHz: number, seed: number): Float32Array {
  const random = seededRandom(seed);
  const between = ([low, high]: readonly [number, number]) => low + (high - low) * random();
  const fade = Math.round((FADE_MS / 1000) * rateHz);
  const out = new Float32Array(x.length);
  let [from, goesOn] = [0, 0];
  for (let to = 0; to < out.length; ) {
    const run = Math.round(between(RUN_S) * rateHz);
    for (let i = 0; i < run && to + i < out.length; i++) {
      const w = Math.min(1, (i + 1) / fade);
      out[to + i] = w * (x[from + i] ?? 0) + (1 - w) * (x[goesOn + i] ?? 0);
    }
    to += run;
    goesOn = from + run;
    const aheadMs = (1000 * (goesOn - to)) / rateHz;
    const isCut = random() < 0.5 - aheadMs / (2 * MAX_OFF_MS);
    from = Math.max(0, goesOn + Math.round(((isCut ? 1 : -1) * between(STEP_MS) * rateHz) / 1000));
  }
  return out;
}

/** Takes all away that lies outside, as coders do. */
export function walled(fftOf: FftOf, x: Float32Array, rateHz: number, lowHz: number, highHz: number): void {
  const size = fftSize(x.length);
  const padded = new Float32Array(size);
  padded.set(x);
  const spectrum = new Float32Array(size);
  fftOf(size).forward(padded, spectrum);
  for (let k = 0; k < size / 2; k++) {
    const hz = (k * rateHz) / size;
    if (hz < lowHz || hz > highHz) spectrum.fill(0, 2 * k, 2 * k + 2);
  }
  fftOf(size).inverse(spectrum, padded);
  x.set(padded.subarray(0, x.length));
}
