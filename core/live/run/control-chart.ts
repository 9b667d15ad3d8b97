/** One figure of one day. */
export interface ChartPoint {
  readonly at: string;
  readonly value: number;
}

export interface ControlChart {
  /** What the baseline says: mean and standard deviation of its points. */
  readonly mean: number;
  readonly sd: number;
  /** Fewer points than a baseline needs were there: what it says is provisional. */
  readonly provisional: boolean;
  readonly points: readonly ControlPoint[];
}
interface ControlPoint extends ChartPoint {
  /** CUSUM: sums of deviations above and below the mean, in standard deviations. */
  readonly up: number;
  readonly down: number;
  /** Something has moved by more than chance. */
  readonly moved: 'up' | 'down' | null;
  readonly inBaseline: boolean;
}

/** Number of sessions for a baseline; with fewer, down to the minimum, it is provisional. */
const BASELINE = 20;
const MIN_BASELINE = 5;
/**
 * CUSUM tuned for shifts of two standard deviations: slack of half of that; the limit so that a mean and spread that are
 * themselves estimated from twenty points keep false alarms under one in two hundred (by simulation, see the test).
 */
const SLACK = 1;
const LIMIT = 3.2;
/** Few points know their spread badly: the limit is wider in that measure (Student's t at 0.1 % against normal, rounded). */
const WIDER_BY_POINT = 14;
/** Readings that repeat exactly have a spread all the same: this share of the figure, at least. */
const MIN_SD_SHARE = 1e-3;

/**
 * Whether a figure that is measured day by day has moved by more than chance: tabular CUSUM (Page 1954; Montgomery,
 * Statistical Quality Control, 9.1) over a baseline of the first twenty. Null while there are fewer than five.
 */
export function controlChart(points: readonly ChartPoint[]): ControlChart | null {
  if (points.length < MIN_BASELINE) return null;
  const sorted = [...points].sort((a, b) => (a.at < b.at ? -1 : 1));
  const count = Math.min(BASELINE, sorted.length);
  // Of few points the newest is what one asks about: it is not its own measure.
  const used = count < BASELINE && count > MIN_BASELINE ? count - 1 : count;
  const base = sorted.slice(0, used).map((p) => p.value);
  const mean = base.reduce((a, b) => a + b, 0) / used;
  const variance = base.reduce((sum, v) => sum + (v - mean) ** 2, 0) / (used - 1);
  const sd = Math.max(Math.sqrt(variance), MIN_SD_SHARE * Math.abs(mean), Number.MIN_VALUE * 2 ** 60);
  const limit = LIMIT + (used < BASELINE ? WIDER_BY_POINT / used : 0);
  let [up, down] = [0, 0];
  const judged = sorted.map((p, i): ControlPoint => {
    const inBaseline = i < used;
    if (inBaseline) return { ...p, up: 0, down: 0, moved: null, inBaseline };
    const z = (p.value - mean) / sd;
    up = Math.max(0, up + z - SLACK);
    down = Math.max(0, down - z - SLACK);
    const moved = up > limit ? 'up' : down > limit ? 'down' : null;
    return { ...p, up, down, moved, inBaseline };
  });
  return { mean, sd, provisional: used < BASELINE, points: judged };
}
