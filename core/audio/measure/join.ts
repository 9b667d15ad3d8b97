import { type FftOf, fftSize, type Recording } from '#core/audio/samples/index.ts';
import { crossInto } from './correlate.ts';
import { type Offset, offsetNear } from './offset.ts';
import { HOP_S, RISE_BANDS, type Rises, risesOf } from './rises.ts';
import type { Candidate } from './search.ts';
import type { Stretch } from './stretches.ts';

/** A take placed on the timeline that it shares with others. */
export interface JoinedTake {
  /** Which of the recordings that were given. */
  readonly index: number;
  /** Where it begins, ms, against the beginning of the first take of its group, on that one's clock. */
  readonly startMs: number;
  /** How much longer it runs than the first of its group, ppm; null where unknown. */
  readonly longerPpm: number | null;
  /** The take that it was held against, and how sure it is that both hold the same sound. */
  readonly against: number | null;
  readonly confidence: number;
}

/** Takes that hold the same sound, directly or by way of others, the earliest first. */
export interface Joined {
  readonly takes: readonly JoinedTake[];
  /** Largest contradiction by pairs that were not needed to place the takes, ms; 0 for none. */
  readonly contradictsMs: number;
}

/** Takes overlap by this much at least, to be worth holding against each other. */
const MIN_OVERLAP_S = 4;
/** Prominence from which a lag is considered, and the number of lags considered. */
const MIN_Z = 6;
const TRIED = 2;
const SAME_SOUND = 0.5;
const CHECKS = 2;

/**
 * Lays takes of several recorders, in any order, on timelines by what they hold: every pair is held against each other
 * coarsely, by the rises of their loudness; what stands out is followed finely; and pairs that agree are joined, the
 * surest first. Takes that hold nothing in common with any other stay alone.
 * @returns groups, the largest first; each take is in one
 */
export async function joinTakes(
  fftOf: FftOf,
  recordings: readonly Recording[],
  onProgress?: (done: number) => void,
): Promise<Joined[]> {
  const features: Rises[] = [];
  for (const [i, recording] of recordings.entries()) {
    features.push(await risesOf(fftOf, recording));
    onProgress?.((0.4 * (i + 1)) / recordings.length);
  }
  const pairs = likelyPairs(fftOf, features);
  const edges: Edge[] = [];
  const groups = recordings.map((_, i) => i);
  const groupOf = (i: number): number => (groups[i] === i ? i : groupOf(groups[i]!));
  let held = 0;
  // The likeliest first: a pair whose takes are placed already only has to be confirmed.
  for (const { a, b, candidates } of pairs) {
    onProgress?.(0.4 + (0.6 * held++) / pairs.length);
    // Pairs placed by others are compared to check those, but only a limited number of them.
    if (groupOf(a) === groupOf(b) && edges.length > CHECKS * recordings.length) continue;
    const offset = await offsetNear(fftOf, recordings[a]!, recordings[b]!, candidates);
    if (offset.confidence < SAME_SOUND) continue;
    edges.push({ a, b, offset });
    groups[groupOf(a)] = groupOf(b);
  }
  onProgress?.(1);
  return laid(recordings, edges);
}

interface Edge {
  readonly a: number;
  readonly b: number;
  /** Of b against a. */
  readonly offset: Offset;
}

interface Pair {
  readonly a: number;
  readonly b: number;
  readonly candidates: readonly Candidate[];
}

/** Pairs with a prominent lag, the most prominent first. */
function likelyPairs(fftOf: FftOf, features: readonly Rises[]): Pair[] {
  const size = fftSize(2 * Math.max(...features.map((f) => f.hops), 1));
  const fft = fftOf(size);
  const padded = new Float32Array(size);
  const spectra = features.map(({ bands }) =>
    bands.map((band) => {
      padded.fill(0);
      padded.set(band);
      const spectrum = new Float32Array(size);
      fft.forward(padded, spectrum);
      return spectrum;
    }),
  );
  const energies = features.map(({ bands, hops }) => runningEnergy(bands, hops));
  const work = new Float32Array(size);
  const sum = new Float32Array(size);
  const out: Pair[] = [];
  for (let a = 0; a < features.length; a++)
    for (let b = a + 1; b < features.length; b++) {
      sum.fill(0);
      for (let band = 0; band < RISE_BANDS; band++) {
        work.set(spectra[b]![band]!);
        crossInto(spectra[a]![band]!, work);
        for (let i = 0; i < size; i++) sum[i]! += work[i]!;
      }
      fft.inverse(sum, work);
      const candidates = standingOut(work, size, features[a]!, features[b]!, energies[a]!, energies[b]!);
      if (candidates.length > 0) out.push({ a, b, candidates });
    }
  return out.sort((p, q) => q.candidates[0]!.score - p.candidates[0]!.score);
}

function runningEnergy(bands: readonly Float32Array[], hops: number): Float64Array {
  const sums = new Float64Array(hops + 1);
  for (let i = 0; i < hops; i++) {
    let power = 0;
    for (const band of bands) power += band[i]! ** 2;
    sums[i + 1] = sums[i]! + power;
  }
  return sums;
}

