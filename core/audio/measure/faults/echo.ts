import { say } from '#core/audio/measure/sayings.ts';
import { readWindow } from '#core/audio/measure/windows.ts';
import type { FftOf, Recording } from '#core/audio/samples/index.ts';
import { dbFromRatio } from '#core/model/units/index.ts';
import { type Fault, sideName } from './fault.ts';

const RATE_HZ = 16_000;
/** Windows of about four seconds: many times longer than the echo. */
const SIZES = [65_536, 32_768] as const;
const MAX_WINDOWS = 40;
/** Nearer ones color the sound and are no echo; later ones are not looked for. */
const LAG_S = [0.022, 0.6] as const;
/** From here on lags are read: what has a period shows at the half and the third of a lag as well. */
const FIRST_LAG = Math.floor((LAG_S[0] * RATE_HZ) / 3) - 4;
const BEGIN = Math.floor(LAG_S[0] * RATE_HZ) - FIRST_LAG;
/** Where voices and music are, and nothing of the AC power. */
const BAND_HZ = [200, 6000] as const;
/** Windows this far below the loudest are ignored. */
const QUIET_DB = 25;
/** Beginnings are looked for in steps of 10 ms, and held against what comes later over 80 ms. */
const STEP = 160;
const SEGMENT = 1280;
const MAX_BEGINNINGS = 30;
const MIN_BEGINNINGS = 6;
/** Fraction of the echo's size that the median window must show. */
const RETURNED = 0.75;
/** An echo repeats everything: the lower quartile reaches this fraction of the upper one. A replayed passage stops somewhere. */
const STAYS_AWAY = 0.3;
/** Prominence of a peak, in standard deviations of the other lags, and its minimum size. */
const SCATTERS = 7;
const LEAST = 0.055;
/** Fainter than 19 dB below the sound, an echo can't be told from chance. */
const MIN_RATIO = 0.11;
const FIX_DB = -16;
const MAX_PEAKS = 6;
/** Other peaks that are nearly as large: a rhythm or a steady note has many, an echo has few. */
const RIVAL = 0.6;
const MAX_RIVALS = 2;
/** At twice the lag a period has the same size again; an echo with feedback at most this. */
const AGAIN = 0.34;
const APART_S = 0.0012;
/** Fraction of the windows that must show it. */
const HELD = 0.7;

/**
 * The same sound again later: a peak of the cepstrum (Bogert, Healy and Tukey 1963) that stands at one lag all along.
 * An echo so many times as loud as the sound gives a peak of that size; notes and rhythms move about.
 */
export async function echoOf(fftOf: FftOf, track: Recording, channel: number, channels: number): Promise<Fault[]> {
  const seconds = track.frames / track.sampleRateHz;
  const size = SIZES.find((n) => n / RATE_HZ <= seconds);
  if (!size || track.sampleRateHz < RATE_HZ / 2) return [];
  const windowS = size / RATE_HZ;
  const count = Math.min(MAX_WINDOWS, Math.floor((seconds - windowS) / (windowS / 2)) + 1);
  const ranked: { power: number; cepstrum: Float32Array; x: Float32Array }[] = [];
  const toCepstrum = cepstrumOf(fftOf, size);
  for (let w = 0; w < count; w++) {
    const start = count === 1 ? 0 : ((seconds - windowS) * w) / (count - 1);
    const x = await readWindow(track, start, size, RATE_HZ);
    let power = 0;
    for (let i = 0; i < size; i++) power += x[i]! * x[i]!;
    if (power > 0) ranked.push({ power, cepstrum: toCepstrum(x), x });
  }
  const loudest = Math.max(0, ...ranked.map((r) => r.power));
  const heard = ranked.filter((r) => r.power >= loudest * 10 ** (-QUIET_DB / 10));
  if (heard.length === 0) return [];
  const share = (BAND_HZ[1] - BAND_HZ[0]) / (RATE_HZ / 2);
  const ratioOf = ({ lag, value }: Peak) => Math.min(1, value / share / overlapOf(lag / size));
  const peak = peaksOf(heard.map((r) => r.cepstrum)).find((p) => {
    const ratio = ratioOf(p);
    if (ratio <= MIN_RATIO) return false;
    const returned = Float32Array.from(heard.flatMap((r) => returnsAt(r.x, p.lag))).sort();
    const quartile = (n: number) => returned[Math.floor((n * returned.length) / 4)]!;
    return (
      returned.length >= MIN_BEGINNINGS &&
      medianOf(returned) > RETURNED * ratio &&
      quartile(1) > STAYS_AWAY * quartile(3)
    );
  });
  if (!peak) return [];
  const delayS = peak.lag / RATE_HZ;
  const levelDb = dbFromRatio(ratioOf(peak));
  return [
    {
      id: 'echo',
      severity: levelDb > FIX_DB ? 'fix' : 'watch',
      evidence:
        channels > 1
          ? say.echoOn({
              side: sideName(channel, channels),
              delayMs: (1000 * delayS).toFixed(0),
              quieterDb: Math.max(1, -levelDb).toFixed(0),
            })
          : say.echo({ delayMs: (1000 * delayS).toFixed(0), quieterDb: Math.max(1, -levelDb).toFixed(0) }),
      atS: [],
      delayMs: 1000 * delayS,
      channel: channels > 1 ? channel : null,
    },
  ];
}

