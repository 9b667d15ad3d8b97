import type { Interval } from '#core/model/units/index.ts';
import { type Pair, uncertain } from '#core/signal/index.ts';

/** Uncertain figures of a pair's offset: coefficient of each, and its limits. */
export const openFigures = (pair: Pair): ReadonlyMap<string, { count: number; ms: Interval }> =>
  new Map(uncertain(pair.ways[0]?.offsetTerms ?? []).map((t) => [t.term.key, { count: t.count, ms: t.term.ms }]));
