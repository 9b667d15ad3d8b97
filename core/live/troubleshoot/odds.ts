import { answerOf } from './faults/index.ts';
import { keys, type Readings, usualAnswer } from './readings.ts';
import type { Lineup, Suspect } from './suspects.ts';

/** A report or an observation: the answers that would fit it, several where a word covers several. */
export interface Told {
  readonly key: string;
  readonly answers: readonly string[];
  /** It is what one complains of: no one imagines that. */
  readonly complained?: boolean;
}

/** A suspect with its share of the odds, 0 to 1. `drawn`: the rig does so as it is drawn; `other`: nothing of all that. */
export type Odds = { readonly share: number } & (
  | { readonly kind: 'fault'; readonly suspect: Suspect }
  | { readonly kind: 'drawn' }
  | { readonly kind: 'other' }
);

/** An answer that the model does not expect is given so often all the same: people mishear, and models err (typical). */
const AMISS = 0.04;
/** Looks at the thing itself err less. */
const AMISS_DIRECT = 0.01;
/** Kinds of answers that something unknown could give as well as any: it is as likely to give each of them. */
const UNKNOWN_ANSWERS = 3;
/** Against the weights of the faults: that the drawing itself is wrong, and that it is nothing that the model knows. */
const DRAWN_WEIGHT = 25;
const OTHER_WEIGHT = 4;
/** Prior weight factor for each time it was the cause at this desk before. */
const AGAIN_TIMES = 3;

/** What someone complains of is there. */
const AMISS_COMPLAINT = 0.002;

const amissOf = (key: string): number => (key.startsWith('look|') ? AMISS_DIRECT : AMISS);

const expected = (changes: Readings | null, drawn: Readings, key: string): readonly string[] =>
  changes?.get(key) ?? drawn.get(key) ?? [usualAnswer(key)];

/** Likelihood of the report, given the answers that are expected. */
function likelihood(expects: readonly string[], { key, answers, complained }: Told): number {
  const fits = expects.filter((a) => answers.includes(a)).length / expects.length;
  const amiss = complained ? AMISS_COMPLAINT : amissOf(key);
  return fits * (1 - amiss) + (1 - fits) * amiss;
}

/** The same for what is unknown: any answer as well as another; but a look that finds something has found it. */
function likelihoodUnknown({ key, answers }: Told): number {
  if (key.startsWith('look|')) return answers.includes(usualAnswer(key)) ? 1 : AMISS_DIRECT;
  return Math.min(1, answers.length / UNKNOWN_ANSWERS);
}

/**
 * Suspects by posterior odds, most likely first: prior weights times likelihoods (Bayes).
 * @param before how often each fault, by its id, was what it was at this desk
 */
export function oddsOf(
  { drawn, suspects }: Lineup,
  told: readonly Told[],
  before: ReadonlyMap<string, number> = new Map(),
): Odds[] {
  const complaints = told.filter((t) => t.complained);
  const looked = told.filter((t) => !t.complained);
  /** In logarithms: many answers that do not fit would be nought otherwise. */
  const evidence = (changes: Readings | null): number => {
    // A complaint that the rig has as drawn speaks for the drawing, not for a fault that leaves it as it is.
    const beside = changes !== null && complaints.length > 0 && !complaints.some((t) => changes.has(t.key));
    return (beside ? looked : told).reduce(
      (sum, t) => sum + Math.log(likelihood(expected(changes, drawn, t.key), t)),
      beside ? Math.log(AMISS_COMPLAINT) : 0,
    );
  };
  const unknown = told.reduce((sum, t) => sum + Math.log(likelihoodUnknown(t)), 0);
  const weightOf = ({ fault }: Suspect) => fault.weight * (1 + AGAIN_TIMES * (before.get(fault.id) ?? 0));
  const all: (Odds & { share: number })[] = [
    { kind: 'drawn', share: Math.log(DRAWN_WEIGHT) + evidence(null) },
    { kind: 'other', share: Math.log(OTHER_WEIGHT) + unknown },
    ...suspects.map((suspect) => ({
      kind: 'fault' as const,
      suspect,
      share: Math.log(weightOf(suspect)) + evidence(suspect.changes),
    })),
  ];
  const most = all.reduce((best, o) => Math.max(best, o.share), Number.NEGATIVE_INFINITY);
  const sum = all.reduce((total, o) => total + Math.exp(o.share - most), 0);
  return all.map((o) => ({ ...o, share: Math.exp(o.share - most) / sum })).sort((a, b) => b.share - a.share);
}

