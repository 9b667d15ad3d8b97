/** Something to be done once, at a place, after some others. */
export interface Job {
  readonly id: string;
  /** Time it takes there, s. */
  readonly seconds: number;
  /** What it takes away: burden that weighs on every second until it is done. */
  readonly relieves: number;
  readonly place: string;
  /** Ids of jobs that come before it; others than the given ones count as done. */
  readonly after: readonly string[];
}

export interface Route {
  readonly ids: readonly string[];
  /** All of it with the walking, s. */
  readonly seconds: number;
  /** Burden times seconds until everything is done, and a second of anyone's time besides. */
  readonly cost: number;
}

/** From one place to another, s; 0 where they are one. */
export type Walk = (from: string, to: string) => number;

/** A second of someone's time weighs as much as this burden: of two orders that relieve alike, the shorter one. */
export const COST_OF_A_SECOND = 10;

/** Up to so many jobs every subset is looked at (at most 12 × 2¹¹ with their last place), and the result is exact. */
export const MAX_EXACT = 12;
/** Subsets of each length that are kept of more jobs. */
const MAX_KEPT = 250;

interface Partial {
  /** Jobs done, as a bit set. */
  readonly done: bigint;
  readonly last: Job | null;
  readonly before: Partial | null;
  readonly cost: number;
  readonly seconds: number;
  /** Burden that is left. */
  readonly burden: number;
}

/**
 * The order in which burden goes soonest, with as little walking as can be: the burden that is left, weighed with every
 * second of work and of walking, is least. Dynamic programming over subsets (Held & Karp 1962); of more than `MAX_EXACT`
 * jobs, the subsets that promise most are kept of each length (beam search).
 * @param start  the place where one is
 * @returns every job once, none before one that it comes after; jobs that wait for each other in a circle come last
 */
export function orderJobs(jobs: readonly Job[], walk: Walk, start: string): Route {
  const width = jobs.length > MAX_EXACT ? MAX_KEPT : Number.POSITIVE_INFINITY;
  const total = jobs.reduce((sum, j) => sum + j.relieves, 0);
  const bit = new Map(jobs.map((j, i) => [j.id, 1n << BigInt(i)]));
  const bits = jobs.map((j) => bit.get(j.id)!);
  const needs = jobs.map((j) => j.after.reduce((all, id) => all | (id === j.id ? 0n : (bit.get(id) ?? 0n)), 0n));
  // The same jobs in another order cost the same from here on: of those that end at one place, the cheapest goes on.
  let kept: Partial[] = [{ done: 0n, last: null, before: null, cost: 0, seconds: 0, burden: total }];
  for (let length = 0; length < jobs.length; length++) {
    const next = new Map<string, Partial>();
    for (const state of kept)
      for (const further of continued(state, jobs, bits, needs, walk, start)) keep(next, further);
    // They wait for each other: whichever is first in the list.
    if (next.size === 0) for (const state of kept) keep(next, forced(state, jobs, bits, walk, start));
    kept = [...next.values()].sort(byPromise).slice(0, width);
  }
  const best = routeOf(kept.reduce((a, b) => (b.cost < a.cost ? b : a)));
  return jobs.length > MAX_EXACT ? improved(jobs, best, walk, start) : best;
}

/** Jobs that are moved together: what is done at one place without going away. */
const MAX_MOVED = 4;

/**
 * An order in which no few neighboring jobs, moved elsewhere together, make it cheaper (or-opt, Or 1976): what a beam
 * has dropped too soon.
 */
function improved(jobs: readonly Job[], route: Route, walk: Walk, start: string): Route {
  const byId = new Map(jobs.map((j) => [j.id, j]));
  let order = route.ids.map((id) => byId.get(id)!);
  let best = told(order, walk, start);
  for (let found = true; found; ) {
    found = false;
    for (let from = 0; from < order.length; from++)
      for (let length = 1; length <= Math.min(MAX_MOVED, order.length - from); length++) {
        const block = order.slice(from, from + length);
        const rest = [...order.slice(0, from), ...order.slice(from + length)];
        const [first, last] = room(block, rest);
        for (let to = first; to <= last; to++) {
          if (to === from) continue;
          const next = [...rest.slice(0, to), ...block, ...rest.slice(to)];
          const cost = told(next, walk, start);
          if (cost.cost >= best.cost - 1e-9) continue;
          [order, best, found] = [next, cost, true];
          break;
        }
        if (found) break;
      }
  }
  return { ids: order.map((j) => j.id), ...best };
}

/** Between which places of an order a block may stand: after all that it comes after, before all that come after it. */
function room(block: readonly Job[], rest: readonly Job[]): [first: number, last: number] {
  const ids = new Set(block.map((j) => j.id));
  const needs = new Set(block.flatMap((j) => j.after));
  const first = rest.findLastIndex((j) => needs.has(j.id)) + 1;
  const last = rest.findIndex((j) => j.after.some((id) => ids.has(id)));
  return [first, last < 0 ? rest.length : last];
}

function told(order: readonly Job[], walk: Walk, start: string): Pick<Route, 'cost' | 'seconds'> {
  let burden = order.reduce((sum, j) => sum + j.relieves, 0);
  let [cost, seconds, at] = [0, 0, start];
  for (const job of order) {
    const takes = walk(at, job.place) + job.seconds;
    cost += (burden + COST_OF_A_SECOND) * takes;
    seconds += takes;
    burden -= job.relieves;
    at = job.place;
  }
  return { cost, seconds };
}

const byPromise = (a: Partial, b: Partial): number =>
  a.cost + a.burden * a.seconds - (b.cost + b.burden * b.seconds) || a.cost - b.cost;

function keep(next: Map<string, Partial>, state: Partial): void {
  const key = `${state.done} ${state.last!.place}`;
  const known = next.get(key);
  if (!known || state.cost < known.cost) next.set(key, state);
}

function* continued(
  state: Partial,
  jobs: readonly Job[],
  bits: readonly bigint[],
  needs: readonly bigint[],
  walk: Walk,
  start: string,
): Generator<Partial> {
  for (let j = 0; j < jobs.length; j++) {
    if ((state.done & bits[j]!) !== 0n || (needs[j]! & ~state.done) !== 0n) continue;
    yield afterJob(state, jobs[j]!, bits[j]!, walk, start);
  }
}

function forced(state: Partial, jobs: readonly Job[], bits: readonly bigint[], walk: Walk, start: string): Partial {
  const j = bits.findIndex((b) => (state.done & b) === 0n);
  return afterJob(state, jobs[j]!, bits[j]!, walk, start);
}

function afterJob(state: Partial, job: Job, bit: bigint, walk: Walk, start: string): Partial {
  const seconds = walk(state.last?.place ?? start, job.place) + job.seconds;
  return {
    done: state.done | bit,
    last: job,
    before: state,
    cost: state.cost + (state.burden + COST_OF_A_SECOND) * seconds,
    seconds: state.seconds + seconds,
    burden: state.burden - job.relieves,
  };
}

function routeOf(end: Partial): Route {
  const ids: string[] = [];
  for (let at: Partial | null = end; at?.last; at = at.before) ids.unshift(at.last.id);
  return { ids, seconds: end.seconds, cost: end.cost };
}
