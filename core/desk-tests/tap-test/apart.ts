/** A reading of one source in one take. */
export interface Reading {
  readonly sourceId: string;
  readonly takeId: string;
  /** What was read less what was to be expected, ms or dB or ppm. */
  readonly off: number;
  /** By how much it may be off and agree: what is known badly gives way to what is known well. 1 where absent. */
  readonly tolerance?: number;
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
const TURNS_EACH = 4;
const EXACT_WEIGHT = 1000;

/**
 * How far each reading is off once what no one knows, one figure a player and one a file, is laid so that the fewest are:
 * each is `player - file + rest`, and the sum of the rests, each by its tolerance, is least (L1, by squares that are weighed
 * again). One thing that is wrong then shows where it is, and nowhere else, as long as most readings of its row and column
 * are right.
 * @param within  no start is further from 0 than this; any where absent
 */
export function restsOf(readings: readonly Reading[], ties: Ties, within = Number.POSITIVE_INFINITY): number[] {
  const starts = new Map<string, number>();
  const startOf = (key: string): number => starts.get(key) ?? starts.set(key, starts.size).size - 1;
  const rows = readings.map((r) => ({
    player: startOf(`player ${ties.playerOf(r.sourceId)}`),
    file: startOf(`file ${ties.fileOf(r.takeId)}`),
    off: r.off,
    firm: (ties.isExact(r.sourceId, r.takeId) ? EXACT_WEIGHT : 1) / Math.max(1, r.tolerance ?? 1),
  }));
  let laid = new Float64Array(starts.size);
  const rest = ({ player, file, off }: (typeof rows)[number]): number => off - laid[player]! + laid[file]!;
  for (const width of NARROWING)
    for (let turn = 0; turn < TURNS_EACH; turn++)
      laid = laidBySquares(
        rows.map((row) => ({ ...row, weight: row.firm / Math.max(width, Math.abs(rest(row))) })),
        starts.size,
      ).map((start) => Math.max(-within, Math.min(within, start)));
  return rows.map(rest);
}

interface Weighed {
  readonly player: number;
  readonly file: number;
  readonly off: number;
  readonly weight: number;
}

/** All may be moved together, and nothing changes: this keeps them about 0. */
const HELD = 1e-9;

/** Starts that leave the least sum of weighed squares: normal equations, by Cholesky's halves. */
function laidBySquares(rows: readonly Weighed[], count: number): Float64Array<ArrayBuffer> {
  const matrix = new Float64Array(count * count);
  const laid = new Float64Array(count);
  for (let i = 0; i < count; i++) matrix[i * count + i] = HELD;
  for (const { player, file, off, weight } of rows) {
    matrix[player * count + player]! += weight;
    matrix[file * count + file]! += weight;
    matrix[player * count + file]! -= weight;
    matrix[file * count + player]! -= weight;
    laid[player]! += weight * off;
    laid[file]! -= weight * off;
  }
  for (let j = 0; j < count; j++) {
    for (let i = j; i < count; i++) {
      let sum = matrix[i * count + j]!;
      for (let k = 0; k < j; k++) sum -= matrix[i * count + k]! * matrix[j * count + k]!;
      matrix[i * count + j] = i === j ? Math.sqrt(Math.max(HELD, sum)) : sum / matrix[j * count + j]!;
    }
    let right = laid[j]!;
    for (let k = 0; k < j; k++) right -= matrix[j * count + k]! * laid[k]!;
    laid[j] = right / matrix[j * count + j]!;
  }
  for (let j = count - 1; j >= 0; j--) {
    let right = laid[j]!;
    for (let k = j + 1; k < count; k++) right -= matrix[k * count + j]! * laid[k]!;
    laid[j] = right / matrix[j * count + j]!;
  }
  return laid;
}
