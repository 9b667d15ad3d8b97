import { type Alive, aliveIn, effectsOf } from '#core/live/troubleshoot/index.ts';
import type { Rig } from '#core/model/rig/index.ts';
import type { Interval } from '#core/model/units/index.ts';
import { type DelayTerm, type Evaluation, isLost, readPath } from '#core/signal/index.ts';

/** One path by which a source should arrive in a take. */
export interface ExpectedWay {
  readonly levelDb: number;
  readonly levelsDb: Interval;
  readonly delayMs: Interval;
  readonly polarity: 1 | -1;
  readonly lowHz: number;
  readonly highHz: number;
  readonly terms: readonly DelayTerm[];
  readonly deviceIds: readonly string[];
  /** The device whose clock counts its samples last. */
  readonly clock: string | null;
  /** It goes through air: a speaker and a room turn polarity and color as they like. */
  readonly throughAir: boolean;
  /** A program on the way lets voices pass only. */
  readonly heldBack: boolean;
}

/** What a rig has one expect of a source in a take. */
export interface Expected {
  readonly sourceId: string;
  readonly listenerId: string;
  /** Loudest first; empty where it should not come. */
  readonly ways: readonly ExpectedWay[];
  /** Level below the loudest source that should arrive there, dB; null where it should not. */
  readonly underDb: number | null;
}

export const cellKey = (sourceId: string, listenerId: string): string => `${sourceId}>${listenerId}`;
export type AllExpected = ReadonlyMap<string, Expected>;

/** Expected contents of the takes of these destinations, with all that the rules know of cables and apps. */
export function expectedOf(
  rig: Rig,
  evaluation: Evaluation,
  listenerIds: readonly string[],
  deadBoxes: ReadonlySet<string> = new Set(),
): AllExpected {
  const effects = effectsOf(rig, evaluation);
  const alive = aliveIn(evaluation.graph, { deadBoxes, effects });
  const voicesOnly = new Set(effects.marks.flatMap((m) => (m.flag === 'cut-up' && m.deviceId ? [m.deviceId] : [])));
  const out = new Map<string, Expected>();
  for (const listenerId of listenerIds) {
    const own = evaluation.pairs
      .filter((p) => p.listenerId === listenerId)
      .map(({ sourceId, ways }) => ({ sourceId, ways: waysOf(rig, evaluation, ways, alive, voicesOnly) }));
    const loudest = Math.max(...own.flatMap(({ ways }) => ways.map((w) => w.levelDb)));
    for (const { sourceId, ways } of own)
      out.set(cellKey(sourceId, listenerId), {
        sourceId,
        listenerId,
        ways,
        underDb: ways[0] ? loudest - ways[0].levelDb : null,
      });
  }
  return out;
}

function waysOf(
  rig: Rig,
  { graph }: Evaluation,
  ways: Evaluation['pairs'][number]['ways'],
  alive: Alive,
  voicesOnly: ReadonlySet<string>,
): ExpectedWay[] {
  const media = new Map(rig.cables.map((c) => [c.id, c.medium]));
  return ways
    .filter((w) => !isLost(w.levelDb.nominal, w.scale) && alive.sound(w.arrival))
    .map((w) => ({
      levelDb: w.levelDb.nominal,
      levelsDb: w.levelDb,
      delayMs: w.delay.value,
      polarity: w.polarity,
      lowHz: w.band.lowHz,
      highHz: w.band.highHz,
      terms: w.soundTerms,
      deviceIds: w.deviceIds,
      clock: w.clock,
      throughAir: readPath(graph, w.arrival).edges.some(
        (e) => 'cableId' in e.via && media.get(e.via.cableId) === 'air',
      ),
      heldBack: w.deviceIds.some((id) => voicesOnly.has(id)),
    }));
}
