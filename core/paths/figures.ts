import { type Pair, uncertain } from '#core/signal/index.ts';
import type { Interval } from '#core/units/index.ts';

/** What is uncertain of a pair's offset, figure by figure: how often each counts, and between which limits it lies. */
export const openFigures = (pair: Pair): ReadonlyMap<string, { count: number; ms: Interval }> =>
  new Map(uncertain(pair.ways[0]?.offsetTerms ?? []).map((t) => [t.term.key, { count: t.count, ms: t.term.ms }]));
