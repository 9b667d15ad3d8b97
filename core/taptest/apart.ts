/** A reading of one source in one take. */
export interface Reading {
  readonly sourceId: string;
  readonly takeId: string;
  /** What was read less what was to be expected, ms or dB or ppm. */
  readonly off: number;
}

/** What hangs together: sources of one player share what is unknown of it, takes of one file too; some readings are exact. */
export interface Ties {
  readonly playerOf: (sourceId: string) => string;
  readonly fileOf: (takeId: string) => string;
  /** A reading in which nothing is unknown but the two starts: it ties them. */
  readonly isExact: (sourceId: string, takeId: string) => boolean;
}

/** Distances up to here count squared, beyond it plainly: from wide to narrow, so that no first guess holds the rest. */
const NARROWING = [300, 100, 30, 10, 3, 1, 0.3, 0.1];
const TURNS_EACH = 12;
const EXACT_WEIGHT = 1000;

/**
 * How far each reading is off once what nobody knows, one figure a player and one a file, is laid so that the fewest are:
 * each is `player - file + rest`, and the sum of the rests is least (L1, by squares that are weighed anew). One thing that
 * is wrong then shows where it is, and nowhere else, as long as most readings of its row and column are right.
 */
export function restsOf(readings: readonly Reading[], ties: Ties): number[] {
  const player = readings.map((r) => ties.playerOf(r.sourceId));
  const file = readings.map((r) => ties.fileOf(r.takeId));
  const firm = readings.map((r) => (ties.isExact(r.sourceId, r.takeId) ? EXACT_WEIGHT : 1));
  const players = new Map<string, number>();
  const files = new Map<string, number>();
  const rest = (i: number): number => readings[i]!.off - (players.get(player[i]!) ?? 0) + (files.get(file[i]!) ?? 0);
  /** Each start is moved to the weighted mean of what its readings want of it. */
  const move = (starts: Map<string, number>, keys: readonly string[], sign: 1 | -1, weights: readonly number[]) => {
    const sums = new Map<string, { want: number; weight: number }>();
    keys.forEach((key, i) => {
      const sum = sums.get(key) ?? { want: 0, weight: 0 };
      sum.want += weights[i]! * rest(i);
      sum.weight += weights[i]!;
      sums.set(key, sum);
    });
    for (const [key, { want, weight }] of sums) starts.set(key, (starts.get(key) ?? 0) + (sign * want) / weight);
  };
  for (const width of NARROWING)
    for (let turn = 0; turn < TURNS_EACH; turn++) {
      const weights = readings.map((_, i) => firm[i]! / Math.max(width, Math.abs(rest(i))));
      move(files, file, -1, weights);
      move(players, player, 1, weights);
    }
  return readings.map((_, i) => rest(i));
}
