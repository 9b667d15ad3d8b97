import type { Recording } from '#core/samples/index.ts';

/** The instant of a clap or a slate's clack. */
export interface Clap {
  readonly atMs: number;
  /** How far it stands out from the loudest of the rest, in dB; what makes it like a clap counts as more of them. */
  readonly strength: number;
}

/** Claps live above the voice's body: only what lies above this is looked at. */
const HIGH_PASS_HZ = 2000;
const HOP_MS = 0.5;
/** Hops over which a burst, what was before it, and what comes after it are averaged. */
const BURST = 4;
const BEFORE = 60;
const GAP = 3;
const AFTER_FROM = 100;
const AFTER_TO = 180;
/** Hops after the burst in which a clap is gone already; a sibilant or a vowel goes on. */
const DECAY_FROM = 24;
const DECAY_TO = 48;
/** Hops over which the burst's share above the voice's body is taken. */
const SHARE_HOPS = 12;
/** What does not rise by this much over what was before is no burst. */
const LEAST_RISE_DB = 10;
const MOST_RISE_DB = 34;
const MOST_FALL_DB = 25;
/**
 * How much each feature counts against a decibel of loudness over the rest of the take: a logistic fit to 768 claps in
 * synthesised speech, music and game sound, dry and in rooms, 3 dB below to 12 dB above the loudest peaks.
 */
const WEIGHT = { rise: 0.37, fall: 0.09, decay: 0.96, share: 0.46 };
/** Candidates nearer than this are one event; the strongest speaks. */
const APART_MS = 120;
/** The loudest part of a take that is not claps: this share of its time is quieter. */
const LOUD_SHARE = 0.98;
/** Strength from which it is called a clap; and how far below the strongest of the take one may lie. */
const LEAST_STRENGTH = 18;
const BELOW_STRONGEST = 24;
/** From here on a burst is a clap however many there are; below it, so many are believed, or one in so many seconds. */
const SURE_STRENGTH = 36;
const MOST_WEAK = 4;
const SECONDS_A_WEAK = 8;
/** The onset is where the burst's energy first reaches this share of its height. */
const ONSET_SHARE = 0.12;

/** Two second-order high passes in a row (Butterworth sections of the audio EQ cookbook), with their memory. */
function highPass(sampleRateHz: number): (x: Float32Array) => void {
  const w = (2 * Math.PI * Math.min(HIGH_PASS_HZ, sampleRateHz * 0.3)) / sampleRateHz;
  const alpha = Math.sin(w) / Math.SQRT2;
  const a0 = 1 + alpha;
  const b = (1 + Math.cos(w)) / 2 / a0;
  const a1 = (-2 * Math.cos(w)) / a0;
  const a2 = (1 - alpha) / a0;
  const memory = new Float64Array(8);
  return (x) => {
    for (let section = 0; section < 8; section += 4) {
      let [x1, x2, y1, y2] = [memory[section]!, memory[section + 1]!, memory[section + 2]!, memory[section + 3]!];
      for (let i = 0; i < x.length; i++) {
        const v = x[i]!;
        const y = b * (v - 2 * x1 + x2) - a1 * y1 - a2 * y2;
        x2 = x1;
        x1 = v;
        y2 = y1;
        y1 = y;
        x[i] = y;
      }
      memory.set([x1, x2, y1, y2], section);
    }
  };
}

const BLOCK_HOPS = 4096;

/** Mean power of the high band and of everything, hop by hop. */
interface Energy {
  readonly high: Float32Array;
  readonly all: Float32Array;
}

/** One streamed pass. */
async function energyOf(recording: Recording, hop: number, onProgress?: (done: number) => void): Promise<Energy> {
  const high = new Float32Array(Math.ceil(recording.frames / hop));
  const all = new Float32Array(high.length);
  const filter = highPass(recording.sampleRateHz);
  for (let first = 0; first < high.length; first += BLOCK_HOPS) {
    const hops = Math.min(BLOCK_HOPS, high.length - first);
    const x = await recording.readMono(first * hop, hops * hop);
    addPower(x, hop, all.subarray(first, first + hops));
    filter(x);
    addPower(x, hop, high.subarray(first, first + hops));
    onProgress?.((first + hops) / high.length);
  }
  return { high, all };
}

function addPower(x: Float32Array, hop: number, into: Float32Array): void {
  for (let h = 0, i = 0; h < into.length; h++) {
    let sum = 0;
    for (const end = i + hop; i < end; i++) sum += x[i]! * x[i]!;
    into[h] = sum / hop;
  }
}

/** Averages over any stretch by running sums: each costs one subtraction. */
function meanOver(energy: Float32Array): (from: number, to: number) => number {
  const sums = new Float64Array(energy.length + 1);
  for (let i = 0; i < energy.length; i++) sums[i + 1] = sums[i]! + energy[i]!;
  return (from, to) => {
    const a = Math.max(0, from);
    const b = Math.min(energy.length, to);
    return b > a ? (sums[b]! - sums[a]!) / (b - a) : 0;
  };
}

const db = (power: number): number => 10 * Math.log10(power);
/** Below -100 dBFS nothing is heard; it also keeps digital silence from making anything infinitely loud. */
const FLOOR = 1e-10;

