import {
  isSettingTask,
  type PlanCell,
  type PortRef,
  type Rig,
  type SettingTask,
  type ToleranceId,
} from '#core/rig/index.ts';
import type { Arrival } from './arrival.ts';
import { type BandsMeasured, bandOf, bandsMeasured } from './band.ts';
import { findComponents } from './components.ts';
import { delayOf } from './delay.ts';
import { expand } from './expand.ts';
import type { DelayTerm, Graph } from './graph.ts';
import type { Heard, Pair } from './heard.ts';
import { type Loop, readLoops } from './loops.ts';
import { withMeasuredNoise } from './noise.ts';
import { delayMeasurements, difference, type Measurements, settle, settleDelay } from './offset.ts';
import { readPath } from './path.ts';
import { mainVoiceOf } from './roles.ts';
import { toleranceOf } from './tolerance.ts';
import { readNoise, trace } from './trace.ts';
import { ECHO_MASKED_DB, judge } from './verdict.ts';

export interface Evaluation {
  readonly graph: Graph;
  /** Everything at every tap: arrivals of each node of the graph, and its noise floor in dB (-Infinity for none). */
  readonly arrivals: readonly (readonly Arrival[])[];
  /** Pictures at each node. */
  readonly pictures: readonly (readonly Arrival[])[];
  readonly noiseDb: Float64Array;
  /** What takes have said about delays: every figure of time is read with them, see `delayOf`. */
  readonly measurements: Measurements;
  readonly pairs: readonly Pair[];
  readonly loops: readonly Loop[];
  /** Arrivals that the bounds left out; 0 where everything was followed. */
  readonly dropped: number;
}

/** Quieter than the loudest by so much, a second way is not told. */
const TOLD_DB = 60;

/** What every listener hears of every source, and when. Pure; fast enough for every key press. */
export function evaluate(rig: Rig): Evaluation {
  const spread = spreadOf(rig);
  const { graph, traced, noiseDb, loops } = spread;
  const context: Context = {
    rig,
    graph,
    arrivals: traced.arrivals,
    pictures: traced.pictures,
    noiseDb,
    heard: spread.heard,
    ways: spread.ways,
    tasks: rig.tasks.filter(isSettingTask).map((task) => ({ key: `${task.deviceId}.${task.settingId}`, task })),
    measurements: spread.measurements,
    bands: bandsMeasured(rig),
    sourceAt: new Map(rig.sources.map((s, i) => [s.id, i])),
    voiceAt: rig.sources.findIndex((s) => s.id === mainVoiceOf(rig)),
    seen: spread.seen,
    pairs: spread.pairs,
  };
  const cells = new Map(rig.plan.map((c) => [`${c.sourceId}>${c.listenerId}`, c]));
  const pairs = rig.listeners.flatMap((listener) => readListener(context, listener, cells));
  return {
    graph,
    arrivals: traced.arrivals,
    pictures: traced.pictures,
    noiseDb,
    measurements: spread.measurements,
    pairs,
    loops,
    dropped: traced.dropped,
  };
}

/** What sounds where, whatever is wanted of it: of the boxes, leads, sources and measurements of a rig alone. */
interface Spread {
  readonly parts: readonly unknown[];
  readonly graph: Graph;
  readonly traced: ReturnType<typeof trace>;
  readonly noiseDb: Float64Array;
  readonly measurements: Measurements;
  readonly loops: readonly Loop[];
  readonly heard: Map<string, ReadonlyMap<number, Way[]>>;
  readonly ways: Map<string, Heard[]>;
  readonly seen: Map<string, Seen>;
  readonly pairs: Map<string, { readonly rests: readonly unknown[]; readonly pair: Pair }>;
}

const spreads = new WeakMap<Rig['devices'], Spread>();
const partsOf = (rig: Rig): unknown[] => [rig.types, rig.cables, rig.sources, rig.session, rig.measurements];

/** An edit of the plan moves no sound: what is traced is kept as long as nothing that it rests on is another one. */
function spreadOf(rig: Rig): Spread {
  const parts = partsOf(rig);
  const before = spreads.get(rig.devices);
  if (before?.parts.every((part, i) => part === parts[i])) return before;
  const graph = expand(rig);
  const components = findComponents(graph);
  const measurements = delayMeasurements(rig.measurements);
  const spread: Spread = {
    parts,
    graph,
    traced: trace(rig, graph, components),
    noiseDb: withMeasuredNoise(rig, graph, readNoise(graph, components)),
    measurements,
    loops: readLoops(graph, components, measurements),
    heard: new Map(),
    ways: new Map(),
    seen: new Map(),
    pairs: new Map(),
  };
  spreads.set(rig.devices, spread);
  return spread;
}

type Listener = Rig['listeners'][number];