/**
 * How loud the sound comes again after a lag, where it begins again: each beginning, made flat in color, against what
 * stands a lag later. Of notes that are played again some come back whole, and others not at all.
 */
function returnsAt(x: Float32Array, lag: number): number[] {
  return beginningsOf(x).flatMap((at) => {
    if (at + SEGMENT + lag + 4 > x.length) return [];
    let power = 0;
    for (let i = at; i < at + SEGMENT; i++) power += edge(x, i) ** 2;
    let best = Number.NEGATIVE_INFINITY;
    for (let by = lag - 2; by <= lag + 2; by++) {
      let sum = 0;
      for (let i = at; i < at + SEGMENT; i++) sum += edge(x, i) * edge(x, i + by);
      best = Math.max(best, sum / power);
    }
    return power > 0 ? [best] : [];
  });
}

/** Voices and music fall by some 6 dB an octave: a difference makes them even. */
const edge = (x: Float32Array, i: number): number => x[i]! - 0.95 * (i > 0 ? x[i - 1]! : 0);

/** Where it gets louder most, in samples. */
function beginningsOf(x: Float32Array): number[] {
  const steps = Math.floor(x.length / STEP);
  const power = new Float64Array(steps);
  for (let s = 0; s < steps; s++) {
    let sum = 0;
    for (let i = s * STEP; i < (s + 1) * STEP; i++) sum += x[i]! * x[i]!;
    power[s] = sum;
  }
  const mean = power.reduce((a, b) => a + b, 0) / steps;
  return Array.from({ length: steps - 1 }, (_, s) => ({ at: (s + 1) * STEP, from: power[s]!, to: power[s + 1]! }))
    .filter((r) => r.to > 2 * r.from && r.to > mean / 2)
    .sort((p, q) => q.to - q.from - p.to + p.from)
    .slice(0, MAX_BEGINNINGS)
    .map((r) => r.at);
}

/** How much of a Hann window meets itself when it is shifted by a part of its length. */
function overlapOf(part: number): number {
  const n = 256;
  const w = (t: number) => (t < 0 || t > 1 ? 0 : 0.5 - 0.5 * Math.cos(2 * Math.PI * t));
  let [both, own] = [0, 0];
  for (let i = 0; i < n; i++) {
    both += w(i / n) * w(i / n + part);
    own += w(i / n) ** 2;
  }
  return both / own;
}

