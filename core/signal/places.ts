import type { PortRef, Rig } from '#core/model/rig/index.ts';
import type { Arrival } from './arrival.ts';
import { type BandsMeasured, bandOf } from './band.ts';
import { delayOf } from './delay.ts';
import type { DelayTerm, Graph } from './graph.ts';
import type { Pair, ReceivedPath } from './heard.ts';
import { difference, settle, settleDelay } from './offset.ts';
import { readPath } from './path.ts';
import type { Place, Way } from './place.ts';
import { say } from './sayings.ts';
import type { Spread } from './spread.ts';
import type { Traced } from './trace.ts';
import { ECHO_MASKED_DB } from './verdict.ts';

const keyOf = ({ deviceId, portId }: PortRef): string => `${deviceId}/${portId}`;

export function placeAt(spread: Spread, at: PortRef): Place {
  const key = keyOf(at);
  const { places, before, traced, noiseDb } = spread.sounds.value;
  const known = places.get(key);
  if (known) return known;
  const nodes = spread.graph.nodesOf(at);
  const place: Place = {
    nodes,
    noiseDb: nodes.map((n) => noiseDb[n]!),
    heard: heardAt(spread.graph, traced, nodes),
    first: firstPictures(spread, nodes),
    pictures: new Map(),
    read: new Map(),
  };
  const old = before.get(key);
  if (old) takeOver(place, old);
  before.delete(key);
  places.set(key, place);
  return place;
}

/** Carries over what was computed for a place and has not changed: video and audio that still arrive as they did. */
function takeOver(place: Place, old: Place): void {
  for (const [source, picture] of old.pictures)
    if (place.first.get(source) === old.first.get(source)) place.pictures.set(source, picture);
  const noiseDb = new Map(place.nodes.map((n, i) => [n, place.noiseDb[i]!]));
  const isQuiet = place.noiseDb.every((db, i) => db === old.noiseDb[i]);
  for (const [key, { source, picture, ways }] of old.read) {
    if (!isSameWays(place.heard.get(source) ?? NO_WAYS, old.heard.get(source) ?? NO_WAYS)) continue;
    const now = isQuiet ? ways : ways.map((way) => ({ ...way, noiseDb: finite(noiseDb.get(way.arrival.node)!) }));
    place.read.set(key, { source, picture, ways: now });
  }
}

const isSameWays = (a: readonly Way[], b: readonly Way[]): boolean =>
  a.length === b.length &&
  a.every(
    (w, i) =>
      w.arrival === b[i]!.arrival &&
      w.sides.length === b[i]!.sides.length &&
      w.sides.every((s, k) => s === b[i]!.sides[k]),
  );

const finite = (db: number): number | null => (Number.isFinite(db) ? db : null);

function heardAt(graph: Graph, traced: Traced, nodes: readonly number[]): Map<number, Way[]> {
  const heard = new Map<number, Way[]>();
  for (const node of nodes) {
    const side = graph.nodes[node]!.channelId;
    for (const arrival of traced.sound.lists[node]!) {
      const ways = heard.get(arrival.sourceIndex) ?? [];
      const known = ways.find(
        (w) => w.arrival.way === arrival.way && w.arrival.delayMs.nominal === arrival.delayMs.nominal,
      );
      if (!known) heard.set(arrival.sourceIndex, [...ways, { arrival, sides: [side] }]);
      else {
        if (!known.sides.includes(side)) known.sides.push(side);
        if (arrival.levelDb > known.arrival.levelDb) known.arrival = arrival;
      }
    }
  }
  return heard;
}

function firstPictures(spread: Spread, nodes: readonly number[]): Map<number, Arrival> {
  const first = new Map<number, Arrival>();
  const msOf = (arrival: Arrival): number => delayOf(spread, arrival).value.nominal;
  for (const node of nodes)
    for (const arrival of spread.sounds.value.traced.picture.lists[node]!) {
      const known = first.get(arrival.sourceIndex);
      if (!known || msOf(arrival) < msOf(known)) first.set(arrival.sourceIndex, arrival);
    }
  return first;
}

