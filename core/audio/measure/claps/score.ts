import type { Burst } from './bursts.ts';
import { CLAP_KINDS, type ClapKind } from './clap.ts';

/** A burst with how it stands among the others of its neighborhood. */
interface Seen extends Burst {
  /** Level relative to all but the strongest of the other bursts, dB. */
  readonly overOthers: number;
  /** How far the ninth likest of them is from being like it: low for a drum or a key that comes again and again. */
  readonly unlike: number;
  /** The lowest band and one of the highest, against its mean, dB. */
  readonly lowest: number;
  readonly airy: number;
}

/** How likely a burst is a clap, as log odds, and what it is likest. */
export interface Scored {
  readonly burst: Burst;
  readonly logOdds: number;
  readonly kind: ClapKind;
}

interface Weighed {
  /** Beyond these a figure says no more. */
  readonly from: number;
  readonly to: number;
  /** By kind, in their order. */
  readonly weights: readonly number[];
}

/**
 * Four logistic fits, one a kind, to recorded hands, snaps, sticks and blocks and to made slates and clicks, dry and in
 * rooms, 5 dB under to 5 dB over the loudest peaks of speech, music and games that other programs made. The bench shows
 * what they do on the other half of that material (docs/measuring.md).
 */
const PROFILES: Readonly<
  Record<keyof Omit<Seen, 'hop' | 'atS' | 'shape' | 'netDb' | 'fallSoon' | 'fallMid'>, Weighed>
> = {
  prominence: { from: -12, to: 20, weights: [0.175, 0.214, 0.163, 0.224] },
  jump: { from: 0, to: 30, weights: [0.022, 0.112, 0.038, 0.022] },
  overMean: { from: 0, to: 35, weights: [-0.053, -0.057, -0.03, -0.05] },
  fallLate: { from: -5, to: 35, weights: [-0.027, -0.044, -0.017, -0.019] },
  lowStays: { from: -15, to: 25, weights: [-0.07, -0.011, -0.02, -0.025] },
  lowRise: { from: -10, to: 30, weights: [0.096, 0.026, 0.073, 0.039] },
  share: { from: -20, to: 0, weights: [0.179, 0.128, 0.159, 0.115] },
  tilt: { from: -30, to: 0, weights: [0.146, 0.217, -0.017, 0.271] },
  onset: { from: -15, to: 10, weights: [-0.075, -0.199, -0.307, -0.2] },
  fall: { from: -5, to: 20, weights: [0.161, 0.037, 0.029, 0.193] },
  rise: { from: 0, to: 20, weights: [0.102, 0.091, 0.045, 0.091] },
  stays: { from: -5, to: 20, weights: [0.09, 0.073, 0.107, 0.022] },
  staysLow: { from: -5, to: 20, weights: [-0.04, -0.078, -0.085, -0.009] },
  overOthers: { from: -30, to: 20, weights: [0.139, 0.144, 0.188, 0.038] },
  unlike: { from: 0, to: 20, weights: [0.27, 0.269, 0.111, 0.129] },
  lowest: { from: -20, to: 20, weights: [-0.046, -0.071, -0.059, -0.006] },
  airy: { from: -20, to: 20, weights: [-0.132, -0.069, 0.008, -0.032] },
};
const CONSTANTS = [-7.91, -9.18, -9.272, -7.845];
/** The second look: its own score, the likest sure one, a row of such, and how far it leads the fifth strongest around. */
const SECOND = { own: 0.98, company: 0.166, row: 0.281, lead: 0.173, constant: 2.168 } as const;

/** Others that far away are its neighbors; nearer ones are the same event. */
const NEIGHBOURS_S = { first: 10, second: 12 } as const;
const OWN_S = { first: 0.2, second: 0.25 } as const;
/** The strongest bursts nearby that may be claps themselves, and are left out of the comparison. */
const MAY_BE_CLAPS = 4;
const USUAL_SHARE = 0.98;
const LIKEST = 8;
const NOBODY_DB = 20;
/** Spacing of a person's claps, s, and how even it is. */
const ROW_S = { from: 0.6, to: 1.6 } as const;
const EVEN = 0.15;
const ALIKE_IN_ROW = 7;
const UNLIKELY = -8;

const clamped = (value: number, low: number, high: number): number => Math.min(high, Math.max(low, value));

/** How likely each of the bursts of a recording is a clap. */
export function scoreBursts(bursts: readonly Burst[]): Scored[] {
  const first = bursts.map((burst, i): Scored => {
    const others = neighboursOf(bursts, (b) => b.atS, i, NEIGHBOURS_S.first, OWN_S.first);
    return firstLook({
      ...burst,
      overOthers: burst.netDb - usualNet(others),
      unlike: unlikeness(burst, others),
      lowest: burst.shape[0]!,
      airy: burst.shape[6]!,
    });
  });
  return first.map((one, i) => ({ ...one, logOdds: secondLook(first, i) }));
}

