import { dbFromRatio, ratioFromDb } from '#core/model/units/index.ts';
import type { Arrival } from './arrival.ts';
import { type Components, membersOf } from './components.ts';
import type { Graph } from './graph.ts';
import { keep, pass } from './meet.ts';

/** Turns of a loop are followed until they are this far below, or above, where they began, dB: above, it howls. */
const LOOP_FLOOR_DB = 80;
const LOOP_CEILING_DB = 80;
/** Maximum number of steps that are followed inside a loop. */
const LOOP_STEPS = 4096;
const MAX_SOURCES = 64;

/**
 * Follows what comes into a loop round and round, the earliest first, so that copies of one instant have met before they
 * go on. What meets a copy that has gone on already goes after it alone: amplitudes add, so nothing is lost or counted
 * twice. It ends 80 dB down, or where the bound is met.
 * @returns how many arrivals the bounds left out
 */
export function followLoop(graph: Graph, components: Components, c: number, lists: Arrival[][]): number {
  // In the order of the graph: what decides between equals does not hang on how the component was found.
  const members = membersOf(components, c).slice().sort();
  const rank = ranksOf(graph, components, members);
  const entered = members.reduce((n, node) => n + lists[node]!.length, 0);
  if (entered === 0) return 0;
  /** Not yet passed on: a whole arrival (null), or part of it as a signed amplitude. */
  const waiting = new Map<Arrival, number | null>();
  const open: Arrival[] = [];
  const isBefore = (a: Arrival, b: Arrival): boolean =>
    a.delayMs.nominal < b.delayMs.nominal ||
    (a.delayMs.nominal === b.delayMs.nominal && rank.get(a.node)! < rank.get(b.node)!);
  const wait = (arrival: Arrival, part: number | null) => {
    const before = waiting.get(arrival);
    if (before === undefined) {
      let at = open.length;
      open.push(arrival);
      // The next to go stands last.
      for (; at > 0 && isBefore(open[at - 1]!, arrival); at--) open[at] = open[at - 1]!;
      open[at] = arrival;
    }
    // A waiting arrival has grown by what it merged with; a waiting part grows by the part that was added.
    waiting.set(arrival, before === null || part === null ? null : (before ?? 0) + part);
  };
  const leave = (arrival: Arrival): number | null | undefined => {
    const part = waiting.get(arrival);
    if (waiting.delete(arrival)) open.splice(open.indexOf(arrival), 1);
    return part;
  };
  for (const node of members) for (const arrival of lists[node]!) wait(arrival, null);
  /** Level of each source at each node when it first arrived. */
  const firstDb = new Map<number, number>();
  let [dropped, steps] = [0, 0];
  for (let arrival = open.pop(); arrival; arrival = open.pop()) {
    const part = waiting.get(arrival)!;
    waiting.delete(arrival);
    if (part === 0) continue;
    const goes = part === null ? arrival : partOf(arrival, part);
    for (let e = graph.firstEdge[arrival.node]!; e < graph.firstEdge[arrival.node + 1]!; e++) {
      const to = graph.to[e]!;
      if (components.of[to] !== c) continue;
      const next = pass(graph, goes, e, arrival);
      // Scales change along a loop, so the floor is held against the loudest of the source at this very node.
      let there = Number.NEGATIVE_INFINITY;
      for (const a of lists[to]!) if (a.sourceIndex === next.sourceIndex && a.levelDb > there) there = a.levelDb;
      if (next.levelDb < there - LOOP_FLOOR_DB) continue;
      if (++steps > LOOP_STEPS) return dropped + open.length + 1;
      const place = to * MAX_SOURCES + next.sourceIndex;
      if (!firstDb.has(place)) firstDb.set(place, Math.max(there, next.levelDb));
      if (next.levelDb > firstDb.get(place)! + LOOP_CEILING_DB) {
        dropped++;
        continue;
      }
      const { levelDb, polarity } = next;
      const kept = keep(lists, to, next);
      if (kept.gone) {
        dropped++;
        leave(kept.gone);
      }
      if (!kept.arrival) continue;
      if (kept.isNew) wait(kept.arrival, null);
      else {
        // It represents the copy it merged with: what that has not passed on yet goes with it.
        const left = kept.replaced ? leave(kept.replaced) : undefined;
        if (left !== undefined) wait(kept.arrival, left);
        wait(kept.arrival, polarity * ratioFromDb(levelDb));
      }
    }
  }
  return dropped;
}

/** An arrival as if only a part of it were there. */
function partOf(arrival: Arrival, amplitude: number): Arrival {
  const levelDb = dbFromRatio(Math.abs(amplitude));
  const offDb = levelDb - arrival.levelDb;
  return {
    ...arrival,
    levelDb,
    levelLowDb: arrival.levelLowDb + offDb,
    levelHighDb: arrival.levelHighDb + offDb,
    reverseDb: arrival.reverseDb + offDb,
    polarity: amplitude < 0 ? -1 : 1,
  };
}

/** Nodes in an order in which what takes no time leads on, as far as there is one (Kahn 1962). */
function ranksOf(graph: Graph, { of }: Components, members: Int32Array): Map<number, number> {
  const c = of[members[0]!];
  const ways = new Map<number, number>([...members].map((node) => [node, 0]));
  const atOnce = (node: number): number[] => {
    const next: number[] = [];
    for (let e = graph.firstEdge[node]!; e < graph.firstEdge[node + 1]!; e++)
      if (of[graph.to[e]!] === c && graph.edges[e]!.delayMs.nominal === 0) next.push(graph.to[e]!);
    return next;
  };
  for (const node of members) for (const to of atOnce(node)) ways.set(to, ways.get(to)! + 1);
  const ranks = new Map<number, number>();
  const free = [...members].filter((node) => ways.get(node) === 0);
  for (let i = 0; i < free.length; i++) {
    ranks.set(free[i]!, ranks.size);
    for (const to of atOnce(free[i]!)) {
      ways.set(to, ways.get(to)! - 1);
      if (ways.get(to) === 0) free.push(to);
    }
  }
  for (const node of members) if (!ranks.has(node)) ranks.set(node, ranks.size);
  return ranks;
}
