import { type Figure, ratioFromDb } from '#core/model/units/index.ts';
import { type Components, membersOf } from './components.ts';
import type { Graph } from './graph.ts';
import { type LoopGain, type LoopLink, loopGain } from './loop-gain.ts';
import { type Measurements, settleDelay } from './offset.ts';
import { say } from './sayings.ts';

/** A path that returns to its beginning. Same devices in the same order: its channels count as one loop. */
export interface Loop {
  /** In the order that they are met. */
  readonly deviceIds: readonly string[];
  /** How much louder it is after each turn, its channels in step; a negative figure dies away. */
  readonly gainDb: number;
  /** The same with its channels added by power. */
  readonly powerDb: number;
  /** Of its loudest channel. */
  readonly delay: Figure;
  /** Through air, so that its gain is an estimate with hidden peaks. */
  readonly throughAir: boolean;
  /** With all other ways round that it meets: what really decides. */
  readonly together: LoopGain & { readonly throughAir: boolean; readonly loops: number };
}

/** Loop gains, dB, from which a loop howls and from which it rings. Through air 10 dB less: peaks hide in a broadband figure. */
const FLAT = { howlsDb: 0, ringsDb: -15, source: say.flatElectricalLoop() };
const AIR = {
  howlsDb: -10,
  ringsDb: -18,
  source: say.loopThroughAirWhose(),
};
export const loopLimit = ({ throughAir }: { readonly throughAir: boolean }): typeof FLAT => (throughAir ? AIR : FLAT);

/** Quieter returns are not reported: inaudible at any delay (ITU-T G.131), dB. */
const TOLD_DB = -65;
/** A patch bay with everything open has more ways round than anyone would read. */
const MAX_CYCLES = 512;
const MAX_STEPS = 20_000;

export interface LoopsRead {
  readonly loops: readonly Loop[];
  /** The loops of each component that has any, by the least of its nodes. */
  readonly byComponent: ReadonlyMap<number, { readonly nodes: Int32Array; readonly loops: ReadonlyMap<string, Loop> }>;
}

/** Every loop of every component, the loudest first. */
export const readLoops = (graph: Graph, components: Components, measurements: Measurements = []): readonly Loop[] =>
  readEveryLoop(graph, components, measurements).loops;

/** @param near  what was read before other edges led to the nodes that are touched: components without any of them keep their loops */
export function readEveryLoop(
  graph: Graph,
  components: Components,
  measurements: Measurements,
  near?: { readonly read: LoopsRead; readonly touched: ReadonlySet<number> },
): LoopsRead {
  const byComponent = new Map<number, { nodes: Int32Array; loops: ReadonlyMap<string, Loop> }>();
  const loops = new Map<string, Loop>();
  components.loops.forEach((is, c) => {
    if (!is) return;
    const nodes = membersOf(components, c).slice().sort();
    const before = near?.read.byComponent.get(nodes[0]!);
    const stays = before && isSame(before.nodes, nodes) && !nodes.some((node) => near!.touched.has(node));
    const here = stays ? before.loops : loopsOf(graph, components, c, measurements);
    byComponent.set(nodes[0]!, { nodes, loops: here });
    for (const [key, loop] of here) {
      // Left and right that never meet are two components and one loop: the louder of the two.
      const known = loops.get(key);
      if (!known || loop.together.gainDb > known.together.gainDb) loops.set(key, loop);
    }
  });
  return { loops: [...loops.values()].sort((a, b) => b.gainDb - a.gainDb), byComponent };
}

const isSame = (a: Int32Array, b: Int32Array): boolean => a.length === b.length && a.every((n, i) => n === b[i]);

/** A stretch of a loop without a fork: the edges it is made of, and what they do together. */
interface Stretch extends LoopLink {
  readonly gainDb: number;
  readonly trail: readonly number[];
}

function loopsOf(graph: Graph, components: Components, c: number, measurements: Measurements): Map<string, Loop> {
  const members = membersOf(components, c).slice().sort();
  const at = new Map([...members].map((node, i) => [node, i]));
  const links: Stretch[] = [];
  for (const node of members)
    for (let e = graph.firstEdge[node]!; e < graph.firstEdge[node + 1]!; e++) {
      const [from, to] = [at.get(node)!, at.get(graph.to[e]!)];
      if (to === undefined) continue;
      const { gainDb, polarity, delayMs, lowHz, highHz } = graph.edges[e]!;
      const gain = polarity * ratioFromDb(gainDb.nominal);
      links.push({ from, to, gain, gainDb: gainDb.nominal, delayMs: delayMs.nominal, lowHz, highHz, trail: [e] });
    }
  const groups = new Map<string, Stretch[]>();
  for (const cycle of cyclesOf(contracted(members.length, links))) {
    const key = devicesOf(graph, cycle).join(' > ');
    const known = groups.get(key);
    if (known) known.push(cycle);
    else groups.set(key, [cycle]);
  }
  const isAir = (cycle: Stretch) =>
    cycle.trail.some((e) => graph.nodes[graph.from[e]!]!.scale === 'spl' && 'cableId' in graph.edges[e]!.via);
  const all = loopGain(members.length, links);
  const loud = [...groups.values()].flat().filter((cycle) => cycle.gainDb > all.gainDb - CONTRIBUTES_DB);
  const together = { ...all, throughAir: loud.some(isAir), loops: groups.size };
  return new Map(
    [...groups].map(([key, cycles]) => {
      const loudest = cycles.reduce((a, b) => (b.gainDb > a.gainDb ? b : a));
      const { gainDb, powerDb } = loopGain(
        1,
        cycles.map((cycle) => ({ ...cycle, from: 0, to: 0 })),
      );
      const deviceIds = [...new Set(devicesOf(graph, loudest))];
      const terms = loudest.trail.flatMap((e) => graph.edges[e]!.delays);
      const delay = settleDelay(measurements, 'round', terms);
      return [key, { deviceIds, gainDb, powerDb, delay, throughAir: isAir(loudest), together }];
    }),
  );
}