function firstLook(seen: Seen): Scored {
  const scores = CONSTANTS.map((constant, k) => {
    let sum = constant;
    for (const [name, { from, to, weights }] of Object.entries(PROFILES))
      sum += weights[k]! * clamped(seen[name as keyof typeof PROFILES], from, to);
    return sum;
  });
  const best = Math.max(...scores);
  const logOdds = best + Math.log(scores.reduce((sum, s) => sum + Math.exp(s - best), 0));
  return { burst: seen, logOdds, kind: CLAP_KINDS[scores.indexOf(best)]! };
}

/** Bursts within this many seconds of one, in order of time; those nearer than `ownS` belong to it. */
function neighboursOf<T>(all: readonly T[], atS: (one: T) => number, i: number, withinS: number, ownS: number): T[] {
  const out: T[] = [];
  const own = atS(all[i]!);
  let from = i;
  while (from > 0 && own - atS(all[from - 1]!) < withinS) from--;
  for (let k = from; k < all.length && atS(all[k]!) - own < withinS; k++)
    if (Math.abs(atS(all[k]!) - own) > ownS) out.push(all[k]!);
  return out;
}

function usualNet(others: readonly Burst[]): number {
  if (others.length === 0) return -Number.MAX_VALUE;
  const nets = others.map((o) => o.netDb).sort((a, b) => a - b);
  const kept = nets.slice(0, Math.max(1, nets.length - MAY_BE_CLAPS));
  const at = USUAL_SHARE * (kept.length - 1);
  const low = Math.floor(at);
  return kept[low]! + (at - low) * ((kept[low + 1] ?? kept[low]!) - kept[low]!);
}

const meanSquare = (a: readonly number[], b: readonly number[]): number =>
  a.reduce((sum, v, i) => sum + (v - b[i]!) ** 2, 0) / a.length;

function unlikeness(one: Burst, others: readonly Burst[]): number {
  const falls = (b: Burst) => [clamped(b.fallSoon, -5, 30), clamped(b.fallMid, -5, 30)];
  const own = falls(one);
  const distances = others
    .map(
      (o) =>
        Math.sqrt(meanSquare(one.shape, o.shape) + 0.1 * meanSquare(own, falls(o))) +
        0.3 * Math.abs(one.netDb - o.netDb),
    )
    .sort((a, b) => a - b);
  return distances[LIKEST] ?? NOBODY_DB;
}

/** How far two bursts are from sounding alike, dB. */
export function apartDb(a: Burst, b: Burst): number {
  const falls = (x: Burst) => [clamped(x.fall, -5, 20), clamped(x.fallSoon, -5, 25)];
  return Math.sqrt(meanSquare(a.shape, b.shape) + 0.15 * meanSquare(falls(a), falls(b)));
}

function secondLook(all: readonly Scored[], i: number): number {
  const { burst, logOdds } = all[i]!;
  const others = neighboursOf(all, (s) => s.burst.atS, i, NEIGHBOURS_S.second, OWN_S.second);
  const company = others.reduce(
    (most, o) => Math.max(most, clamped(o.logOdds, -6, 4) - 0.6 * apartDb(burst, o.burst)),
    UNLIKELY,
  );
  const strongest = others.map((o) => o.logOdds).sort((a, b) => b - a);
  const lead = clamped(logOdds - Math.max(UNLIKELY, strongest[MAY_BE_CLAPS] ?? UNLIKELY), -4, 10);
  return (
    SECOND.own * clamped(logOdds, -8, 8) +
    SECOND.company * company +
    SECOND.row * rowOf(burst, others) +
    SECOND.lead * lead +
    SECOND.constant
  );
}

/** Of three that are alike and evenly apart, as a person claps to be found: the less likely of the two others. */
function rowOf(burst: Burst, others: readonly Scored[]): number {
  const likely = others.filter((o) => o.logOdds > UNLIKELY && apartDb(burst, o.burst) <= ALIKE_IN_ROW);
  let best = UNLIKELY;
  for (const b of likely) {
    const step = b.burst.atS - burst.atS;
    if (Math.abs(step) < ROW_S.from || Math.abs(step) > ROW_S.to) continue;
    for (const e of likely) {
      if (e === b) continue;
      const on = Math.abs(e.burst.atS - (b.burst.atS + step)) < EVEN * Math.abs(step);
      const back = Math.abs(e.burst.atS - (burst.atS - step)) < EVEN * Math.abs(step);
      if (!on && !back) continue;
      const unlike = 0.3 * (apartDb(burst, b.burst) + apartDb(burst, e.burst));
      best = Math.max(best, Math.min(b.logOdds, e.logOdds) - unlike);
    }
  }
  return best;
}
