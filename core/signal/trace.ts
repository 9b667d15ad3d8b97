import type { Rig } from '#core/rig/index.ts';
import { dbFromPower, dbFromRatio, ratioFromDb } from '#core/units/index.ts';
import type { Graph } from './graph.ts';
import { type Components, membersOf } from './loops.ts';

/** One source at one node by one path. The path is read back over `from`, not copied. */
export interface Arrival {
  readonly sourceIndex: number;
  readonly node: number;
  levelDb: number;
  readonly levelLowDb: number;
  readonly levelHighDb: number;
  readonly delayMs: number;
  readonly delayLowMs: number;
  readonly delayHighMs: number;
  readonly polarity: 1 | -1;
  readonly conversions: number;
  readonly lowHz: number;
  readonly highHz: number;
  /** The device whose clock counts the samples; null while nothing has. */
  readonly clock: string | null;
  /** The least distance to a ceiling met so far, dB; Infinity for none. */
  readonly headroomDb: number;
  /** A number made of the ways it took: equal for left and right of one way, and for nothing else that is known. */
  readonly way: number;
  /** The edge it came by, -1 at the source. */
  readonly edge: number;
  readonly from: Arrival | null;
}

export interface Traced {
  /** Arrivals of each node; sources in the order of the rig. */
  readonly arrivals: readonly (readonly Arrival[])[];
  /** Pictures, traced in the same graph. */
  readonly pictures: readonly (readonly Arrival[])[];
  /** How many arrivals the bounds left out. */
  readonly dropped: number;
}

/** Turns of a loop are followed until they are so far down. */
const LOOP_FLOOR_DB = 80;
/** At most so many ways of one source at one node; the loudest stay. */
const WAYS_PER_SOURCE = 16;
/** Copies of one source nearer than this add by amplitude: they are one arrival. */
const SAME_INSTANT_MS = 0.02;
/** A howling loop never gets quieter; so many steps inside a loop are followed at most. */
const LOOP_STEPS = 4096;

/** Every source, its sound and its picture, at every node that it reaches, in topological order; loops are bounded. */
export function trace(rig: Rig, graph: Graph, components: Components): Traced {
  const sound = startOf(
    graph,
    (node) => node.carries === 'sound',
    rig.sources.map((s) => ({ ref: s.sound, level: s.level })),
  );
  const picture = startOf(
    graph,
    (node) => node.carries === 'picture',
    rig.sources.map((s) => ({ ref: s.picture, level: [0, 0, 0] as const })),
  );
  const dropped = spread(graph, components, sound) + spread(graph, components, picture);
  return { arrivals: sound, pictures: picture, dropped };
}

interface Origin {
  ref: { deviceId: string; portId: string } | undefined;
  level: readonly [number, number, number];
}

/** Most places hear nothing: they share this list, which is never added to. */
const NOTHING: Arrival[] = [];

function add(lists: Arrival[][], node: number, arrival: Arrival): void {
  if (lists[node] === NOTHING) lists[node] = [arrival];
  else lists[node]!.push(arrival);
}

function startOf(graph: Graph, wanted: (node: Graph['nodes'][number]) => boolean, origins: Origin[]): Arrival[][] {
  const lists: Arrival[][] = new Array(graph.nodes.length).fill(NOTHING);
  origins.forEach(({ ref, level }, sourceIndex) => {
    if (!ref) return;
    for (const node of graph.nodesOf(ref)) {
      if (!wanted(graph.nodes[node]!)) continue;
      add(lists, node, {
        sourceIndex,
        node,
        levelDb: level[1],
        levelLowDb: level[0],
        levelHighDb: level[2],
        delayMs: 0,
        delayLowMs: 0,
        delayHighMs: 0,
        polarity: 1,
        conversions: 0,
        lowHz: 0,
        highHz: Number.POSITIVE_INFINITY,
        clock: null,
        headroomDb: Number.POSITIVE_INFINITY,
        way: 7,
        edge: -1,
        from: null,
      });
    }
  });
  return lists;
}

function spread(graph: Graph, components: Components, lists: Arrival[][]): number {
  const { count, first, order, loops, of } = components;
  let dropped = 0;
  for (let c = 0; c < count; c++) {
    if (loops[c]) dropped += followLoop(graph, components, c, lists);
    for (let i = first[c]!; i < first[c + 1]!; i++) {
      const node = order[i]!;
      const list = lists[node]!;
      for (let a = 0; a < list.length; a++) {
        for (let e = graph.firstEdge[node]!; e < graph.firstEdge[node + 1]!; e++) {
          const to = graph.to[e]!;
          if (of[to] !== c) dropped += keep(lists, to, pass(graph, list[a]!, e));
        }
      }
    }
  }
  return dropped;
}

