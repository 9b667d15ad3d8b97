import {
  isSettingTask,
  type PlanCell,
  type Rig,
  type SettingTask,
  settingKey,
  type ToleranceId,
} from '#core/model/rig/index.ts';
import type { Arrival } from './arrival.ts';
import { type BandsMeasured, bandsMeasured } from './band.ts';
import type { Graph } from './graph.ts';
import type { Pair } from './heard.ts';
import type { Loop } from './loops.ts';
import type { Measurements } from './offset.ts';
import { loudestOf, nearlyAsLoud, pictureAt, placeAt, waysAt } from './places.ts';
import { mainVoiceOf } from './roles.ts';
import { type Spread, spreadOf } from './spread.ts';
import { toleranceOf } from './tolerance.ts';
import { judge } from './verdict.ts';

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

/**
 * What every listener hears of every source, and when. Pure; fast enough for every key press: what differs by a few
 * settings from a rig that was looked at costs what these touch.
 * @param near  an evaluation of a rig with the same devices and cables; where absent, the last one
 */
export function evaluate(rig: Rig, near?: Evaluation): Evaluation {
  const spread = spreadOf(rig, near?.graph);
  const { graph, loops, measurements, sounds } = spread;
  const before = near ?? latest.get(rig.cables);
  let rows = before && rowsOf.get(before);
  let pairs: readonly Pair[] | null = null;
  const evaluation: Evaluation = {
    graph,
    measurements,
    loops: loops.loops,
    // What follows is worked out when it is first asked for.
    get arrivals() {
      return sounds.value.traced.sound.lists;
    },
    get pictures() {
      return sounds.value.traced.picture.lists;
    },
    get noiseDb() {
      return sounds.value.noiseDb;
    },
    get dropped() {
      return sounds.value.traced.dropped;
    },
    get pairs() {
      if (!pairs) {
        rows = readRows(rig, spread, rows ?? NO_ROWS);
        rowsOf.set(evaluation, rows);
        pairs = [...rows.values()].flatMap((row) => row.pairs);
      }
      return pairs;
    },
  };
  if (!near) latest.set(rig.cables, evaluation);
  return evaluation;
}

function readRows(rig: Rig, spread: Spread, before: Rows): Rows {
  const context: Context = {
    rig,
    spread,
    tasks: rig.tasks.filter(isSettingTask).map((task) => ({ key: settingKey(task.deviceId, task.settingId), task })),
    bands: bandsMeasured(rig),
    sourceAt: new Map(rig.sources.map((s, i) => [s.id, i])),
    voiceAt: rig.sources.findIndex((s) => s.id === mainVoiceOf(rig)),
    cells: new Map(rig.plan.map((c) => [`${c.sourceId}>${c.listenerId}`, c])),
    before,
  };
  return new Map(rig.listeners.map((listener) => [listener.id, readListener(context, listener)]));
}

/** The pairs of one listener, with what they rest on. */
interface Row {
  readonly rests: readonly unknown[];
  readonly pairs: readonly Pair[];
  /** What each of the pairs rests on. */
  readonly restsEach: readonly (readonly unknown[])[];
}

type Rows = ReadonlyMap<string, Row>;
const NO_ROWS: Rows = new Map();
const rowsOf = new WeakMap<Evaluation, Rows>();
const latest = new WeakMap<Rig['cables'], Evaluation>();

interface Context {
  readonly rig: Rig;
  readonly spread: Spread;
  /** What waits to be set at the desk, by `device.setting`. */
  readonly tasks: readonly { readonly key: string; readonly task: SettingTask }[];
  readonly bands: BandsMeasured;
  readonly sourceAt: ReadonlyMap<string, number>;
  /** The main voice; -1 where there is none. */
  readonly voiceAt: number;
  readonly cells: ReadonlyMap<string, PlanCell>;
  /** Rows as they were last. */
  readonly before: Rows;
}

type Listener = Rig['listeners'][number];

/** The very row, or the very pairs, where they rest on the very same: what is drawn of them need not be drawn again. */
function readListener(context: Context, listener: Listener): Row {
  const { rig, spread, voiceAt } = context;
  const place = placeAt(spread, listener.sound);
  const seen = listener.picture ? placeAt(spread, listener.picture) : null;
  const rests = [listener, place, seen, rig.plan, rig.tasks, rig.sources, rig.session, voiceAt];
  const before = context.before.get(listener.id);
  if (before && isSame(before.rests, rests)) return before;
  const [pairs, restsEach]: [Pair[], (readonly unknown[])[]] = [[], []];
  const tolerance = toleranceOf(toleranceIdOf(rig, listener));
  const voiceDb = loudestOf(place.heard.get(voiceAt));
  rig.sources.forEach((source, sourceIndex) => {
    const cell = context.cells.get(`${source.id}>${listener.id}`);
    const inTime = cell?.inTimeWith ? (context.sourceAt.get(cell.inTimeWith) ?? -1) : sourceIndex;
    const picture = cell?.keepTime === false || !listener.picture ? null : pictureAt(spread, listener.picture, inTime);
    const ways = waysAt(spread, listener.sound, sourceIndex, picture, listener.picture, context.bands);
    const ownDb = sourceIndex === voiceAt ? null : loudestOf(place.heard.get(sourceIndex));
    const underVoiceDb = voiceDb === null || ownDb === null ? null : voiceDb - ownDb;
    const besides = cell?.ownTrack ? nearlyAsLoud(place, rig.sources, sourceIndex) : NOBODY;
    const acting = (key: string) => picture?.settings.includes(key) || ways[0]?.settings.includes(key);
    const openTasks = context.tasks.filter(({ key }) => acting(key)).map(({ task }) => task);
    const restsHere = [source, cell, ways, picture, tolerance, underVoiceDb, besides.join(), ...openTasks];
    restsEach.push(restsHere);
    const known = before?.restsEach[sourceIndex];
    if (known && isSame(known, restsHere)) {
      pairs.push(before.pairs[sourceIndex]!);
      return;
    }
    const wantedDb = cell?.underVoiceDb;
    const level = underVoiceDb === null || wantedDb === undefined ? null : { isDb: underVoiceDb, wantedDb };
    const want = cell?.want ?? null;
    pairs.push({
      sourceId: source.id,
      listenerId: listener.id,
      want,
      ways,
      picture,
      underVoiceDb,
      besides,
      verdict: judge({ want, ways, tolerance, openTasks, level, shared: besides.length > 0 }),
    });
  });
  return { rests, pairs, restsEach };
}

const isSame = (a: readonly unknown[], b: readonly unknown[]): boolean =>
  a.length === b.length && a.every((x, i) => x === b[i]);

const NOBODY: readonly string[] = [];

/** A listener's own tolerance, else the session's. */
export const toleranceIdOf = (rig: Rig, listener: Listener): ToleranceId =>
  listener.toleranceId ?? rig.session.toleranceId;