/** Contributions this far below the total are ignored, dB. */
const CONTRIBUTES_DB = 20;

/** The devices along a cycle, in order, from the one that stands first in the rig. */
function devicesOf(graph: Graph, { trail }: Stretch): string[] {
  const nodes = trail.map((e) => graph.to[e]!);
  const first = nodes.indexOf(Math.min(...nodes));
  const ids = [...nodes.slice(first), ...nodes.slice(0, first)].map((n) => graph.nodes[n]!.deviceId);
  const once = ids.filter((id, i) => id !== ids[i - 1]);
  if (once.length > 1 && once.at(-1) === once[0]) once.pop();
  return once;
}

const joined = (a: Stretch, b: Stretch): Stretch => ({
  from: a.from,
  to: b.to,
  gain: a.gain * b.gain,
  gainDb: a.gainDb + b.gainDb,
  delayMs: a.delayMs + b.delayMs,
  lowHz: Math.max(a.lowHz, b.lowHz),
  highHz: Math.min(a.highHz, b.highHz),
  trail: [...a.trail, ...b.trail],
});

/** Stretches from fork to fork: a node that only one link enters or leaves is passed over. */
function contracted(nodes: number, links: readonly Stretch[]): Stretch[] {
  const out: Set<Stretch>[] = Array.from({ length: nodes }, () => new Set());
  const into: Set<Stretch>[] = Array.from({ length: nodes }, () => new Set());
  const put = (s: Stretch) => {
    out[s.from]!.add(s);
    into[s.to]!.add(s);
  };
  for (const link of links) put(link);
  const open = Array.from({ length: nodes }, (_, n) => n);
  for (let node = open.pop(); node !== undefined; node = open.pop()) {
    const [before, after] = [[...into[node]!], [...out[node]!]];
    if (before.length === 0 || after.length === 0) continue;
    if ((before.length > 1 && after.length > 1) || before.some((s) => s.from === node)) continue;
    for (const s of before) out[s.from]!.delete(s);
    for (const s of after) into[s.to]!.delete(s);
    into[node]!.clear();
    out[node]!.clear();
    for (const a of before) for (const b of after) put(joined(a, b));
    for (const s of [...before, ...after]) open.push(s.from === node ? s.to : s.from);
  }
  return out.flatMap((set) => [...set]);
}

/** Simple cycles that are not too faint, by depth-first search from each node over those after it (Tiernan 1970), cut where even the loudest way home is too faint. */
function cyclesOf(stretches: readonly Stretch[]): Stretch[] {
  const nodes = [...new Set(stretches.map((s) => s.from))].sort((a, b) => a - b);
  const leaving = new Map(nodes.map((n) => [n, [] as Stretch[]]));
  for (const s of [...stretches].sort((a, b) => b.gainDb - a.gainDb)) leaving.get(s.from)!.push(s);
  const cycles: Stretch[] = [];
  let steps = 0;
  const passed = new Set<number>();
  const follow = (start: number, homeDb: ReadonlyMap<number, number>, so: Stretch): void => {
    if (so.lowHz >= so.highHz || ++steps > MAX_STEPS || cycles.length >= MAX_CYCLES) return;
    if (so.to === start) {
      cycles.push(so);
      return;
    }
    passed.add(so.to);
    for (const next of leaving.get(so.to)!) {
      const home = next.to === start ? 0 : homeDb.get(next.to);
      if (home === undefined || passed.has(next.to)) continue;
      if (so.gainDb + next.gainDb + home >= TOLD_DB) follow(start, homeDb, joined(so, next));
    }
    passed.delete(so.to);
  };
  for (const start of nodes) {
    const homeDb = waysHome(stretches, nodes.length, start);
    for (const first of leaving.get(start)!)
      if (first.to >= start && (first.to === start || homeDb.has(first.to))) follow(start, homeDb, first);
  }
  return cycles;
}

/** The loudest way from each later node to the start, in as many steps as there are nodes (Bellman and Ford): no way home is louder. */
function waysHome(stretches: readonly Stretch[], rounds: number, start: number): Map<number, number> {
  const home = new Map<number, number>();
  const later = stretches.filter((s) => s.from > start && s.to >= start);
  for (let round = 0, better = true; round < rounds && better; round++) {
    better = false;
    for (const { from, to, gainDb } of later) {
      const rest = to === start ? 0 : home.get(to);
      if (rest === undefined || gainDb + rest <= (home.get(from) ?? Number.NEGATIVE_INFINITY)) continue;
      home.set(from, gainDb + rest);
      better = true;
    }
  }
  return home;
}