/** A possible check: what it is about, its expected information, and what each answer would leave. */
export interface Look {
  readonly key: string;
  readonly seconds: number;
  /** Expected information, bits. */
  readonly bits: number;
  readonly answers: readonly LookAnswer[];
}
interface LookAnswer {
  readonly answer: string;
  /** How likely it is, 0 to 1. */
  readonly share: number;
}

/** Getting up, and coming back to the screen. */
const WALK_S = 20;
/** Suspects with less than this are not looked for. */
const MIN_SHARE = 0.002;
const MIN_BITS = 0.02;

/**
 * Checks that tell the suspects apart, best first: expected information (Shannon) per second.
 * @param secondsOf how long a look takes; null for what no one can look at
 */
export function looksOf(
  { drawn }: Lineup,
  odds: readonly Odds[],
  told: readonly Told[],
  secondsOf: (key: string) => number | null,
): Look[] {
  const live = odds.filter((o) => o.share >= MIN_SHARE && o.kind !== 'other');
  const done = new Set(told.map((t) => t.key));
  const open = new Set(
    live.flatMap((o) => (o.kind === 'fault' ? [...o.suspect.changes.keys()] : [])).filter((key) => !done.has(key)),
  );
  const looks: Look[] = [];
  for (const key of open) {
    const seconds = secondsOf(key);
    if (seconds === null) continue;
    const shares = new Map<string, number>();
    const unsure: { share: number; ways: number }[] = [];
    for (const o of live) {
      const expects = expected(o.kind === 'fault' ? o.suspect.changes : null, drawn, key);
      unsure.push({ share: o.share, ways: expects.length });
      for (const answer of expects) shares.set(answer, (shares.get(answer) ?? 0) + o.share / expects.length);
    }
    const bits = informationOf([...shares.values()], unsure, amissOf(key));
    if (bits < MIN_BITS) continue;
    const answers = [...shares].map(([answer, share]) => ({ answer, share })).sort((a, b) => b.share - a.share);
    looks.push({ key, seconds, bits, answers });
  }
  return looks.sort((a, b) => b.bits / (b.seconds + WALK_S) - a.bits / (a.seconds + WALK_S));
}

/**
 * Mutual information of the answer and the suspects, bits: the entropy of the answer less what is left of it once one
 * knows the suspect. An answer that a suspect leaves open, and a wrong one, carry no information.
 */
function informationOf(
  shares: readonly number[],
  suspects: readonly { readonly share: number; readonly ways: number }[],
  amiss: number,
): number {
  const sum = shares.reduce((a, b) => a + b, 0);
  const kinds = shares.length;
  if (kinds < 2) return 0;
  // Amiss is taken to fall on each of the answers alike.
  const before = entropy(shares.map((s) => (1 - amiss) * (s / sum) + amiss / kinds));
  const after = suspects.reduce((total, { share, ways }) => {
    const own = Array.from({ length: kinds }, (_, i) => (i < ways ? (1 - amiss) / ways : 0) + amiss / kinds);
    return total + (share / sum) * entropy(own);
  }, 0);
  return before - after;
}

const entropy = (shares: readonly number[]): number =>
  shares.reduce((bits, p) => (p > 0 ? bits - p * Math.log2(p) : bits), 0);

/** Posterior probability from which on a suspect is named as the cause. */
const SURE = 0.85;

/**
 * What it most likely is, once it stands far enough before all others that the model knows; null while a look is worth
 * more, or where nothing that the model knows is likely.
 */
export function culprit(odds: readonly Odds[]): Odds | null {
  const first = odds.find((o) => o.kind !== 'other');
  const other = odds.find((o) => o.kind === 'other')?.share ?? 0;
  return first && first.share >= SURE * (1 - other) && first.share > other ? first : null;
}

/** Whether the thing itself was looked at and found so. */
export const isSeen = (suspect: Suspect, told: readonly Told[]): boolean =>
  suspect.fault.looks.some((look) =>
    told.some((t) => t.key === keys.look(look.id) && t.answers.includes(answerOf(suspect.fault))),
  );
