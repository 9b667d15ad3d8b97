/** A bundle's upright piece within one channel: where it is joined on the left, and where on the right. */
export interface Upright {
  readonly bundle: number;
  readonly lefts: readonly number[];
  readonly rights: readonly number[];
}

const spanOf = ({ lefts, rights }: Upright): readonly [number, number] => {
  let [low, high] = [Number.POSITIVE_INFINITY, Number.NEGATIVE_INFINITY];
  for (const y of lefts) [low, high] = [Math.min(low, y), Math.max(high, y)];
  for (const y of rights) [low, high] = [Math.min(low, y), Math.max(high, y)];
  return [low, high];
};

/** Two pieces nearer than this would be read as one. */
const CLEAR = 4;
/** Two level pieces on one another are worse than any crossing. */
const SAME_LEVEL = 1000;
/** More pieces than this are only kept apart, not sorted by crossings. */
const SORTED_UP_TO = 260;

const within = (y: number, [low, high]: readonly [number, number]): boolean => y > low && y < high;
function meets(a: readonly number[], b: readonly number[]): boolean {
  for (const y of a) for (const z of b) if (Math.abs(y - z) < CLEAR) return true;
  return false;
}
/** Too far apart to cross or to touch, whichever stands left. */
const apart = (a: readonly [number, number], b: readonly [number, number]): boolean =>
  a[0] >= b[1] + CLEAR || b[0] >= a[1] + CLEAR;

/** What it costs to have `a` left of `b`: level pieces of each that cross the other, or lie on one another. */
function costOf(a: Upright, aSpan: readonly [number, number], b: Upright, bSpan: readonly [number, number]): number {
  return crossed(a, aSpan, b, bSpan) + (meets(a.rights, b.lefts) ? SAME_LEVEL : 0);
}

/**
 * A track for every upright, from the left: no two on one track touch, and as few level pieces cross them as may be.
 * @returns track of each, in the order given; -1 for what runs straight through and needs none
 */
export function findTracks(uprights: readonly Upright[]): Int32Array {
  const spans = uprights.map(spanOf);
  const track = new Int32Array(uprights.length).fill(-1);
  const bent = [...uprights.keys()].filter((i) => spans[i]![1] > spans[i]![0]);
  const order =
    bent.length <= SORTED_UP_TO ? sortByCost(uprights, spans, bent) : bent.sort((i, j) => spans[i]![0] - spans[j]![0]);
  // Each goes as far left as those that it must stay right of allow: those whose spans it touches, and that come before.
  const used: number[][] = [];
  order.forEach((i, n) => {
    let at = 0;
    for (let m = 0; m < n; m++) {
      const j = order[m]!;
      // Whether they stand clear of each other or touch is one question here: what touches shares no track.
      const clear = spans[i]![0] > spans[j]![1] + CLEAR || spans[j]![0] > spans[i]![1] + CLEAR;
      if (!clear) at = Math.max(at, track[j]! + 1);
    }
    // A track further left may be free, but not one that it would touch.
    while ((used[at] ?? []).some((j) => spans[i]![0] <= spans[j]![1] + CLEAR && spans[j]![0] <= spans[i]![1] + CLEAR))
      at++;
    track[i] = at;
    used[at] = [...(used[at] ?? []), i];
  });
  return track;
}

/** From the left to the right, so that the cost of all pairs is small: whoever loses least by standing first goes first. */
function sortByCost(
  uprights: readonly Upright[],
  spans: readonly (readonly [number, number])[],
  items: number[],
): number[] {
  const n = items.length;
  const lead = new Float64Array(n * n);
  const score = new Float64Array(n);
  for (let x = 0; x < n; x++) {
    for (let y = x + 1; y < n; y++) {
      const [i, j] = [items[x]!, items[y]!];
      if (apart(spans[i]!, spans[j]!)) continue;
      const first = costOf(uprights[i]!, spans[i]!, uprights[j]!, spans[j]!);
      const second = costOf(uprights[j]!, spans[j]!, uprights[i]!, spans[i]!);
      lead[x * n + y] = second - first;
      lead[y * n + x] = first - second;
      score[x]! += second - first;
      score[y]! += first - second;
    }
  }
  const left = new Uint8Array(n).fill(1);
  const order: number[] = [];
  for (let k = 0; k < n; k++) {
    let best = -1;
    for (let x = 0; x < n; x++) {
      if (
        left[x] &&
        (best < 0 ||
          score[x]! > score[best]! ||
          (score[x] === score[best] && spans[items[x]!]![0] < spans[items[best]!]![0]))
      )
        best = x;
    }
    left[best] = 0;
    order.push(best);
    for (let x = 0; x < n; x++) if (left[x]) score[x]! -= lead[x * n + best]!;
  }
  swapNeighbours(order, lead, n);
  return order.map((x) => items[x]!);
}

/** A last look at neighbors: changed where the pair costs less the other way. */
function swapNeighbours(order: number[], lead: Float64Array, n: number): void {
  for (let round = 0; round < n; round++) {
    let changed = false;
    for (let k = 0; k + 1 < order.length; k++) {
      const [x, y] = [order[k]!, order[k + 1]!];
      if (lead[x * n + y]! >= 0) continue;
      order[k] = y;
      order[k + 1] = x;
      changed = true;
    }
    if (!changed) return;
  }
}

/** How often the pieces of one channel cross on their tracks. */
export function countOnTracks(uprights: readonly Upright[], track: Int32Array): number {
  const spans = uprights.map(spanOf);
  let crossings = 0;
  for (let i = 0; i < uprights.length; i++) {
    // What runs straight crosses every upright that spans its level.
    if (track[i]! < 0) {
      const y = spans[i]![0];
      for (let j = 0; j < uprights.length; j++) if (track[j]! >= 0 && within(y, spans[j]!)) crossings++;
      continue;
    }
    for (let j = i + 1; j < uprights.length; j++) {
      if (track[j]! < 0 || apart(spans[i]!, spans[j]!)) continue;
      const [a, b] = track[i]! <= track[j]! ? [i, j] : [j, i];
      crossings += costOf(uprights[a]!, spans[a]!, uprights[b]!, spans[b]!) % SAME_LEVEL;
    }
  }
  return crossings;
}

function crossed(a: Upright, aSpan: readonly [number, number], b: Upright, bSpan: readonly [number, number]): number {
  let count = 0;
  for (const y of a.rights) if (within(y, bSpan)) count++;
  for (const y of b.lefts) if (within(y, aSpan)) count++;
  return count;
}
