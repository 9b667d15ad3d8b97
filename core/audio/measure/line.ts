import { median as medianOf } from 'd3-array';
/** A reading along a line: `y` at `x`, with the weight of its say. */
export interface Reading {
  readonly x: number;
  readonly y: number;
  readonly weight: number;
}

export interface Line {
  /** y at x = 0, and y per x. */
  readonly start: number;
  readonly slope: number;
  /** One standard deviation of each; Infinity where unknown. */
  readonly startSd: number;
  readonly slopeSd: number;
  /** Typical distance of a reading from the line, one standard deviation. */
  readonly residualSd: number;
  /** Which readings agree with the line. */
  readonly agrees: readonly boolean[];
}

const ROUNDS = 12;
/** Huber's constant: beyond this many standard deviations a reading loses weight. */
const HUBER = 1.5;
/** Readings off by this many robust standard deviations don't agree. */
const OUTLIER = 5;

const median = (values: readonly number[]): number => medianOf(values) ?? 0;

/** The median slope of all pairs (Theil 1950, Sen 1968): right although nearly a third of the readings is wrong. */
function medianLine(readings: readonly Reading[]): { start: number; slope: number } {
  const slopes: number[] = [];
  for (let i = 0; i < readings.length; i++) {
    for (let j = i + 1; j < readings.length; j++) {
      const dx = readings[j]!.x - readings[i]!.x;
      if (dx !== 0) slopes.push((readings[j]!.y - readings[i]!.y) / dx);
    }
  }
  const slope = median(slopes);
  return { slope, start: median(readings.map((r) => r.y - slope * r.x)) };
}

/**
 * A straight line through readings some of which may be wrong: median slopes first, then Huber-weighted least squares.
 * @param floor  readings are never trusted to be better than this, so that a perfect fit does not outlaw its neighbors
 */
export function fitLine(readings: readonly Reading[], floor: number): Line {
  const used = readings.filter((r) => r.weight > 0);
  if (used.length === 0) {
    return {
      start: 0,
      slope: 0,
      startSd: Number.POSITIVE_INFINITY,
      slopeSd: Number.POSITIVE_INFINITY,
      residualSd: 0,
      agrees: readings.map(() => false),
    };
  }
  let { start, slope } = medianLine(used);
  let spread = floor;
  let fit = { sw: 0, sx: 0, sxx: 0 };
  for (let round = 0; round < ROUNDS; round++) {
    const off = used.map((r) => Math.abs(r.y - start - slope * r.x));
    spread = Math.max(floor, 1.4826 * median(off));
    let [sw, sx, sy, sxx, sxy] = [0, 0, 0, 0, 0];
    used.forEach((r, i) => {
      const d = off[i]! / spread;
      const w = d > OUTLIER ? 0 : r.weight * (d > HUBER ? HUBER / d : 1);
      sw += w;
      sx += w * r.x;
      sy += w * r.y;
      sxx += w * r.x * r.x;
      sxy += w * r.x * r.y;
    });
    fit = { sw, sx, sxx };
    const det = sw * sxx - sx * sx;
    if (det > 1e-12 * sw * sxx) {
      slope = (sw * sxy - sx * sy) / det;
      start = (sy - slope * sx) / sw;
    } else if (sw > 0) {
      slope = 0;
      start = sy / sw;
    }
  }
  const agrees = readings.map((r) => r.weight > 0 && Math.abs(r.y - start - slope * r.x) <= OUTLIER * spread);
  const good = readings.filter((_, i) => agrees[i]);
  const squares = good.reduce((sum, r) => sum + (r.y - start - slope * r.x) ** 2, 0);
  const residualSd = good.length > 2 ? Math.sqrt(squares / (good.length - 2)) : spread;
  const det = fit.sw * fit.sxx - fit.sx * fit.sx;
  // Weights are relative: their mean represents one reading of the usual quality.
  const unit = good.length > 0 ? fit.sw / good.length : 1;
  const known = det > 1e-12 * fit.sw * fit.sxx && good.length > 2;
  const sd = Math.max(residualSd, floor / 2);
  return {
    start,
    slope,
    startSd: known ? sd * Math.sqrt((unit * fit.sxx) / det) : sd,
    slopeSd: known ? sd * Math.sqrt((unit * fit.sw) / det) : Number.POSITIVE_INFINITY,
    residualSd,
    agrees,
  };
}
