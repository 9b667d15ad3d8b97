import { isSettingTask, type PortRef, type Rig, type SettingTask, type ToleranceId } from '#core/rig/index.ts';
import { expand } from './expand.ts';
import type { Graph } from './graph.ts';
import type { Heard, Pair } from './heard.ts';
import { findComponents, type Loop, readLoops } from './loops.ts';
import { delayMeasurements, difference, type Measurements, settle, settleDelay } from './offset.ts';
import { readPath } from './path.ts';
import { toleranceOf } from './tolerance.ts';
import { type Arrival, readNoise, trace } from './trace.ts';
import { judge } from './verdict.ts';

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
  const context = {
    rig,
    graph,
    arrivals: traced.arrivals,
    pictures: traced.pictures,
    noiseDb,
    tasks: taskIndex(rig),
    measurements: delayMeasurements(rig.measurements),
    seen: new Map(),
  };
  const pairs = rig.listeners.flatMap((listener) => rig.sources.map((source) => readPair(context, source, listener)));
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

interface Context {
  rig: Rig;
  graph: Graph;
  arrivals: readonly (readonly Arrival[])[];
  pictures: readonly (readonly Arrival[])[];
  noiseDb: Float64Array;
  tasks: ReadonlyMap<string, SettingTask>;
  measurements: Measurements;
  /** Pictures by place and source: many listeners look at the same one. */
  seen: Map<string, Pair['picture']>;
}

const taskIndex = (rig: Rig): Map<string, SettingTask> =>
  new Map(rig.tasks.filter(isSettingTask).map((t) => [`${t.deviceId}.${t.settingId}`, t]));

function readPair(context: Context, source: Rig['sources'][number], listener: Rig['listeners'][number]): Pair {
  const { rig } = context;
  const cell = rig.plan.find((c) => c.sourceId === source.id && c.listenerId === listener.id);
  const picture = readPicture(context, cell?.inTimeWith ?? source.id, listener);
  const ways = readWays(context, rig.sources.indexOf(source), listener, picture);
  const pictureSettings = picture?.settings ?? [];
  const acting = (key: string) => pictureSettings.includes(key) || (ways[0]?.settings.includes(key) ?? false);
  return {
    sourceId: source.id,
    listenerId: listener.id,
    want: cell?.want ?? null,
    ways,
    picture,
    verdict: judge({
      want: cell?.want ?? null,
      ways,
      tolerance: toleranceOf(toleranceIdOf(rig, listener)),
      openTasks: [...context.tasks].filter(([key]) => acting(key)).map(([, task]) => task),
    }),
  };
}

/** A listener's own tolerance, else the session's. */
export const toleranceIdOf = (rig: Rig, listener: Rig['listeners'][number]): ToleranceId =>
  listener.toleranceId ?? rig.session.toleranceId;

function readPicture(context: Context, sourceId: string, listener: Rig['listeners'][number]): Pair['picture'] {
  if (!listener.picture) return null;
  const key = `${listener.picture.deviceId}/${listener.picture.portId}/${sourceId}`;
  const known = context.seen.get(key);
  if (known !== undefined) return known;
  const picture = lookForPicture(context, sourceId, listener.picture);
  context.seen.set(key, picture);
  return picture;
}

function lookForPicture(
  { rig, graph, pictures, measurements }: Context,
  sourceId: string,
  at: PortRef,
): Pair['picture'] {
  const index = rig.sources.findIndex((s) => s.id === sourceId);
  const seen = graph.nodesOf(at).flatMap((node) => pictures[node]!.filter((a) => a.sourceIndex === index));
  const first = seen.reduce<Arrival | undefined>(
    (best, a) => (best && best.delayMs <= a.delayMs ? best : a),
    undefined,
  );
  if (!first) return null;
  const { terms, settings } = readPath(graph, first);
  return { sourceId, delay: settleDelay(measurements, 'picture', terms), terms, settings };
}

function readWays(
  context: Context,
  sourceIndex: number,
  listener: Rig['listeners'][number],
  picture: Pair['picture'],
): Heard[] {
  const { graph, arrivals, noiseDb, measurements } = context;
  const ways: { arrival: Arrival; sides: string[] }[] = [];
  for (const node of graph.nodesOf(listener.sound)) {
    for (const arrival of arrivals[node]!) {
      if (arrival.sourceIndex !== sourceIndex) continue;
      const side = graph.nodes[node]!.channelId;
      const known = ways.find((w) => w.arrival.way === arrival.way && w.arrival.delayMs === arrival.delayMs);
      if (!known) ways.push({ arrival, sides: [side] });
      else {
        if (!known.sides.includes(side)) known.sides.push(side);
        if (arrival.levelDb > known.arrival.levelDb) known.arrival = arrival;
      }
    }
  }
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
