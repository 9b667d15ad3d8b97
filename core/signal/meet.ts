import { dbFromRatio, ratioFromDb, add as sumOf } from '#core/model/units/index.ts';
import type { Arrival } from './arrival.ts';
import type { Graph } from './graph.ts';

/** Maximum number of paths of one source that are kept at one node; the loudest stay. */
const WAYS_PER_SOURCE = 16;
/** Copies of one source nearer than this add by amplitude: they are one arrival. */
const SAME_INSTANT_MS = 0.02;
const MAX_COPIES = 1e6;
/** No two copies are so alike that more than this is gone when they meet upside down (typical of parts that were matched). */
const DEEPEST_DB = 80;

/** Most places hear nothing: they share this list, which is never added to. */
export const NOTHING: Arrival[] = [];

export function add(lists: Arrival[][], node: number, arrival: Arrival): void {
  if (lists[node] === NOTHING) lists[node] = [arrival];
  else lists[node]!.push(arrival);
}

/** An arrival at the other end of an edge. @param from  the arrival it continues */
export function pass(graph: Graph, arrival: Arrival, e: number, from = arrival): Arrival {
  const edge = graph.edges[e]!;
  return {
    sourceIndex: arrival.sourceIndex,
    node: graph.to[e]!,
    levelDb: arrival.levelDb + edge.gainDb.nominal,
    levelLowDb: arrival.levelLowDb + edge.gainDb.low,
    levelHighDb: arrival.levelHighDb + edge.gainDb.high,
    delayMs: edge.delays.length === 0 ? arrival.delayMs : sumOf(arrival.delayMs, edge.delayMs),
    polarity: (arrival.polarity * edge.polarity) as 1 | -1,
    conversions: arrival.conversions + edge.conversions,
    lowHz: Math.max(arrival.lowHz, edge.lowHz),
    highHz: Math.min(arrival.highHz, edge.highHz),
    clock: edge.clock ?? arrival.clock,
    headroomDb: Math.min(arrival.headroomDb, edge.ceilingDb - arrival.levelDb),
    way: (Math.imul(arrival.way, 0x9e3779b1) + edge.wayId) | 0,
    edge,
    from,
    reverseDb: arrival.reverseDb + edge.gainDb.high,
    copies: arrival.copies,
    cancelledBy: null,
  };
}

/** What became of an arrival at a node. */
export interface Kept {
  /** The arrival that represents it: itself, or the copy it merged with; null if it was dropped. */
  readonly arrival: Arrival | null;
  /** What had to go: itself, or the quietest; null where nothing had to. A copy that was met and is quieter has not gone. */
  readonly gone: Arrival | null;
  /** The copy it merged with, which now represents both. */
  readonly replaced: Arrival | null;
  /** Nothing of its like was there. */
  readonly isNew: boolean;
}

/** Adds an arrival to a node's list: it meets its like, or is kept, or the quietest goes. */
export function keep(lists: Arrival[][], node: number, next: Arrival): Kept {
  const list = lists[node]!;
  let ways = 0;
  let quietest = -1;
  for (let i = 0; i < list.length; i++) {
    const other = list[i]!;
    if (other.sourceIndex !== next.sourceIndex) continue;
    if (sameInstant(other, next)) {
      const [louder, quieter] = next.levelDb > other.levelDb ? [next, other] : [other, next];
      meet(louder, quieter);
      list[i] = louder;
      return { arrival: louder, gone: null, replaced: louder === next ? other : null, isNew: false };
    }
    ways++;
    if (quietest < 0 || other.levelDb < list[quietest]!.levelDb) quietest = i;
  }
  if (ways < WAYS_PER_SOURCE) {
    add(lists, node, next);
    return { arrival: next, gone: null, replaced: null, isNew: true };
  }
  const last = list[quietest]!;
  if (next.levelDb <= last.levelDb) return { arrival: null, gone: next, replaced: null, isNew: false };
  list[quietest] = next;
  return { arrival: next, gone: last, replaced: null, isNew: true };
}

const near = (a: number, b: number): boolean => Math.abs(a - b) < SAME_INSTANT_MS;
const sameInstant = (a: Arrival, b: Arrival): boolean =>
  near(a.delayMs.nominal, b.delayMs.nominal) &&
  near(a.delayMs.low, b.delayMs.low) &&
  near(a.delayMs.high, b.delayMs.high);

/**
 * Two copies at one instant: they add by amplitude, or take from each other where one is upside down. The louder stands
 * for both. What they share, however uncertain, is no difference between them.
 */
function meet(louder: Arrival, quieter: Arrival): void {
  const upside = louder.polarity !== quieter.polarity;
  // Where both add, it makes no difference what they share.
  const shared = upside ? sharedOf(louder, quieter) : NOTHING_SHARED;
  const [a, b] = [after(louder, shared), after(quieter, shared)];
  const nominal = upside ? a.nominal - b.nominal : a.nominal + b.nominal;
  const low = upside ? a.low - b.high : a.low + b.low;
  const high = upside ? a.high - b.low : a.high + b.high;
  const deepest = Math.max(a.nominal, b.nominal) * ratioFromDb(-DEEPEST_DB);
  const levelDb = shared.levelDb + dbFromRatio(Math.max(nominal, deepest));
  if (upside) {
    const lossDb = louder.levelDb - levelDb;
    if (lossDb > (louder.cancelledBy?.lossDb ?? 0)) louder.cancelledBy = { other: { ...quieter }, lossDb };
  }
  // What goes round doubles them each time: more than enough is enough.
  louder.copies = Math.min(MAX_COPIES, louder.copies + quieter.copies);
  louder.levelDb = levelDb;
  louder.levelLowDb = Math.min(levelDb, shared.levelLowDb + dbFromRatio(Math.max(low, deepest)));
  louder.levelHighDb = Math.max(levelDb, shared.levelHighDb + dbFromRatio(Math.max(high, -low)));
  louder.reverseDb = low < 0 ? shared.levelHighDb + dbFromRatio(-low) : Number.NEGATIVE_INFINITY;
}

type Level = Pick<Arrival, 'levelDb' | 'levelLowDb' | 'levelHighDb'>;
const NOTHING_SHARED: Level = { levelDb: 0, levelLowDb: 0, levelHighDb: 0 };

/** Amplitudes after the place that two ways share; below 0 the other way up. */
function after(arrival: Arrival, shared: Level): { low: number; nominal: number; high: number } {
  const reverse = ratioFromDb(arrival.reverseDb - shared.levelHighDb);
  return {
    low: reverse > 0 ? -reverse : ratioFromDb(arrival.levelLowDb - shared.levelLowDb),
    nominal: ratioFromDb(arrival.levelDb - shared.levelDb),
    high: ratioFromDb(arrival.levelHighDb - shared.levelHighDb),
  };
}

/** Where two paths of one source part: the last node on both, or the source itself; the source for an arrival that is already a merger. */
function sharedOf(a: Arrival, b: Arrival): Arrival {
  const passed = new Set<Arrival>();
  let origin = a;
  for (let at: Arrival | null = a; at; at = at.from) {
    passed.add(at);
    origin = at;
  }
  if (a.copies > 1 || b.copies > 1) return origin;
  for (let at: Arrival | null = b; at; at = at.from) if (passed.has(at)) return at;
  return origin;
}