interface Context {
  readonly rig: Rig;
  readonly graph: Graph;
  readonly arrivals: readonly (readonly Arrival[])[];
  readonly pictures: readonly (readonly Arrival[])[];
  readonly noiseDb: Float64Array;
  /** What waits to be set at the desk, by `device.setting`. */
  readonly tasks: readonly { readonly key: string; readonly task: SettingTask }[];
  readonly measurements: Measurements;
  readonly bands: BandsMeasured;
  readonly sourceAt: ReadonlyMap<string, number>;
  /** The main voice; -1 where there is none. */
  readonly voiceAt: number;
  /** What comes to a place, by source; and its ways as they are read against a picture. */
  readonly heard: Map<string, ReadonlyMap<number, Way[]>>;
  readonly ways: Map<string, Heard[]>;
  /** Pairs as they were last, with what they rest on. */
  readonly pairs: Spread['pairs'];
  /** Pictures by place: many listeners look at the same one. */
  readonly seen: Map<string, Seen>;
}

/** What is seen at one place: the picture of each source that comes there, read when it is asked for. */
interface Seen {
  readonly first: ReadonlyMap<number, Arrival>;
  readonly read: Map<number, Pair['picture']>;
}

function readListener(context: Context, listener: Listener, cells: ReadonlyMap<string, PlanCell>): Pair[] {
  const { rig, sourceAt } = context;
  const heard = heardAt(context, listener.sound);
  const tolerance = toleranceOf(toleranceIdOf(rig, listener));
  const voiceDb = loudestOf(heard.get(context.voiceAt));
  return rig.sources.map((source, sourceIndex): Pair => {
    const cell = cells.get(`${source.id}>${listener.id}`);
    const inTime = cell?.inTimeWith ? (sourceAt.get(cell.inTimeWith) ?? -1) : sourceIndex;
    const picture = cell?.keepTime === false ? null : readPicture(context, inTime, listener.picture);
    const ways = waysOf(
      context,
      listener.sound,
      sourceIndex,
      heard.get(sourceIndex) ?? NO_WAYS,
      picture,
      listener.picture,
    );
    const want = cell?.want ?? null;
    const acting = (key: string) => picture?.settings.includes(key) || ways[0]?.settings.includes(key);
    const ownDb = sourceIndex === context.voiceAt ? null : loudestOf(heard.get(sourceIndex));
    const underVoiceDb = voiceDb === null || ownDb === null ? null : voiceDb - ownDb;
    const wantedDb = cell?.underVoiceDb;
    const level = underVoiceDb === null || wantedDb === undefined ? null : { isDb: underVoiceDb, wantedDb };
    const besides = cell?.ownTrack ? nearlyAsLoud(context, heard, sourceIndex) : NOBODY;
    const openTasks = context.tasks.filter(({ key }) => acting(key)).map(({ task }) => task);
    const at = `${source.id}>${listener.id}`;
    const rests = [cell, ways, picture, tolerance, underVoiceDb, besides.length];
    const before = context.pairs.get(at);
    // The very pair, where it rests on the very same: what is drawn of it need not be drawn anew.
    if (before && openTasks.length === 0 && before.rests.every((r, i) => r === rests[i])) return before.pair;
    const pair: Pair = {
      sourceId: source.id,
      listenerId: listener.id,
      want,
      ways,
      picture,
      underVoiceDb,
      besides,
      verdict: judge({ want, ways, tolerance, openTasks, level, shared: besides.length > 0 }),
    };
    if (openTasks.length === 0) context.pairs.set(at, { rests, pair });
    else context.pairs.delete(at);
    return pair;
  });
}

/** A listener's own tolerance, else the session's. */
export const toleranceIdOf = (rig: Rig, listener: Rig['listeners'][number]): ToleranceId =>
  listener.toleranceId ?? rig.session.toleranceId;

function readPicture(context: Context, sourceIndex: number, at: PortRef | undefined): Pair['picture'] {
  if (!at) return null;
  const key = `${at.deviceId}/${at.portId}`;
  let seen = context.seen.get(key);
  if (!seen) {
    seen = { first: firstPictures(context, at), read: new Map() };
    context.seen.set(key, seen);
  }
  const first = seen.first.get(sourceIndex);
  if (!first) return null;
  const known = seen.read.get(sourceIndex);
  if (known) return known;
  const { terms, settings } = readPath(context.graph, first);
  const sourceId = context.rig.sources[sourceIndex]!.id;
  const picture = { sourceId, delay: settleDelay(context.measurements, 'picture', terms), terms, settings };
  seen.read.set(sourceIndex, picture);
  return picture;
}

/** Of every source, the picture that comes first to a place. */
function firstPictures(context: Context, at: PortRef): Map<number, Arrival> {
  const first = new Map<number, Arrival>();
  const msOf = (arrival: Arrival): number => delayOf(context, arrival).value.nominal;
  for (const node of context.graph.nodesOf(at))
    for (const arrival of context.pictures[node]!) {
      const known = first.get(arrival.sourceIndex);
      if (!known || msOf(arrival) < msOf(known)) first.set(arrival.sourceIndex, arrival);
    }
  return first;
}

