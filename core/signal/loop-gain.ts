import { dbFromPower, dbFromRatio } from '#core/model/units/index.ts';

/** One link of a looping component, between its nodes counted from 0. */
export interface LoopLink {
  readonly from: number;
  readonly to: number;
  /** Ratio of amplitudes, below 0 where it turns the signal upside down. */
  readonly gain: number;
  readonly delayMs: number;
  readonly lowHz: number;
  readonly highHz: number;
}

/** How much louder a signal is after each turn; -Infinity where nothing comes round. */
export interface LoopGain {
  /** Everything that comes round in step: the worst that a frequency can meet. */
  readonly gainDb: number;
  /** Everything that comes round added by power: what a broad band meets. */
  readonly powerDb: number;
  /** The band with the highest gain. */
  readonly lowHz: number;
  readonly highHz: number;
}

/** What comes along at one instant: ratio of amplitudes, signed. */
interface Term {
  gain: number;
  readonly delayMs: number;
}

/** Copies nearer than this are in step at every frequency: they add, or cancel. */
const IN_STEP_MS = 0.02;
/** Maximum number of different delays; beyond it the quietest are assumed to be in phase with the worst. */
const MAX_TERMS = 48;
/** In components with more nodes than this, delays are ignored (everything is assumed to be in phase). */
const MAX_WOVEN = 40;

/**
 * The loop gain of a strongly connected component: the spectral radius of its return matrix, in the band where it is
 * largest. Nodes that need not be cut are eliminated (Schur complement), so that what is left, a feedback vertex set, is
 * met once a turn; it howls where the radius is 1 (Perron and Frobenius), whatever set was left.
 * @param nodes  how many there are
 */
export function loopGain(nodes: number, links: readonly LoopLink[]): LoopGain {
  let best: LoopGain = { gainDb: Number.NEGATIVE_INFINITY, powerDb: Number.NEGATIVE_INFINITY, lowHz: 0, highHz: 0 };
  for (const band of bandsOf(links)) {
    const { amplitude, power } = returnsOf(nodes, band.links);
    const gainDb = dbFromRatio(spectralRadius(amplitude));
    if (gainDb > best.gainDb)
      best = { gainDb, powerDb: dbFromPower(spectralRadius(power)), lowHz: band.lowHz, highHz: band.highHz };
  }
  return best;
}

interface BandLinks {
  readonly lowHz: number;
  readonly highHz: number;
  readonly links: readonly LoopLink[];
}

/** The bands between all corners, each with the links that pass it; what passes the same links is one. */
function bandsOf(links: readonly LoopLink[]): BandLinks[] {
  const corners = [...new Set([0, Number.POSITIVE_INFINITY, ...links.flatMap((l) => [l.lowHz, l.highHz])])].sort(
    (a, b) => a - b,
  );
  const bands: BandLinks[] = [];
  for (let i = 1; i < corners.length; i++) {
    const [lowHz, highHz] = [corners[i - 1]!, corners[i]!];
    const passing = links.filter((l) => l.lowHz <= lowHz && l.highHz >= highHz);
    const before = bands.at(-1);
    if (before?.links.length === passing.length && passing.every((l, k) => l === before.links[k]))
      bands[bands.length - 1] = { ...before, highHz };
    else bands.push({ lowHz, highHz, links: passing });
  }
  return bands.filter((b) => b.links.length > 0);
}

type Matrix = readonly (readonly number[])[];