/** Lags at which the two agree by more than chance, each by what overlaps there. */
function standingOut(
  correlation: Float32Array,
  size: number,
  a: Rises,
  b: Rises,
  energyA: Float64Array,
  energyB: Float64Array,
): Candidate[] {
  const least = MIN_OVERLAP_S / HOP_S;
  const likeness = new Float32Array(a.hops + b.hops);
  let [square, count] = [0, 0];
  for (let lag = -a.hops + 1; lag < b.hops; lag++) {
    // Overlap of the two where `b` holds `a` this many hops later.
    const from = Math.max(0, -lag);
    const to = Math.min(a.hops, b.hops - lag);
    if (to - from < least) continue;
    const norm = Math.sqrt((energyA[to]! - energyA[from]!) * (energyB[to + lag]! - energyB[from + lag]!));
    // In units of what chance does over such an overlap.
    const z = norm > 0 ? (correlation[(lag + size) % size]! / norm) * Math.sqrt(to - from) : 0;
    likeness[lag + a.hops] = z;
    square += z * z;
    count++;
  }
  const usual = Math.sqrt(square / Math.max(1, count));
  const found: { lag: number; z: number }[] = [];
  for (let i = 1; i < likeness.length - 1; i++) {
    const z = likeness[i]! / usual;
    if (z < MIN_Z || z < likeness[i - 1]! / usual || z < likeness[i + 1]! / usual) continue;
    found.push({ lag: i - a.hops, z });
  }
  return found
    .sort((p, q) => q.z - p.z)
    .filter((p, i, all) => all.slice(0, i).every((q) => Math.abs(q.lag - p.lag) > 4))
    .slice(0, TRIED)
    .map(({ lag, z }) => {
      const from = Math.max(0, -lag);
      const to = Math.min(a.hops, b.hops - lag);
      return { atS: ((from + to) / 2) * HOP_S, lagS: lag * HOP_S, score: z };
    });
}

/** Connected groups of takes, placed by the surest pairs (minimum spanning tree, Prim 1957). */
function laid(recordings: readonly Recording[], edges: readonly Edge[]): Joined[] {
  const left = new Set(recordings.keys());
  const groups: Joined[] = [];
  while (left.size > 0) {
    const root = [...left][0]!;
    left.delete(root);
    const placed = new Map<number, JoinedTake>([
      [root, { index: root, startMs: 0, longerPpm: 0, against: null, confidence: 1 }],
    ]);
    for (;;) {
      const next = edges
        .filter((e) => placed.has(e.a) !== placed.has(e.b))
        .reduce<Edge | null>((best, e) => (best && weightOf(best) >= weightOf(e) ? best : e), null);
      if (!next) break;
      const take = place(next, placed);
      placed.set(take.index, take);
      left.delete(take.index);
    }
    groups.push(fromEarliest([...placed.values()], edges));
  }
  return groups.sort((p, q) => q.takes.length - p.takes.length);
}

const weightOf = ({ offset }: Edge): number => offset.confidence + 1 / (1 + offset.spreadMs);

/** Milliseconds of a take's clock in one of the clock that it is held against. */
const paceOf = (longerPpm: number | null): number => 1 + (longerPpm ?? 0) * 1e-6;

/** Offset of a take from the first of its group, for its whole length. */
export function stretchOfJoined({ startMs, longerPpm }: JoinedTake): Stretch {
  // `startMs` is in the first one's clock, an offset in the take's own.
  return { fromMs: 0, offsetMs: -startMs * paceOf(longerPpm), longerPpm: longerPpm ?? 0 };
}

/** Where the other take of a pair begins, from the one that is placed already. */
function place({ a, b, offset }: Edge, placed: ReadonlyMap<number, JoinedTake>): JoinedTake {
  const forward = placed.has(a);
  const known = placed.get(forward ? a : b)!;
  const paceOfB = paceOf(offset.driftPpm);
  // What is at 0 in a is at `offset` in b, by b's clock; what is at 0 in b is at this, by a's.
  const startMs = known.startMs + (forward ? -offset.offsetMs / paceOfB : offset.offsetMs) / paceOf(known.longerPpm);
  const pace = paceOf(known.longerPpm) * (forward ? paceOfB : 1 / paceOfB);
  return {
    index: forward ? b : a,
    startMs,
    longerPpm: offset.driftPpm === null || known.longerPpm === null ? null : (pace - 1) * 1e6,
    against: known.index,
    confidence: offset.confidence,
  };
}

function fromEarliest(takes: readonly JoinedTake[], edges: readonly Edge[]): Joined {
  const at = new Map(takes.map((t) => [t.index, t]));
  const inside = edges.filter((e) => at.has(e.a) && at.has(e.b));
  const contradictsMs = Math.max(
    0,
    ...inside.map(({ a, b, offset }) => {
      const [first, second] = [at.get(a)!, at.get(b)!];
      return Math.abs((first.startMs - second.startMs) * paceOf(second.longerPpm) - offset.offsetMs);
    }),
  );
  const sorted = [...takes].sort((p, q) => p.startMs - q.startMs);
  const first = sorted[0]!;
  return {
    takes: sorted.map((t) => ({
      ...t,
      startMs: (t.startMs - first.startMs) * paceOf(first.longerPpm),
      longerPpm:
        t.longerPpm === null || first.longerPpm === null
          ? null
          : (paceOf(t.longerPpm) / paceOf(first.longerPpm) - 1) * 1e6,
    })),
    contradictsMs,
  };
}
