import { range } from 'd3-array';
import { walk } from '#core/base/search/index.ts';
import { findTypes, portsOf, type Rig } from '#core/model/rig/index.ts';
import {
  type Arrival,
  CREST_DB,
  type Evaluation,
  type Graph,
  heardTwice,
  isLost,
  toleranceIdOf,
  toleranceOf,
} from '#core/signal/index.ts';
import { type Alive, aliveIn, type Disturbed } from './alive.ts';
import type { Flag, Mark } from './faults/index.ts';

/** What anyone at the desk can observe, by check: the answers that fit, one where the model is sure. */
export type Readings = ReadonlyMap<string, readonly string[]>;

/** Keys of what can be looked at or listened to. */
export const keys = {
  hear: (listenerId: string, sourceId: string) => `hear|${listenerId}|${sourceId}`,
  time: (listenerId: string, sourceId: string) => `time|${listenerId}|${sourceId}`,
  twice: (listenerId: string, sourceId: string) => `twice|${listenerId}|${sourceId}`,
  picture: (listenerId: string, sourceId: string) => `picture|${listenerId}|${sourceId}`,
  flag: (listenerId: string, flag: Flag) => `flag|${listenerId}|${flag}`,
  tap: (deviceId: string, portId: string, sourceId: string) => `tap|${deviceId}/${portId}|${sourceId}`,
  /** Whether a picture is seen at a socket, and whether hum and the like is there already. */
  see: (deviceId: string, portId: string, sourceId: string) => `see|${deviceId}/${portId}|${sourceId}`,
  has: (deviceId: string, portId: string, flag: Flag) => `has|${deviceId}/${portId}|${flag}`,
  look: (lookId: string) => `look|${lookId}`,
};

/** A source at a place, as far as ears and meters can tell. */
interface Sound {
  levelDb: number;
  sides: number;
  /** The device that heard it first: another one is another microphone. */
  readonly ear: string;
}

/** A rig as it sounds: places by key, and what is absolute. */
export interface Raw {
  readonly sounds: ReadonlyMap<string, Sound>;
  readonly facts: Readings;
}

/** All possible observations of a rig, at every socket and by every listener. */
export function readRaw(rig: Rig, evaluation: Evaluation, disturbed: Disturbed): Raw {
  const { graph } = evaluation;
  const alive = aliveIn(graph, disturbed);
  const sounds = new Map<string, Sound>();
  const types = findTypes(rig);
  const inside = new Set(
    rig.devices.flatMap((d) =>
      [...portsOf(types.get(d.typeId)!).values()].filter((p) => p.direction === 'inside').map((p) => `${d.id}/${p.id}`),
    ),
  );
  for (const [n, node] of graph.nodes.entries()) {
    if (evaluation.arrivals[n]!.length === 0 || inside.has(`${node.deviceId}/${node.portId}`)) continue;
    for (const arrival of evaluation.arrivals[n]!)
      if (!isLost(arrival.levelDb, node.scale) && alive.sound(arrival))
        note(sounds, keys.tap(node.deviceId, node.portId, rig.sources[arrival.sourceIndex]!.id), arrival, graph, n);
  }
  const facts = new Map<string, readonly string[]>();
  for (const [n, node] of graph.nodes.entries()) {
    if (evaluation.pictures[n]!.length === 0 || inside.has(`${node.deviceId}/${node.portId}`)) continue;
    for (const arrival of evaluation.pictures[n]!) {
      const key = keys.see(node.deviceId, node.portId, rig.sources[arrival.sourceIndex]!.id);
      sighted(facts, key, alive.picture(arrival));
    }
  }
  const flagged = flaggedNodes(evaluation, alive, [...disturbed.effects.marks, ...disturbed.marks]);
  for (const [flag, nodes] of flagged)
    for (const n of nodes) {
      const { deviceId, portId } = graph.nodes[n]!;
      if (!inside.has(`${deviceId}/${portId}`)) facts.set(keys.has(deviceId, portId, flag), ['yes']);
    }
  for (const listener of rig.listeners) readListener(rig, evaluation, listener, alive, flagged, sounds, facts);
  return { sounds, facts };
}

const lastNode = new WeakMap<Sound, number>();
function note(sounds: Map<string, Sound>, key: string, arrival: Arrival, graph: Graph, node: number): void {
  const known = sounds.get(key);
  if (!known) {
    const sound = { levelDb: arrival.levelDb, sides: 1, ear: earOf(graph, arrival) };
    lastNode.set(sound, node);
    sounds.set(key, sound);
    return;
  }
  if (lastNode.get(known) !== node) {
    known.sides++;
    lastNode.set(known, node);
  }
  if (arrival.levelDb > known.levelDb) {
    const sound = { levelDb: arrival.levelDb, sides: known.sides, ear: earOf(graph, arrival) };
    lastNode.set(sound, node);
    sounds.set(key, sound);
  }
}

/** The first device that a sound goes into; its own where it begins in one. */
function earOf(graph: Graph, arrival: Arrival): string {
  let ear = graph.nodes[arrival.node]!.deviceId;
  for (let at: Arrival = arrival; at.from; at = at.from)
    if (at.edge && 'deviceId' in at.edge.via) ear = graph.nodes[at.node]!.deviceId;
  return ear;
}

/** A picture that surely comes, or perhaps. */
function sighted(facts: Map<string, readonly string[]>, key: string, sure: number): void {
  if (sure === 1) facts.set(key, ['there']);
  else if (sure > 0 && !facts.has(key)) facts.set(key, ['there', 'nothing']);
}

