import type { PortRef } from '#core/rig/index.ts';
import type { Arrival, Evaluation, Scale } from '#core/signal/index.ts';

export interface AtTap {
  /** Loudest first; left and right of one way once. */
  readonly sounds: readonly { readonly arrival: Arrival; readonly scale: Scale }[];
  /** Earliest first, one of each source. */
  readonly pictures: readonly Arrival[];
  readonly noise: { readonly db: number; readonly scale: Scale } | null;
}

/** Everything at a port, its channels taken together. */
export function arrivalsAt({ graph, arrivals, pictures, noiseDb }: Evaluation, tap: PortRef): AtTap {
  const sounds: { arrival: Arrival; scale: Scale }[] = [];
  const seen: Arrival[] = [];
  let noise: AtTap['noise'] = null;
  for (const node of graph.nodesOf(tap)) {
    const { scale, carries } = graph.nodes[node]!;
    if (carries === 'picture') {
      for (const a of [...pictures[node]!].sort((x, y) => x.delayMs - y.delayMs))
        if (!seen.some((o) => o.sourceIndex === a.sourceIndex)) seen.push(a);
      continue;
    }
    const db = noiseDb[node]!;
    if (Number.isFinite(db) && (!noise || db > noise.db)) noise = { db, scale };
    for (const arrival of arrivals[node]!) {
      const twin = sounds.findIndex(
        (o) =>
          o.arrival.sourceIndex === arrival.sourceIndex &&
          o.arrival.way === arrival.way &&
          o.arrival.delayMs === arrival.delayMs,
      );
      if (twin < 0) sounds.push({ arrival, scale });
      else if (arrival.levelDb > sounds[twin]!.arrival.levelDb) sounds[twin] = { arrival, scale };
    }
  }
  sounds.sort((a, b) => b.arrival.levelDb - a.arrival.levelDb);
  return { sounds, pictures: seen, noise };
}
