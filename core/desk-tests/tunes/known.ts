/** What ties the starts of players and takes together. */
export type Join =
  /** The delay from a sound to a take is known: a cable, or a known distance in air. */
  | { readonly kind: 'path'; readonly sourceId: string; readonly takeId: string }
  /** One player plays both. */
  | { readonly kind: 'player'; readonly sourceIds: readonly [string, string] }
  /** Tracks of one file. */
  | { readonly kind: 'file'; readonly takeIds: readonly [string, string] };

/** What may be said about time. Differences of differences always may. */
export interface Known {
  /** How long the source takes to the take. */
  delay(sourceId: string, takeId: string): boolean;
  /** How much later one source is than another at any take: `t(s,l) - t(s2,l)` less what their players began apart. */
  betweenSources(sourceId: string, otherId: string): boolean;
  /** How much later a source is at one take than at another. */
  betweenTakes(takeId: string, otherId: string): boolean;
  /** Number of informative joins still missing until everything is known. */
  readonly lacking: number;
}

/**
 * What the readings of many sources at many takes tell of the delays between them. Each reading is `a(s) + d(s,l) - b(l)`
 * with starts a and b that no one knows; every join takes one unknown away. Sources and takes that hang together by
 * joins share one unknown start: union-find over both.
 */
export function whatIsKnown(sourceIds: readonly string[], takeIds: readonly string[], joins: readonly Join[]): Known {
  const parent = new Map<string, string>([...sourceIds.map(source), ...takeIds.map(take)].map((id) => [id, id]));
  const root = (id: string): string => {
    let at = id;
    for (let up = parent.get(at)!; up !== at; up = parent.get(at)!) at = up;
    parent.set(id, at);
    return at;
  };
  let lacking = sourceIds.length + takeIds.length - 1;
  for (const [a, b] of joins.map(endsOf)) {
    if (!parent.has(a) || !parent.has(b)) continue;
    const [x, y] = [root(a), root(b)];
    if (x === y) continue;
    parent.set(x, y);
    lacking--;
  }
  const together = (a: string, b: string): boolean => parent.has(a) && parent.has(b) && root(a) === root(b);
  return {
    delay: (sourceId, takeId) => together(source(sourceId), take(takeId)),
    betweenSources: (sourceId, otherId) => together(source(sourceId), source(otherId)),
    betweenTakes: (takeId, otherId) => together(take(takeId), take(otherId)),
    lacking,
  };
}

const source = (id: string): string => `source ${id}`;
const take = (id: string): string => `take ${id}`;

function endsOf(join: Join): readonly [string, string] {
  switch (join.kind) {
    case 'path':
      return [source(join.sourceId), take(join.takeId)];
    case 'player':
      return [source(join.sourceIds[0]), source(join.sourceIds[1])];
    case 'file':
      return [take(join.takeIds[0]), take(join.takeIds[1])];
  }
}
