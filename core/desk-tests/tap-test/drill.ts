import { type FftOf, seededRandom } from '#core/audio/samples/index.ts';
import { hiddenTruth, renderTapTake, standInPlayers } from '#core/desk-tests/stand-ins/index.ts';
import { aliveIn, effectsOf, type Fault, faultsOf } from '#core/live/troubleshoot/index.ts';
import { applyEdit, type Rig } from '#core/model/rig/index.ts';
import { type Arrival, evaluate } from '#core/signal/index.ts';
import { type AllExpected, expectedOf } from './expected.ts';
import type { Explanation } from './explain.ts';
import type { Players } from './players.ts';

/** A simulated desk: the rig with a fault that the drawing does not show. */
export interface StandInDesk {
  readonly seed: number;
  /** Null: it is as drawn. */
  readonly faultId: string | null;
}

/** Faults that a tap could find: those by which something comes, or does not come, to one of the takes. */
export function tappable(rig: Rig, listenerIds: readonly string[]): Fault[] {
  const evaluation = evaluate(rig);
  const drawn = presence(expectedOf(rig, evaluation, listenerIds));
  return faultsOf(rig, evaluation).filter((fault) => {
    const desk = deskWith(rig, fault);
    return desk !== null && presence(expectedOf(desk, evaluate(desk), listenerIds, new Set(fault.dead))) !== drawn;
  });
}

const HEARD_DB = 24;
/** Which sources should be found where, and how many of their ways. */
const presence = (expected: AllExpected): string =>
  [...expected.values()]
    .map((e) => (e.underDb !== null && e.underDb <= HEARD_DB ? `${e.sourceId}>${e.listenerId}` : ''))
    .filter(Boolean)
    .sort()
    .join();

/** The rig as it stands with a fault; null where the fault cannot be, or changes nothing but how things sound. */
export function deskWith(rig: Rig, fault: Fault): Rig | null {
  if (!fault.edit) return fault.dead.length > 0 ? rig : null;
  const done = applyEdit(rig, fault.edit);
  return done.ok ? done.rig : null;
}

/** A fault for a drill: any that a tap could find, as likely as it is at desks. */
export function hideFault(faults: readonly Fault[], seed: number): Fault | null {
  const all = faults.reduce((sum, f) => sum + f.weight, 0);
  let left = seededRandom(seed)() * all;
  for (const fault of faults) {
    left -= fault.weight;
    if (left <= 0) return fault;
  }
  return faults.at(-1) ?? null;
}

/**
 * What a guess is worth by what was read. Found: it explains all of it, breaks nothing, and what is hidden is among what
 * the takes do not tell apart. It could be so, where it explains all and is not what is hidden, or the other way round:
 * another take tells. It cannot be so, alone, where readings are left or broken that it should have explained.
 */
export type Guess = 'found' | 'could-be' | 'cannot-be';

export function judgeGuess({ faults, leaves, breaks }: Explanation, hiddenId: string | null): Guess {
  const explainsAll = leaves.length === 0 && breaks.length === 0;
  const isHidden = faults.some((f) => f.id === hiddenId);
  if (explainsAll && isHidden) return 'found';
  return explainsAll || isHidden ? 'could-be' : 'cannot-be';
}

const TAKE_RATE_HZ = 32_000;

/** The take that a destination of a simulated desk would record while all players play. */
export function standInTake(
  fftOf: FftOf,
  rig: Rig,
  { seed, faultId }: StandInDesk,
  listenerId: string,
  players: Players,
): { samples: Float32Array; sampleRateHz: number } {
  const fault = faultId === null ? null : (faultsOf(rig, evaluate(rig)).find((f) => f.id === faultId) ?? null);
  const desk = (fault && deskWith(rig, fault)) ?? rig;
  const evaluation = evaluate(desk);
  const alive = aliveIn(evaluation.graph, { deadBoxes: new Set(fault?.dead), effects: effectsOf(desk, evaluation) });
  const listener = rig.listeners.findIndex((l) => l.id === listenerId);
  return {
    sampleRateHz: TAKE_RATE_HZ,
    samples: renderTapTake(fftOf, {
      rig: desk,
      truth: hiddenTruth(rig, seed),
      listenerId,
      players: standInPlayers(players, seed),
      sampleRateHz: TAKE_RATE_HZ,
      seed: seed + 100 * listener,
      alive: (a: Arrival) => alive.sound(a),
    }),
  };
}

/** Similarity of destinations' takes by which faults they distinguish: for each, its findings with each fault. */
export interface DrillTable {
  readonly listenerIds: readonly string[];
  /** By fault, by listener: what is found there. */
  readonly found: ReadonlyMap<string, readonly string[]>;
  readonly drawn: readonly string[];
}

export function drillTable(rig: Rig, listenerIds: readonly string[], faults: readonly Fault[]): DrillTable {
  const at = (expected: AllExpected) =>
    listenerIds.map((l) => presence(new Map([...expected].filter(([, e]) => e.listenerId === l))));
  const found = new Map<string, readonly string[]>();
  for (const fault of faults) {
    const desk = deskWith(rig, fault);
    if (desk) found.set(fault.id, at(expectedOf(desk, evaluate(desk), listenerIds, new Set(fault.dead))));
  }
  return { listenerIds, found, drawn: at(expectedOf(rig, evaluate(rig), listenerIds)) };
}

const MAX_TAKES = 3;

/**
 * The fewest takes by which a fault could be told from all that a tap could tell it from at all, by whoever chose the best
 * ones; and which.
 */
export function fewestTakes({ listenerIds, found }: DrillTable, faultId: string): readonly string[] {
  const own = found.get(faultId)!;
  const rivals = [...found.values()].filter((f) => f.some((says, i) => says !== own[i]));
  const tells = (chosen: readonly number[]) => rivals.every((r) => chosen.some((i) => r[i] !== own[i]));
  const from = (start: number, chosen: readonly number[], left: number): readonly number[] | null => {
    if (left === 0) return tells(chosen) ? chosen : null;
    for (let i = start; i < listenerIds.length; i++) {
      const found = from(i + 1, [...chosen, i], left - 1);
      if (found) return found;
    }
    return null;
  };
  for (let count = 1; count <= Math.min(MAX_TAKES, listenerIds.length); count++) {
    const chosen = from(0, [], count);
    if (chosen) return chosen.map((i) => listenerIds[i]!);
  }
  return listenerIds;
}
