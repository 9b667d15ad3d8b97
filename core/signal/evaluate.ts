import {
  isSettingTask,
  type PlanCell,
  type PortRef,
  type Rig,
  type SettingTask,
  type ToleranceId,
} from '#core/rig/index.ts';
import { expand } from './expand.ts';
import type { Graph } from './graph.ts';
import type { Heard, Pair } from './heard.ts';
import { findComponents, type Loop, readLoops } from './loops.ts';
import { delayMeasurements, difference, type Measurements, settle, settleDelay } from './offset.ts';
import { readPath } from './path.ts';
import { toleranceOf } from './tolerance.ts';
import { type Arrival, readNoise, trace } from './trace.ts';
import { judge } from './verdict.ts';
import { mainVoiceOf } from './voice.ts';

export interface Evaluation {
  readonly graph: Graph;
  /** Everything at every tap: arrivals of each node of the graph, and its noise floor in dB (-Infinity for none). */
  readonly arrivals: readonly (readonly Arrival[])[];
  /** Pictures at each node. */
  readonly pictures: readonly (readonly Arrival[])[];
  readonly noiseDb: Float64Array;
  readonly pairs: readonly Pair[];
  readonly loops: readonly Loop[];
  /** Arrivals that the bounds left out; 0 where everything was followed. */
  readonly dropped: number;
}

/** Quieter than the loudest by so much, a second way is not told. */
const TOLD_DB = 60;

/** What every listener hears of every source, and when. Pure; fast enough for every key press. */
export function evaluate(rig: Rig): Evaluation {
  const graph = expand(rig);
  const components = findComponents(graph);
  const traced = trace(rig, graph, components);
  const noiseDb = readNoise(graph, components);
  const context: Context = {
    rig,
    graph,
    arrivals: traced.arrivals,
    pictures: traced.pictures,
    noiseDb,
    tasks: rig.tasks.filter(isSettingTask).map((task) => ({ key: `${task.deviceId}.${task.settingId}`, task })),
    measurements: delayMeasurements(rig.measurements),
    sourceAt: new Map(rig.sources.map((s, i) => [s.id, i])),
    voiceAt: rig.sources.findIndex((s) => s.id === mainVoiceOf(rig)),
    seen: new Map(),
  };
  const cells = new Map(rig.plan.map((c) => [`${c.sourceId}>${c.listenerId}`, c]));
  const pairs = rig.listeners.flatMap((listener) => readListener(context, listener, cells));
  return {
    graph,
    arrivals: traced.arrivals,
    pictures: traced.pictures,
    noiseDb,
    pairs,
    loops: readLoops(graph, components),
    dropped: traced.dropped,
  };
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
  readonly sourceAt: ReadonlyMap<string, number>;
  /** The main voice; -1 where there is none. */
  readonly voiceAt: number;
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
    const picture = readPicture(context, inTime, listener.picture);
    const ways = readWays(context, heard.get(sourceIndex) ?? [], picture);
    const want = cell?.want ?? null;
    const acting = (key: string) => picture?.settings.includes(key) || ways[0]?.settings.includes(key);
    const ownDb = sourceIndex === context.voiceAt ? null : loudestOf(heard.get(sourceIndex));
    const underVoiceDb = voiceDb === null || ownDb === null ? null : voiceDb - ownDb;
    const wantedDb = cell?.underVoiceDb;
    const level = underVoiceDb === null || wantedDb === undefined ? null : { isDb: underVoiceDb, wantedDb };
    const openTasks = context.tasks.filter(({ key }) => acting(key)).map(({ task }) => task);
    return {
      sourceId: source.id,
      listenerId: listener.id,
      want,
      ways,
      picture,
      underVoiceDb,
      verdict: judge({ want, ways, tolerance, openTasks, level }),
    };
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
function firstPictures({ graph, pictures }: Context, at: PortRef): Map<number, Arrival> {
  const first = new Map<number, Arrival>();
  for (const node of graph.nodesOf(at))
    for (const arrival of pictures[node]!) {
      const known = first.get(arrival.sourceIndex);
      if (!known || arrival.delayMs < known.delayMs) first.set(arrival.sourceIndex, arrival);
    }
  return first;
}

/** Null where nothing is heard. */
const loudestOf = (ways: readonly Way[] | undefined): number | null =>
  ways ? ways.reduce((db, w) => Math.max(db, w.arrival.levelDb), Number.NEGATIVE_INFINITY) : null;

interface Way {
  arrival: Arrival;
  readonly sides: string[];
}

/** What comes to a place, by source; left and right of one way are one. */
function heardAt({ graph, arrivals }: Context, at: PortRef): Map<number, Way[]> {
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

function readWays(context: Context, ways: readonly Way[], picture: Pair['picture']): Heard[] {
  const { graph, noiseDb, measurements } = context;
  const loudest = Math.max(...ways.map((w) => w.arrival.levelDb));
  return ways
    .filter((w) => w.arrival.levelDb >= loudest - TOLD_DB)
    .sort((a, b) => b.arrival.levelDb - a.arrival.levelDb)
    .map(({ arrival, sides }) => {
      const path = readPath(graph, arrival);
      const offsetTerms = picture ? difference(path.terms, picture.terms) : [];
      const noise = noiseDb[arrival.node]!;
      return {
        arrival,
        levelDb: { low: arrival.levelLowDb, nominal: arrival.levelDb, high: arrival.levelHighDb },
        scale: graph.nodes[arrival.node]!.scale,
        noiseDb: Number.isFinite(noise) ? noise : null,
        headroomDb: Number.isFinite(arrival.headroomDb) ? arrival.headroomDb : null,
        delay: settleDelay(measurements, 'sound', path.terms),
        conversions: arrival.conversions,
        polarity: arrival.polarity,
        clock: arrival.clock,
        deviceIds: path.deviceIds,
        sides,
        offset: picture ? settle(measurements, 'sound minus picture', offsetTerms) : null,
        soundTerms: path.terms,
        offsetTerms,
        settings: path.settings,
      };
    });
}