/** Follows what comes into a loop round and round, loudest first in, until it is 80 dB down or the bound is met. */
function followLoop(graph: Graph, components: Components, c: number, lists: Arrival[][]): number {
  const open = [...membersOf(components, c)].flatMap((node) => lists[node]!);
  const floor = new Map<number, number>();
  for (const a of open)
    floor.set(a.sourceIndex, Math.max(floor.get(a.sourceIndex) ?? Number.NEGATIVE_INFINITY, a.levelDb - LOOP_FLOOR_DB));
  let dropped = 0;
  let steps = 0;
  for (let at = 0; at < open.length; at++) {
    const arrival = open[at]!;
    for (let e = graph.firstEdge[arrival.node]!; e < graph.firstEdge[arrival.node + 1]!; e++) {
      const to = graph.to[e]!;
      if (components.of[to] !== c) continue;
      const next = pass(graph, arrival, e);
      // Scales change along a loop, so the floor is held against the loudest seen at this very node.
      const loudest = lists[to]!.reduce(
        (db, a) => (a.sourceIndex === next.sourceIndex ? Math.max(db, a.levelDb) : db),
        Number.NEGATIVE_INFINITY,
      );
      if (next.levelDb < loudest - LOOP_FLOOR_DB) continue;
      if (++steps > LOOP_STEPS) return dropped + (open.length - at);
      const left = keep(lists, to, next);
      dropped += left;
      if (left === 0 && lists[to]!.includes(next)) open.push(next);
    }
  }
  return dropped;
}

function pass(graph: Graph, arrival: Arrival, e: number): Arrival {
  const edge = graph.edges[e]!;
  return {
    sourceIndex: arrival.sourceIndex,
    node: graph.to[e]!,
    levelDb: arrival.levelDb + edge.gainDb.nominal,
    levelLowDb: arrival.levelLowDb + edge.gainDb.low,
    levelHighDb: arrival.levelHighDb + edge.gainDb.high,
    delayMs: arrival.delayMs + edge.delayMs.nominal,
    delayLowMs: arrival.delayLowMs + edge.delayMs.low,
    delayHighMs: arrival.delayHighMs + edge.delayMs.high,
    polarity: (arrival.polarity * edge.polarity) as 1 | -1,
    conversions: arrival.conversions + edge.conversions,
    lowHz: Math.max(arrival.lowHz, edge.lowHz),
    highHz: Math.min(arrival.highHz, edge.highHz),
    clock: edge.clock ?? arrival.clock,
    headroomDb: Math.min(arrival.headroomDb, edge.ceilingDb - arrival.levelDb),
    way: (Math.imul(arrival.way, 0x9e3779b1) + edge.wayId) | 0,
    edge: e,
    from: arrival,
  };
}

/** Adds an arrival to a node's list: merged with its like, or kept, or the quietest goes. Returns how many were dropped. */
function keep(lists: Arrival[][], node: number, next: Arrival): number {
  const list = lists[node]!;
  let ways = 0;
  let quietest = -1;
  for (let i = 0; i < list.length; i++) {
    const other = list[i]!;
    if (other.sourceIndex !== next.sourceIndex) continue;
    if (sameInstant(other, next)) {
      const together = dbFromRatio(
        Math.abs(ratioFromDb(other.levelDb) + other.polarity * next.polarity * ratioFromDb(next.levelDb)),
      );
      const louder = next.levelDb > other.levelDb ? next : other;
      louder.levelDb = together;
      list[i] = louder;
      return 0;
    }
    ways++;
    if (quietest < 0 || other.levelDb < list[quietest]!.levelDb) quietest = i;
  }
  if (ways < WAYS_PER_SOURCE) {
    add(lists, node, next);
    return 0;
  }
  if (next.levelDb > list[quietest]!.levelDb) list[quietest] = next;
  return 1;
}

const near = (a: number, b: number): boolean => Math.abs(a - b) < SAME_INSTANT_MS;
const sameInstant = (a: Arrival, b: Arrival): boolean =>
  near(a.delayMs, b.delayMs) && near(a.delayLowMs, b.delayLowMs) && near(a.delayHighMs, b.delayHighMs);

/** The noise floor of every node, dB in its own scale, by power from all that feeds it; -Infinity for none. */
export function readNoise(graph: Graph, { count, first, order }: Components): Float64Array {
  const { edges, firstEdge, to } = graph;
  const power = new Float64Array(graph.nodes.length);
  for (let e = 0; e < edges.length; e++) power[to[e]!]! += edges[e]!.noisePower;
  for (let c = 0; c < count; c++) {
    const [begin, end] = [first[c]!, first[c + 1]!];
    // One turn: what a loop adds to its own noise beyond that belongs to the loop's own finding.
    for (let i = begin; i < end; i++) {
      const node = order[i]!;
      if (power[node] === 0) continue;
      for (let e = firstEdge[node]!; e < firstEdge[node + 1]!; e++) {
        power[to[e]!]! += power[node]! * edges[e]!.powerGain;
      }
    }
  }
  return power.map((p) => (p > 0 ? dbFromPower(p) : Number.NEGATIVE_INFINITY));
}
