import { median } from 'd3-array';

/** Two clocks read at once, s. */
export interface ClockReading {
  readonly ownS: number;
  readonly pageS: number;
}

/** The page's clock as a line over a device's own: `pageS = ownS * rate + offsetS`. */
export interface ClockLine {
  readonly offsetS: number;
  readonly rate: number;
  /** Half the spread of the readings about the line, s. */
  readonly spreadS: number;
}

/** A device's clock is off by no more, as a share: slopes beyond come of late readings. */
const MOST_OFF = 500e-6;

/**
 * The line through readings of two clocks by the median of slopes and offsets (Theil and Sen): readings come late now and
 * then, and some by far.
 * @returns null for less than two readings
 */
export function clockLine(readings: readonly ClockReading[]): ClockLine | null {
  if (readings.length < 2) return null;
  const half = readings.length >> 1;
  const slopes = Array.from({ length: half }, (_, i) => {
    const [a, b] = [readings[i]!, readings[i + readings.length - half]!];
    return (b.pageS - a.pageS) / (b.ownS - a.ownS);
  });
  const slope = median(slopes.filter(Number.isFinite)) ?? 1;
  const rate = Math.min(1 + MOST_OFF, Math.max(1 - MOST_OFF, slope));
  const offsets = readings.map((r) => r.pageS - r.ownS * rate);
  const offsetS = median(offsets)!;
  return { rate, offsetS, spreadS: median(offsets, (o) => Math.abs(o - offsetS))! };
}

export const onPage = ({ rate, offsetS }: ClockLine, ownS: number): number => ownS * rate + offsetS;