/** Where hum and the like is, by what: from where it begins along everything that passes on. */
function flaggedNodes(evaluation: Evaluation, alive: Alive, marks: readonly Mark[]): Map<Flag, Set<number>> {
  const { graph, arrivals, pictures } = evaluation;
  const flagged = new Map<Flag, Set<number>>();
  const passes = (e: number) => {
    const from = graph.from[e]!;
    return arrivals[from]!.some((a) => alive.sound(a)) || pictures[from]!.some((a) => alive.picture(a) > 0);
  };
  const isAt = (e: number, { cableId, deviceId }: Mark) => {
    const { via } = graph.edges[e]!;
    return 'cableId' in via ? via.cableId === cableId : via.deviceId === deviceId;
  };
  for (const mark of marks) {
    const reached = flagged.get(mark.flag) ?? new Set<number>();
    flagged.set(mark.flag, reached);
    const ends = (edges: readonly number[]) => edges.filter(passes).map((e) => graph.to[e]!);
    const behind = (node: number) => range(graph.firstEdge[node]!, graph.firstEdge[node + 1]!);
    const marked = range(graph.edges.length).filter((e) => isAt(e, mark));
    for (const node of walk(ends(marked), (at) => ends(behind(at)))) reached.add(node);
  }
  return flagged;
}

function readListener(
  rig: Rig,
  evaluation: Evaluation,
  listener: Rig['listeners'][number],
  alive: Alive,
  flagged: ReadonlyMap<Flag, ReadonlySet<number>>,
  sounds: Map<string, Sound>,
  facts: Map<string, readonly string[]>,
): void {
  const { graph } = evaluation;
  let clips = false;
  for (const node of graph.nodesOf(listener.sound))
    for (const arrival of evaluation.arrivals[node]!) {
      if (isLost(arrival.levelDb, graph.nodes[node]!.scale) || !alive.sound(arrival)) continue;
      if (arrival.headroomDb < CREST_DB.nominal) clips = true;
    }
  if (clips) facts.set(keys.flag(listener.id, 'distorted'), ['yes']);
  const noise = graph.nodesOf(listener.sound).map((n) => evaluation.noiseDb[n]!);
  facts.set(`noise|${listener.id}`, [String(Math.round(Math.max(-200, ...noise)))]);
  for (const source of rig.sources) {
    const heard = sounds.get(keys.tap(listener.sound.deviceId, listener.sound.portId, source.id));
    if (heard) sounds.set(keys.hear(listener.id, source.id), heard);
  }
  if (listener.picture)
    for (const node of graph.nodesOf(listener.picture))
      for (const arrival of evaluation.pictures[node]!)
        sighted(facts, keys.picture(listener.id, rig.sources[arrival.sourceIndex]!.id), alive.picture(arrival));
  const own = [...graph.nodesOf(listener.sound), ...(listener.picture ? graph.nodesOf(listener.picture) : [])];
  for (const [flag, nodes] of flagged)
    if (own.some((n) => nodes.has(n))) facts.set(keys.flag(listener.id, flag), ['yes']);
  readTimes(rig, evaluation, listener, alive, facts);
}

function readTimes(
  rig: Rig,
  evaluation: Evaluation,
  listener: Rig['listeners'][number],
  alive: Alive,
  facts: Map<string, readonly string[]>,
): void {
  const { lateMs, earlyMs } = toleranceOf(toleranceIdOf(rig, listener));
  for (const pair of evaluation.pairs) {
    if (pair.listenerId !== listener.id) continue;
    const ways = pair.ways.filter((w) => alive.sound(w.arrival) && !isLost(w.arrival.levelDb, w.scale));
    if (heardTwice(ways)) facts.set(keys.twice(listener.id, pair.sourceId), ['twice']);
    const offset = ways[0]?.offset;
    if (!offset) continue;
    const { low, nominal, high } = offset.value;
    const says =
      nominal > lateMs
        ? ['late']
        : nominal < earlyMs
          ? ['early']
          : ['in time', ...(high > lateMs ? ['late'] : []), ...(low < earlyMs ? ['early'] : [])];
    facts.set(keys.time(listener.id, pair.sourceId), says);
  }
}

/** A change of level that someone notices on a meter or by ear without a comparison (typical). */
const NOTICED_DB = 6;
/** More noise than this is heard as hiss. */
const HISS_DB = 8;

/** Observations of a rig relative to how it is drawn: levels and noise are judged by comparison. */
export function readingsOf(raw: Raw, drawn: Raw): Readings {
  const readings = new Map<string, readonly string[]>();
  for (const key of new Set([...raw.sounds.keys(), ...drawn.sounds.keys()]))
    readings.set(key, [wordOf(raw.sounds.get(key), drawn.sounds.get(key))]);
  for (const [key, answers] of raw.facts) {
    const [kind, listenerId] = key.split('|') as [string, string];
    if (kind !== 'noise') readings.set(key, answers);
    else if (Number(answers[0]) > Number(drawn.facts.get(key)![0]) + HISS_DB)
      readings.set(keys.flag(listenerId, 'hiss'), ['yes']);
  }
  return readings;
}

function wordOf(now: Sound | undefined, drawn: Sound | undefined): string {
  if (!now) return 'nothing';
  if (!drawn) return 'it is there';
  if (now.sides < drawn.sides) return 'one side only';
  if (now.ear !== drawn.ear) return 'from farther off';
  if (now.levelDb < drawn.levelDb - NOTICED_DB) return 'weaker';
  return now.levelDb > drawn.levelDb + NOTICED_DB ? 'louder' : 'as always';
}

/** The answer for what no reading covers. */
export function usualAnswer(key: string): string {
  switch (key.slice(0, key.indexOf('|'))) {
    case 'flag':
    case 'has':
      return 'no';
    case 'twice':
      return 'once';
    case 'time':
      return 'in time';
    case 'look':
      return 'well';
    default:
      return 'nothing';
  }
}
