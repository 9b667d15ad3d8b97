import { median } from 'd3-array';

/** Two clocks read at once, s. */
export interface ClockReading {
  readonly ownS: number;
  readonly pageS: number;
}

/** The page's clock as a line over a device's own: `pageS = ownS * rate + offsetS`. */
interface ClockLine {
  readonly offsetS: number;
  readonly rate: number;
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
  return { rate, offsetS: median(readings, (r) => r.pageS - r.ownS * rate)! };
}

export const onPage = ({ rate, offsetS }: ClockLine, ownS: number): number => ownS * rate + offsetS;

/** Medians of so many readings tell a step from readings that are late. */
const BLOCK = 12;
/** Samples that a busy computer lost, or silence that it put in, move a clock by this at once, s. */
const STEP_S = 0.012;

/**
 * The line that holds between two times of the page: that of the readings around them as far as no step parts them.
 * @returns `isSteady` says that no step lies between; null where there is nothing to tell it by
 */
export function clockBetween(
  readings: readonly ClockReading[],
  fromS: number,
  untilS: number,
): (ClockLine & { readonly isSteady: boolean }) | null {
  const parts = partsOf(readings);
  const overlapOf = (part: readonly ClockReading[]) =>
    Math.min(untilS, part.at(-1)!.pageS) - Math.max(fromS, part[0]!.pageS);
  const [first, ...others] = parts;
  if (!first) return null;
  const best = others.reduce((a, b) => (overlapOf(b) > overlapOf(a) ? b : a), first);
  const line = clockLine(best);
  const within = parts.filter((part) => overlapOf(part) > 0);
  return line && { ...line, isSteady: within.length <= 1 };
}

/** Readings, parted where the clocks step against each other. */
function partsOf(readings: readonly ClockReading[]): ClockReading[][] {
  const parts: ClockReading[][] = [];
  let last: { readonly apartS: number; readonly atS: number } | null = null;
  for (let i = 0; i < readings.length; i += BLOCK) {
    const block = readings.slice(i, i + BLOCK);
    const now = { apartS: median(block, (r) => r.pageS - r.ownS)!, atS: block[0]!.ownS };
    // A rest of a block tells nothing by itself.
    const isStep =
      last !== null &&
      block.length === BLOCK &&
      Math.abs(now.apartS - last.apartS) > STEP_S + MOST_OFF * (now.atS - last.atS);
    if (last === null || isStep) parts.push([...block]);
    else parts.at(-1)!.push(...block);
    if (block.length === BLOCK) last = now;
  }
  return parts;
}
