import { seededNormal, seededRandom } from '#core/audio/samples/index.ts';

/** A synthesized source: mono, full scale 1, this many frames at this sample rate; deterministic for a seed. */
export type SourceMaker = (frames: number, sampleRateHz: number, seed: number) => Float32Array;

/** A resonance of two poles: y = gain x + a1 y' + a2 y''. */
function formant(hz: number, bandwidthHz: number, sampleRateHz: number): { a1: number; a2: number; gain: number } {
  const r = Math.exp((-Math.PI * bandwidthHz) / sampleRateHz);
  return { a1: 2 * r * Math.cos((2 * Math.PI * hz) / sampleRateHz), a2: -r * r, gain: 1 - r };
}

/** A resonance with its memory: a drum's skin, a device, a palm. */
function resonator(hz: number, bandwidthHz: number, sampleRateHz: number): (x: number) => number {
  const { a1, a2, gain } = formant(hz, bandwidthHz, sampleRateHz);
  let y1 = 0;
  let y2 = 0;
  return (x) => {
    const y = gain * x + a1 * y1 + a2 * y2;
    y2 = y1;
    y1 = y;
    return y;
  };
}

/** Vowels by their first two formants, Hz. */
const VOWELS = [
  [730, 1090],
  [270, 2290],
  [530, 1840],
  [570, 840],
  [300, 870],
] as const;

/** How a syllable swells and fades. */
const SYLLABLE = Float32Array.from({ length: 4096 }, (_, i) => Math.sin((Math.PI * i) / 4096) ** 0.7);

/** A voice: phrases of syllables with pauses; pulses through moving formants, with noise between. `pitchHz` distinguishes voices. */
export const voice =
  (pitchHz: number): SourceMaker =>
  (frames, rate, seed) => {
    const random = seededRandom(seed);
    const air = seededRandom(seed + 1);
    const out = new Float32Array(frames);
    let at = Math.floor(rate * 0.2 * random());
    while (at < frames) {
      const syllables = 4 + Math.floor(random() * 9);
      for (let s = 0; s < syllables && at < frames; s++) {
        const length = Math.floor(rate * (0.11 + 0.14 * random()));
        const [f1, f2] = VOWELS[Math.floor(random() * VOWELS.length)]!;
        const low = formant(f1 * (0.95 + 0.1 * random()), 90, rate);
        const high = formant(f2, 130, rate);
        const sibilant = random() < 0.35;
        const pitch = pitchHz * (0.9 + 0.25 * random());
        const end = Math.min(length, frames - at);
        let phase = 0;
        let [l1, l2, h1, h2] = [0, 0, 0, 0];
        // The two formant filters are inlined in the loop: a minute of voice is three million samples.
        for (let i = 0; i < end; i++) {
          const envelope = SYLLABLE[Math.floor((SYLLABLE.length * i) / length)]!;
          phase += (pitch * (1 - (0.12 * i) / length)) / rate;
          const pulse = phase >= 1 ? 1 : 0;
          phase -= pulse;
          const l = low.gain * pulse + low.a1 * l1 + low.a2 * l2;
          l2 = l1;
          l1 = l;
          const h = high.gain * pulse + high.a1 * h1 + high.a2 * h2;
          h2 = h1;
          h1 = h;
          const breath = (air() + air() - 1) * (sibilant && i < length * 0.3 ? 0.15 : 0.01);
          out[at + i] = envelope * (5 * l + 4 * h) + breath;
        }
        at += length;
      }
      at += Math.floor(rate * (0.25 + 0.9 * random()));
    }
    return normalised(out, 0.25);
  };

/** Notes of a scale without halftones, Hz above the root. */
const SCALE = [1, 9 / 8, 5 / 4, 3 / 2, 5 / 3, 2];

/** What an old video game sounds like: square-wave runs, a bass, bursts of noise for what hits what. */
export const game: SourceMaker = (frames, rate, seed) => {
  const random = seededRandom(seed);
  const normal = seededNormal(seed + 1);
  const out = new Float32Array(frames);
  // Key and tempo are the seed's: two games share nothing to the sample.
  const root = 196 + 60 * random();
  const step = Math.floor(rate * (0.1 + 0.03 * random()));
  for (let at = 0; at < frames; at += step) {
    const hz = root * SCALE[Math.floor(random() * SCALE.length)]! * (random() < 0.3 ? 2 : 1);
    const hit = random() < 0.2;
    for (let i = 0; i < step && at + i < frames; i++) {
      const t = (at + i) / rate;
      const square = (t * hz) % 1 < 0.25 ? 1 : -1 / 3;
      const bass = ((t * root) / 4) % 1 < 0.5 ? 0.5 : -0.5;
      out[at + i] = square * Math.exp((-3 * i) / step) + bass * 0.6 + (hit ? normal() * Math.exp((-8 * i) / step) : 0);
    }
  }
  return normalised(out, 0.2);
};

/** A jingle: plucked notes that ring on, once every few seconds. */
export const jingle: SourceMaker = (frames, rate, seed) => {
  const random = seededRandom(seed);
  const out = new Float32Array(frames);
  for (let at = Math.floor(rate * 0.3); at < frames; at += Math.floor(rate * (random() < 0.2 ? 2.4 : 0.22))) {
    const hz = 440 * SCALE[Math.floor(random() * SCALE.length)]!;
    const length = Math.min(frames - at, rate);
    for (let i = 0; i < length; i++) {
      const t = i / rate;
      out[at + i]! += Math.exp(-5 * t) * (Math.sin(2 * Math.PI * hz * t) + 0.4 * Math.sin(4 * Math.PI * hz * t));
    }
  }
  return normalised(out, 0.2);
};

/** Claps at the instants given, in seconds, each a little different; silence between. */
export const clapsAt =
  (instantsS: readonly number[]): SourceMaker =>
  (frames, rate, seed) => {
    const normal = seededNormal(seed);
    const random = seededRandom(seed + 1);
    const out = new Float32Array(frames);
    for (const instant of instantsS) {
      const at = Math.round(instant * rate);
      const palm = resonator(900 + 900 * random(), 500, rate);
      const fingers = resonator(2600 + 1200 * random(), 1500, rate);
      const length = Math.min(Math.floor(rate * 0.05), frames - at);
      for (let i = 0; i < length; i++) {
        const burst = normal() * Math.exp(-i / (rate * 0.004));
        out[at + i]! += 3 * palm(burst) + 4 * fingers(burst) + 0.3 * burst;
      }
    }
    return normalised(out, 0.6);
  };

/** Mains hum with its odd harmonics. */
export const hum =
  (mainsHz: 50 | 60): SourceMaker =>
  (frames, rate) => {
    const out = new Float32Array(frames);
    for (const harmonic of [1, 2, 3, 5, 7]) {
      const w = (2 * Math.PI * mainsHz * harmonic) / rate;
      for (let i = 0; i < frames; i++) out[i]! += Math.sin(w * i + harmonic) / harmonic;
    }
    return normalised(out, 0.1);
  };

/** Steady noise, RMS 0.1. */
export const noise: SourceMaker = (frames, _rate, seed) => {
  const normal = seededNormal(seed);
  return Float32Array.from({ length: frames }, () => 0.1 * normal());
};

function normalised(x: Float32Array, peak: number): Float32Array {
  let most = 0;
  for (let i = 0; i < x.length; i++) most = Math.max(most, Math.abs(x[i]!));
  const k = most > 0 ? peak / most : 0;
  for (let i = 0; i < x.length; i++) x[i]! *= k;
  return x;
}