/** Gain from each node to each remaining one: worst case in phase, and by power. */
function returnsOf(nodes: number, links: readonly LoopLink[]): { amplitude: Matrix; power: Matrix } {
  const out: Map<number, Term[]>[] = Array.from({ length: nodes }, () => new Map());
  const into: Set<number>[] = Array.from({ length: nodes }, () => new Set());
  const join = (from: number, to: number, terms: readonly Term[], inStep: boolean) => {
    const known = out[from]!.get(to);
    if (known) addTerms(known, terms, inStep);
    else {
      const list: Term[] = [];
      addTerms(list, terms, inStep);
      out[from]!.set(to, list);
      into[to]!.add(from);
    }
  };
  for (const { from, to, gain, delayMs } of links) if (gain !== 0) join(from, to, [{ gain, delayMs }], false);
  const left = new Set(Array.from({ length: nodes }, (_, n) => n));
  const cut = new Set<number>();
  for (let node = easiest(left, cut, into, out); node >= 0; node = easiest(left, cut, into, out)) {
    if (out[node]!.has(node)) {
      cut.add(node);
      continue;
    }
    // In a thicket only sizes count: the worst case, as if all were in step.
    const inStep = left.size > MAX_WOVEN && into[node]!.size > 1 && out[node]!.size > 1;
    for (const from of into[node]!)
      for (const [to, after] of out[node]!) join(from, to, multiply(out[from]!.get(node)!, after), inStep);
    for (const from of into[node]!) out[from]!.delete(node);
    for (const to of out[node]!.keys()) into[to]!.delete(node);
    left.delete(node);
  }
  const rest = [...left];
  const matrix = (of: (terms: readonly Term[]) => number): Matrix =>
    rest.map((from) => rest.map((to) => of(out[from]!.get(to) ?? [])));
  return {
    amplitude: matrix((terms) => terms.reduce((sum, t) => sum + Math.abs(t.gain), 0)),
    power: matrix((terms) => terms.reduce((sum, t) => sum + t.gain ** 2, 0)),
  };
}

/** The node whose elimination adds fewest edges (Markowitz 1957); nodes with a self-loop stay. -1 for none. */
function easiest(
  left: ReadonlySet<number>,
  cut: ReadonlySet<number>,
  into: readonly ReadonlySet<number>[],
  out: readonly ReadonlyMap<number, unknown>[],
): number {
  let [best, cost] = [-1, Number.POSITIVE_INFINITY];
  for (const node of left) {
    if (cut.has(node)) continue;
    const adds = (into[node]!.size - 1) * (out[node]!.size - 1);
    if (adds < cost) [best, cost] = [node, adds];
    if (cost <= 0) break;
  }
  return best;
}

const multiply = (a: readonly Term[], b: readonly Term[]): Term[] =>
  a.flatMap((s) => b.map((t) => ({ gain: s.gain * t.gain, delayMs: s.delayMs + t.delayMs })));

function addTerms(list: Term[], terms: readonly Term[], inStep: boolean): void {
  for (const term of terms) {
    const known = list.find((t) => inStep || Math.abs(t.delayMs - term.delayMs) < IN_STEP_MS);
    if (known && inStep) known.gain = Math.abs(known.gain) + Math.abs(term.gain);
    else if (known) known.gain += term.gain;
    else if (list.length < MAX_TERMS) list.push({ ...term });
    else {
      const faintest = list.reduce((a, b) => (Math.abs(b.gain) < Math.abs(a.gain) ? b : a));
      faintest.gain = Math.abs(faintest.gain) + Math.abs(term.gain);
    }
  }
}

const MAX_STEPS = 2000;
const CLOSE = 1e-5;

/** The largest eigenvalue of a matrix without negative entries: power iteration on it and the identity, which has no other of its size. */
function spectralRadius(matrix: Matrix): number {
  const n = matrix.length;
  if (n === 1) return matrix[0]![0]!;
  let vector = new Float64Array(n).fill(1);
  let radius = 0;
  for (let step = 0; step < MAX_STEPS; step++) {
    const next = new Float64Array(n);
    let [low, high, top] = [Number.POSITIVE_INFINITY, 0, 0];
    for (let i = 0; i < n; i++) {
      let sum = vector[i]!;
      for (let j = 0; j < n; j++) sum += matrix[i]![j]! * vector[j]!;
      next[i] = sum;
      top = Math.max(top, sum);
      // Collatz-Wielandt bounds: the spectral radius is between the smallest and the largest growth.
      if (vector[i]! > 0) [low, high] = [Math.min(low, sum / vector[i]!), Math.max(high, sum / vector[i]!)];
    }
    radius = high - 1;
    if (high - low < CLOSE * Math.max(radius, CLOSE)) break;
    for (let i = 0; i < n; i++) next[i]! /= top;
    vector = next;
  }
  return radius;
}
