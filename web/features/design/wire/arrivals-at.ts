import type { PortRef } from '#core/model/rig/index.ts';
import type { Figure } from '#core/model/units/index.ts';
import { type Arrival, delayOf, type Evaluation, type Scale } from '#core/signal/index.ts';

export interface AtTap {
  /** Loudest first; left and right of one way once. */
  readonly sounds: readonly { readonly arrival: Arrival; readonly delay: Figure; readonly scale: Scale }[];
  /** Earliest first, one of each source. */
  readonly pictures: readonly { readonly arrival: Arrival; readonly delay: Figure }[];
  readonly noise: { readonly db: number; readonly scale: Scale } | null;
}

/** Everything at a port, its channels taken together. */
export function arrivalsAt(evaluation: Evaluation, tap: PortRef): AtTap {
  const { graph, arrivals, pictures, noiseDb } = evaluation;
  const sounds: { arrival: Arrival; scale: Scale }[] = [];
  const seen: { arrival: Arrival; delay: Figure }[] = [];
  let noise: AtTap['noise'] = null;
  for (const node of graph.nodesOf(tap)) {
    const { scale, carries } = graph.nodes[node]!;
    if (carries === 'picture') {
      const all = pictures[node]!.map((arrival) => ({ arrival, delay: delayOf(evaluation, arrival, 'picture') }));
      for (const a of all.sort((x, y) => x.delay.value.nominal - y.delay.value.nominal))
        if (!seen.some((o) => o.arrival.sourceIndex === a.arrival.sourceIndex)) seen.push(a);
      continue;
    }
    const db = noiseDb[node]!;
    if (Number.isFinite(db) && (!noise || db > noise.db)) noise = { db, scale };
    for (const arrival of arrivals[node]!) {
      const twin = sounds.findIndex(
        (o) =>
          o.arrival.sourceIndex === arrival.sourceIndex &&
          o.arrival.way === arrival.way &&
          o.arrival.delayMs.nominal === arrival.delayMs.nominal,
      );
      if (twin < 0) sounds.push({ arrival, scale });
      else if (arrival.levelDb > sounds[twin]!.arrival.levelDb) sounds[twin] = { arrival, scale };
    }
  }
  sounds.sort((a, b) => b.arrival.levelDb - a.arrival.levelDb);
  return {
    sounds: sounds.map((s) => ({ ...s, delay: delayOf(evaluation, s.arrival, 'sound') })),
    pictures: seen,
    noise,
  };
}