/** Lags from the shortest to the longest echo of the spectrum's logarithm, within the band. */
function cepstrumOf(fftOf: FftOf, size: number): (x: Float32Array) => Float32Array {
  const fft = fftOf(size);
  const spectrum = new Float32Array(size);
  const windowed = new Float32Array(size);
  const binHz = RATE_HZ / size;
  const [low, high] = [Math.round(BAND_HZ[0] / binHz), Math.round(BAND_HZ[1] / binHz)];
  const smooth = Math.round(40 / binHz);
  const logs = new Float64Array(size / 2);
  const running = new Float64Array(size / 2 + 1);
  return (x) => {
    for (let i = 0; i < size; i++) windowed[i] = x[i]! * (0.5 - 0.5 * Math.cos((2 * Math.PI * i) / size));
    fft.forward(windowed, spectrum);
    let total = 0;
    for (let b = 1; b < size / 2; b++) {
      logs[b] = spectrum[2 * b]! ** 2 + spectrum[2 * b + 1]! ** 2;
      if (b >= low && b < high) total += logs[b]!;
    }
    // Far under the rest is the floor, which has no echo.
    const least = (1e-7 * total) / (high - low) + 1e-30;
    for (let b = 1; b < size / 2; b++) logs[b] = Math.log(logs[b]! + least);
    for (let b = 0; b < size / 2; b++) running[b + 1] = running[b]! + logs[b]!;
    spectrum.fill(0);
    for (let b = low; b < high; b++) {
      // Against its surroundings: the color of the sound is nothing of the echo.
      const [from, to] = [Math.max(1, b - smooth), Math.min(size / 2, b + smooth + 1)];
      spectrum[2 * b] = logs[b]! - (running[to]! - running[from]!) / (to - from);
    }
    fft.inverse(spectrum, windowed);
    return windowed.slice(FIRST_LAG, Math.ceil(LAG_S[1] * RATE_HZ));
  };
}

interface Peak {
  readonly lag: number;
  readonly value: number;
}

/** Lags at which the same sound may come again, the strongest first. */
function peaksOf(heard: readonly Float32Array[]): Peak[] {
  const length = heard[0]!.length;
  const middle = new Float32Array(length);
  const column = new Float32Array(heard.length);
  for (let i = 0; i < length; i++) {
    for (let w = 0; w < heard.length; w++) column[w] = heard[w]![i]!;
    middle[i] = medianOf(column);
  }
  const scatter = 1.4826 * medianOf(middle.map(Math.abs));
  const peaks: Peak[] = [];
  const apart = Math.round(APART_S * RATE_HZ);
  for (let i = BEGIN; i < length; i++) {
    const value = middle[i]!;
    if (value < Math.max(LEAST, SCATTERS * scatter)) continue;
    const before = peaks.at(-1);
    const known = before && i + FIRST_LAG - before.lag <= apart;
    if (known && before.value >= value) continue;
    if (known) peaks.pop();
    peaks.push({ lag: i + FIRST_LAG, value });
  }
  return peaks
    .sort((p, q) => q.value - p.value)
    .slice(0, MAX_PEAKS)
    .filter((peak) => {
      const held = heard.filter((c) => c[peak.lag - FIRST_LAG]! > 0.4 * peak.value).length;
      return held >= HELD * heard.length && !isPeriod(middle, peaks, peak);
    });
}

/** A note or a rhythm has many lags nearly as strong, or one at twice the lag or a fraction of it. */
function isPeriod(middle: Float32Array, peaks: readonly Peak[], { lag, value }: Peak): boolean {
  const near = (at: number) => {
    const i = Math.round(at) - FIRST_LAG;
    return i + 4 > middle.length ? 0 : Math.max(...middle.subarray(Math.max(0, i - 3), i + 4));
  };
  const isOwn = (other: number) => Math.abs(other / lag - Math.round(other / lag)) * lag <= APART_S * RATE_HZ;
  const rivals = peaks.filter((p) => p.value > RIVAL * value && !isOwn(p.lag)).length;
  const parts = Math.max(near(lag / 2), near(lag / 3));
  return rivals > MAX_RIVALS || near(2 * lag) > AGAIN * value || parts > RIVAL * value;
}

function medianOf(x: Float32Array): number {
  const sorted = x.slice().sort();
  const half = sorted.length >> 1;
  return sorted.length % 2 === 1 ? sorted[half]! : (sorted[half - 1]! + sorted[half]!) / 2;
}
