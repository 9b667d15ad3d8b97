import { seededRandom } from '#core/audio/samples/index.ts';

/** Ids that are played; those from here up to twice as many never are, and estimate chance. */
export const TUNES = 16;
/** Length of a tune, s, between silences. */
export const TUNE_S = 15;
export const SILENCE_S = 1;

/** A glide: its frequency runs from one end to the other evenly in octaves. */
export interface Glide {
  readonly atS: number;
  readonly lengthS: number;
  readonly fromHz: number;
  readonly toHz: number;
  /** Of the middle glides 1. */
  readonly gain: number;
}

const ROOT_HZ = 330;
/** A scale of five notes: whatever sounds together is never harsh. */
const PENTATONIC = [0, 3, 5, 7, 10];
const HIGHEST_ROOT_HZ = 1700;
const SEMITONES = 12;
const LENGTHS_S = [0.1, 0.15, 0.2];
const LONGEST_GAP_S = 0.08;
/** Each note is accompanied by a glide below and one above, each cycling through its ranges: they carry the bands. */
const LOW_HZ = [80, 160];
const HIGH_HZ = [2500, 5000, 7500];
const LOW_GAIN = 0.5;
const HIGH_GAIN = 0.4;
const FIRST_SEED = 1000;

const pitches = (): number[] => {
  const all: number[] = [];
  for (let octave = 0; ; octave++)
    for (const step of PENTATONIC) {
      const hz = ROOT_HZ * 2 ** ((SEMITONES * octave + step) / SEMITONES);
      if (hz >= HIGHEST_ROOT_HZ) return all;
      all.push(hz);
    }
};

/**
 * The notes of a tune: glides over an octave on a scale of five notes, in an order that its number alone decides, the same
 * on every machine.
 */
export function tuneOf(id: number, lengthS = TUNE_S): Glide[] {
  const random = seededRandom(FIRST_SEED + id);
  const any = (count: number) => Math.floor(random() * count);
  const glides: Glide[] = [];
  let bag: number[] = [];
  let atS = 0;
  for (let n = 0; ; n++) {
    if (bag.length === 0) bag = shuffled(pitches(), random);
    const middle = bag.pop()!;
    const durationS = LENGTHS_S[any(LENGTHS_S.length)]!;
    if (atS + durationS > lengthS) return glides;
    const glide = (baseHz: number, gain: number) => {
      const up = random() < 0.5;
      const [fromHz, toHz] = up ? [baseHz, 2 * baseHz] : [2 * baseHz, baseHz];
      glides.push({ atS, lengthS: durationS, fromHz, toHz, gain });
    };
    glide(middle, 1);
    glide(LOW_HZ[n % LOW_HZ.length]!, LOW_GAIN);
    glide(HIGH_HZ[n % HIGH_HZ.length]!, HIGH_GAIN);
    atS += durationS + random() * LONGEST_GAP_S;
  }
}

/** Fisher and Yates. */
function shuffled<T>(list: T[], random: () => number): T[] {
  for (let i = list.length - 1; i > 0; i--) {
    const j = Math.floor(random() * (i + 1));
    [list[i], list[j]] = [list[j]!, list[i]!];
  }
  return list;
}

/** Each glide swells and fades over a quarter of its length. */
const EDGE = 0.25;
/** How loud a glide is along its length, 0 to 1. */
export const swell = (share: number): number => {
  const edge = Math.min(share, 1 - share);
  return edge >= EDGE ? 1 : Math.sin(((Math.PI / 2) * edge) / EDGE) ** 2;
};

const FADE_S = 0.02;
const PEAK_DBFS = -6;
/** Gain of a middle glide: the peaks of all three together are at -6 dBFS, in every tune. */
export const TUNE_GAIN = 10 ** (PEAK_DBFS / 20) / (1 + LOW_GAIN + HIGH_GAIN);

/** A tune as it is played, mono, with its silences; its peak at -6 dBFS. */
export function renderTune(id: number, sampleRateHz: number, lengthS = TUNE_S): Float32Array {
  const sound = new Float32Array(Math.round((lengthS + 2 * SILENCE_S) * sampleRateHz));
  for (const glide of tuneOf(id, lengthS))
    if (Math.max(glide.fromHz, glide.toHz) < sampleRateHz / 2) addGlide(sound, glide, sampleRateHz);
  fade(sound, lengthS, sampleRateHz);
  for (let i = 0; i < sound.length; i++) sound[i]! *= TUNE_GAIN;
  return sound;
}

function addGlide(sound: Float32Array, { atS, lengthS, fromHz, toHz, gain }: Glide, sampleRateHz: number): void {
  // From its exact instant, which may be between two samples: the tune is the same sound at any rate.
  const at = (SILENCE_S + atS) * sampleRateHz;
  const first = Math.ceil(at);
  const last = Math.floor(at + lengthS * sampleRateHz);
  const octaves = Math.log(toHz / fromHz);
  const turns = (2 * Math.PI * fromHz * lengthS) / octaves;
  const perSample = 1 / (lengthS * sampleRateHz);
  // The frequency grows by the same factor from sample to sample.
  const grows = Math.exp(octaves * perSample);
  let grown = Math.exp(octaves * (first - at) * perSample);
  for (let i = first; i <= last && i < sound.length; i++) {
    sound[i]! += gain * swell((i - at) * perSample) * Math.sin(turns * (grown - 1));
    grown *= grows;
  }
}

function fade(sound: Float32Array, lengthS: number, sampleRateHz: number): void {
  const [from, to] = [SILENCE_S, SILENCE_S + lengthS].map((s) => Math.round(s * sampleRateHz)) as [number, number];
  const frames = Math.round(FADE_S * sampleRateHz);
  for (let i = 0; i < frames; i++) {
    sound[from + i]! *= i / frames;
    sound[to - 1 - i]! *= i / frames;
  }
}