/** Null where nothing is heard. */
const loudestOf = (ways: readonly Way[] | undefined): number | null =>
  ways ? ways.reduce((db, w) => Math.max(db, w.arrival.levelDb), Number.NEGATIVE_INFINITY) : null;

const NOBODY: readonly string[] = [];
/** Quieter than a source by so much, what else comes to its track does not hinder balancing it (typical of spill between two microphones). */
const SPILL_DB = 15;

/** Other sources at a place that stand near one there. */
function nearlyAsLoud({ rig }: Context, heard: ReadonlyMap<number, readonly Way[]>, sourceIndex: number): string[] {
  const ownDb = loudestOf(heard.get(sourceIndex));
  if (ownDb === null) return [];
  return rig.sources.flatMap(({ id }, i) => {
    const db = i === sourceIndex ? null : loudestOf(heard.get(i));
    return db !== null && db > ownDb - SPILL_DB ? [id] : [];
  });
}

interface Way {
  arrival: Arrival;
  readonly sides: string[];
}

const placeOf = ({ deviceId, portId }: PortRef): string => `${deviceId}/${portId}`;
const NO_WAYS: readonly Way[] = [];

/** What comes to a place, by source; left and right of one way are one. */
function heardAt(context: Context, at: PortRef): ReadonlyMap<number, Way[]> {
  const key = placeOf(at);
  const known = context.heard.get(key);
  if (known) return known;
  const heard = readHeard(context, at);
  context.heard.set(key, heard);
  return heard;
}

function readHeard({ graph, arrivals }: Context, at: PortRef): Map<number, Way[]> {
  const heard = new Map<number, Way[]>();
  for (const node of graph.nodesOf(at)) {
    const side = graph.nodes[node]!.channelId;
    for (const arrival of arrivals[node]!) {
      const ways = heard.get(arrival.sourceIndex) ?? [];
      const known = ways.find((w) => w.arrival.way === arrival.way && w.arrival.delayMs === arrival.delayMs);
      if (!known) heard.set(arrival.sourceIndex, [...ways, { arrival, sides: [side] }]);
      else {
        if (!known.sides.includes(side)) known.sides.push(side);
        if (arrival.levelDb > known.arrival.levelDb) known.arrival = arrival;
      }
    }
  }
  return heard;
}

function waysOf(
  context: Context,
  at: PortRef,
  sourceIndex: number,
  ways: readonly Way[],
  picture: Pair['picture'],
  seenAt: PortRef | undefined,
): Heard[] {
  const against = picture && seenAt ? `${picture.sourceId} ${placeOf(seenAt)}` : '';
  const key = `${placeOf(at)} ${sourceIndex} ${against}`;
  const known = context.ways.get(key);
  if (known) return known;
  const bands = context.bands(at, context.rig.sources[sourceIndex]!.id);
  const read = readWays(context, ways, picture, bands);
  context.ways.set(key, read);
  return read;
}

function readWays(
  context: Context,
  ways: readonly Way[],
  picture: Pair['picture'],
  bands: ReturnType<BandsMeasured>,
): Heard[] {
  const { graph, noiseDb, measurements } = context;
  const loudest = Math.max(...ways.map((w) => w.arrival.levelDb));
  let first: readonly DelayTerm[] | null = null;
  return ways
    .filter((w) => w.arrival.levelDb >= loudest - TOLD_DB)
    .sort((a, b) => b.arrival.levelDb - a.arrival.levelDb)
    .map(({ arrival, sides }) => {
      const path = readPath(graph, arrival);
      const isTold = first !== null && loudest - arrival.levelDb < ECHO_MASKED_DB;
      const afterFirst = isTold ? settle(measurements, 'after the loudest way', difference(path.terms, first!)) : null;
      first ??= path.terms;
      const offsetTerms = picture ? difference(path.terms, picture.terms) : [];
      const noise = noiseDb[arrival.node]!;
      return {
        arrival,
        levelDb: { low: arrival.levelLowDb, nominal: arrival.levelDb, high: arrival.levelHighDb },
        scale: graph.nodes[arrival.node]!.scale,
        noiseDb: Number.isFinite(noise) ? noise : null,
        headroomDb: Number.isFinite(arrival.headroomDb) ? arrival.headroomDb : null,
        delay: settleDelay(measurements, 'sound', path.terms),
        band: bandOf(arrival, path.deviceIds, bands),
        conversions: arrival.conversions,
        polarity: arrival.polarity,
        clock: arrival.clock,
        deviceIds: path.deviceIds,
        sides,
        afterFirst,
        offset: picture ? settle(measurements, 'sound minus picture', offsetTerms) : null,
        soundTerms: path.terms,
        offsetTerms,
        settings: path.settings,
      };
    });
}