/** The video of a source as seen at a place; null where it does not arrive. */
export function pictureAt(spread: Spread, at: PortRef, sourceIndex: number): Pair['picture'] {
  const place = placeAt(spread, at);
  const first = place.first.get(sourceIndex);
  if (!first) return null;
  const known = place.pictures.get(sourceIndex);
  if (known) return known;
  const { terms, settings } = readPath(spread.graph, first);
  const sourceId = spread.parts.sources[sourceIndex]!.id;
  const picture = { sourceId, delay: settleDelay(spread.measurements, 'picture', terms), terms, settings };
  place.pictures.set(sourceIndex, picture);
  return picture;
}

const NO_WAYS: readonly Way[] = [];

/** Every way of a source to a place, the loudest first, against the picture that it has to keep time with. */
export function waysAt(
  spread: Spread,
  at: PortRef,
  sourceIndex: number,
  picture: Pair['picture'],
  seenAt: PortRef | undefined,
  bands: BandsMeasured,
): readonly ReceivedPath[] {
  const place = placeAt(spread, at);
  const key = picture && seenAt ? `${sourceIndex} ${picture.sourceId} ${keyOf(seenAt)}` : `${sourceIndex}`;
  const known = place.read.get(key);
  if (known && known.picture === picture) return known.ways;
  const measured = bands(at, spread.parts.sources[sourceIndex]!.id);
  const ways = readWays(spread, place.heard.get(sourceIndex) ?? NO_WAYS, picture, measured);
  place.read.set(key, { source: sourceIndex, picture, ways });
  return ways;
}

/** A second path this far below the loudest one is not reported, dB. */
const TOLD_DB = 60;

function readWays(
  { graph, sounds, measurements }: Spread,
  ways: readonly Way[],
  picture: Pair['picture'],
  bands: ReturnType<BandsMeasured>,
): ReceivedPath[] {
  const { noiseDb } = sounds.value;
  const loudest = Math.max(...ways.map((w) => w.arrival.levelDb));
  let first: readonly DelayTerm[] | null = null;
  return ways
    .filter((w) => w.arrival.levelDb >= loudest - TOLD_DB)
    .sort((a, b) => b.arrival.levelDb - a.arrival.levelDb)
    .map(({ arrival, sides }) => {
      const path = readPath(graph, arrival);
      const isTold = first !== null && loudest - arrival.levelDb < ECHO_MASKED_DB;
      const afterFirst = isTold ? settle(measurements, say.afterLoudestPath(), difference(path.terms, first!)) : null;
      first ??= path.terms;
      const offsetTerms = picture ? difference(path.terms, picture.terms) : [];
      return {
        arrival,
        levelDb: { low: arrival.levelLowDb, nominal: arrival.levelDb, high: arrival.levelHighDb },
        scale: graph.nodes[arrival.node]!.scale,
        noiseDb: finite(noiseDb[arrival.node]!),
        headroomDb: Number.isFinite(arrival.headroomDb) ? arrival.headroomDb : null,
        delay: settleDelay(measurements, 'sound', path.terms),
        band: bandOf(arrival, path.deviceIds, bands),
        conversions: arrival.conversions,
        polarity: arrival.polarity,
        clock: arrival.clock,
        deviceIds: path.deviceIds,
        sides,
        afterFirst,
        offset: picture ? settle(measurements, say.audioMinusVideo(), offsetTerms) : null,
        soundTerms: path.terms,
        offsetTerms,
        settings: path.settings,
      };
    });
}

/** Null where nothing is heard. */
export const loudestOf = (ways: readonly Way[] | undefined): number | null =>
  ways ? ways.reduce((db, w) => Math.max(db, w.arrival.levelDb), Number.NEGATIVE_INFINITY) : null;

/** Spill this far below a source doesn't prevent mixing its track (typical of two microphones), dB. */
const SPILL_DB = 15;

/** Other sources at a place that stand near one there, by their ids. */
export function nearlyAsLoud({ heard }: Place, sources: Rig['sources'], sourceIndex: number): string[] {
  const ownDb = loudestOf(heard.get(sourceIndex));
  if (ownDb === null) return [];
  return sources.flatMap(({ id }, i) => {
    const db = i === sourceIndex ? null : loudestOf(heard.get(i));
    return db !== null && db > ownDb - SPILL_DB ? [id] : [];
  });
}