/**
 * Claps and slate clacks: bursts above the voice's body that rise at once, stand out from the loudest of the rest, and
 * are gone within hundredths of a second. Speech's own bursts (p, t, k) rise as fast but run on into what follows; a
 * plucked note's attack is mostly low.
 * @returns in order of time; empty when there are none
 */
export async function findClaps(recording: Recording, onProgress?: (done: number) => void): Promise<Clap[]> {
  const hop = Math.max(1, Math.round((recording.sampleRateHz * HOP_MS) / 1000));
  const { high, all } = await energyOf(recording, hop, onProgress);
  const meanHigh = meanOver(high);
  const meanAll = meanOver(all);
  const fallDb = (burst: number, from: number, to: number) => db(burst) - db(Math.max(FLOOR, meanHigh(from, to)));
  const loud = Math.max(FLOOR, loudLevel(high));
  const candidates: { hop: number; strength: number }[] = [];
  for (let i = GAP + 1; i < high.length; i++) {
    const burst = meanHigh(i, i + BURST);
    if (burst < FLOOR * 10) continue;
    const before = Math.max(FLOOR, meanHigh(i - BEFORE, i - GAP));
    if (burst < before * 10 ** (LEAST_RISE_DB / 10)) continue;
    const strength =
      db(burst / loud) +
      WEIGHT.rise * Math.min(MOST_RISE_DB, db(burst / before)) +
      WEIGHT.fall * Math.min(MOST_FALL_DB, fallDb(burst, i + AFTER_FROM, i + AFTER_TO)) +
      WEIGHT.decay * fallDb(burst, i + DECAY_FROM, i + DECAY_TO) +
      WEIGHT.share * db(meanHigh(i, i + SHARE_HOPS) / Math.max(FLOOR, meanAll(i, i + SHARE_HOPS)));
    keepStrongest(candidates, { hop: i, strength }, Math.round(APART_MS / HOP_MS));
  }
  const strongest = Math.max(...candidates.map((c) => c.strength), Number.NEGATIVE_INFINITY);
  const likely = candidates.filter((c) => c.strength >= LEAST_STRENGTH && c.strength >= strongest - BELOW_STRONGEST);
  const claps: Clap[] = [];
  for (const c of withoutBangs(likely, recording.frames / recording.sampleRateHz)) {
    claps.push({ atMs: await onsetMs(recording, c.hop * hop), strength: c.strength });
  }
  return claps;
}

/** Nobody claps to be measured this often: weak bursts that keep coming are part of what goes on (a game, drums). */
function withoutBangs<T extends { strength: number }>(likely: readonly T[], seconds: number): readonly T[] {
  const weak = likely.filter((c) => c.strength < SURE_STRENGTH);
  return weak.length > Math.max(MOST_WEAK, seconds / SECONDS_A_WEAK) ? likely.filter((c) => !weak.includes(c)) : likely;
}

/** The level that all but the loudest 2 % of the take's sounding time stays under. */
function loudLevel(energy: Float32Array): number {
  const bursts = new Float32Array(Math.floor(energy.length / BURST));
  for (let b = 0; b < bursts.length; b++) {
    for (let i = 0; i < BURST; i++) bursts[b]! += energy[b * BURST + i]! / BURST;
  }
  bursts.sort();
  return bursts[Math.floor(bursts.length * LOUD_SHARE)] ?? 0;
}

function keepStrongest(
  list: { hop: number; strength: number }[],
  next: { hop: number; strength: number },
  apart: number,
): void {
  const last = list.at(-1);
  if (!last || next.hop - last.hop > apart) list.push(next);
  else if (next.strength > last.strength) list[list.length - 1] = next;
}

const ONSET_BEFORE_MS = 6;
const ONSET_AFTER_MS = 8;
const WARM_UP_MS = 10;
const MOST_GAP_MS = 0.75;

/** The instant at which the burst near a frame begins, to a part of a millisecond. */
async function onsetMs(recording: Recording, near: number): Promise<number> {
  const perMs = recording.sampleRateHz / 1000;
  const start = Math.round(near - (ONSET_BEFORE_MS + WARM_UP_MS) * perMs);
  const x = await recording.readMono(start, Math.round((ONSET_BEFORE_MS + WARM_UP_MS + ONSET_AFTER_MS) * perMs));
  highPass(recording.sampleRateHz)(x);
  const span = Math.max(1, Math.round(perMs * 0.25));
  const skip = Math.round(WARM_UP_MS * perMs);
  const smooth = new Float32Array(x.length);
  let sum = 0;
  for (let i = 0; i < x.length; i++) {
    sum += x[i]! * x[i]! - (i >= span ? x[i - span]! * x[i - span]! : 0);
    smooth[i] = sum;
  }
  let peak = skip;
  for (let i = skip; i < smooth.length; i++) if (smooth[i]! > smooth[peak]!) peak = i;
  // Back from the peak, over short gaps within the burst, so that what sounded before it is not taken for its start.
  let onset = peak;
  for (let i = peak; i >= skip && onset - i <= MOST_GAP_MS * perMs; i--) {
    if (smooth[i]! >= smooth[peak]! * ONSET_SHARE) onset = i;
  }
  return (start + Math.max(skip, onset - span / 2)) / perMs;
}
