import { memoized } from '#core/base/memo/index.ts';
import { atMoment, type Rig } from '#core/model/rig/index.ts';
import { type Evaluation, evaluate } from './evaluate.ts';

const evaluated = memoized((rig: Rig): Evaluation => evaluate(rig));

/** What every destination hears in a moment; computed once for each rig and moment. */
export const evaluationAt = (rig: Rig, momentId: string | null): Evaluation => evaluated(atMoment(rig, momentId));

/** A pair that is heard otherwise in two moments. */
export interface PairChange {
  readonly sourceId: string;
  readonly listenerId: string;
  readonly says: 'starts' | 'stops' | 'louder' | 'quieter' | 'later' | 'earlier';
  /** How much louder in dB, or later in ms; 0 where it starts or stops. */
  readonly by: number;
}

/** Smallest change of level (dB) or time (ms) that is reported. */
const TOLD_DB = 1;
const TOLD_MS = 1;

/** Where two moments differ in what is heard: pair by pair, in the order of the table. */
export function pairChanges(before: Evaluation, after: Evaluation): PairChange[] {
  const there = new Map(after.pairs.map((p) => [`${p.sourceId}>${p.listenerId}`, p]));
  return before.pairs.flatMap((pair): PairChange[] => {
    const { sourceId, listenerId } = pair;
    const [was] = pair.ways;
    const is = there.get(`${sourceId}>${listenerId}`)?.ways[0];
    const told = (says: PairChange['says'], by = 0): PairChange[] => [{ sourceId, listenerId, says, by }];
    if (!was || !is) return was ? told('stops') : is ? told('starts') : [];
    const db = is.levelDb.nominal - was.levelDb.nominal;
    if (Math.abs(db) >= TOLD_DB) return told(db > 0 ? 'louder' : 'quieter', db);
    const ms = is.delay.value.nominal - was.delay.value.nominal;
    return Math.abs(ms) >= TOLD_MS ? told(ms > 0 ? 'later' : 'earlier', ms) : [];
  });
}
