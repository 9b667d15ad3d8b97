/** A found or set mark: the instant of a flash in the picture, or of a clap in the sound. */
export interface Mark {
  readonly atMs: number;
  /** A weak or doubtful mark is shown and left out. */
  readonly used: boolean;
}

/** One flash with its clap. */
interface MarkPair {
  readonly flashMs: number;
  readonly clapMs: number;
  /** Sound minus picture: positive when the sound is late. */
  readonly offsetMs: number;
  /** Whether it agrees with the others. */
  readonly used: boolean;
}

/** Sound against picture, from pairs of flash and clap. */
export interface PictureOffset {
  readonly pairs: readonly MarkPair[];
  readonly offsetMs: number;
  /** One standard deviation of one reading; with a single pair, that of not knowing where within the frame it flashed. */
  readonly sdMs: number;
  readonly count: number;
}

/** Sound and picture further apart than this are not one event. */
const EARLIEST_MS = -700;
const LATEST_MS = 1000;
/** Pairs this much further off than the middle one are left out, at least. */
const ODD_ONE_MS = 12;

/**
 * Pairs each flash with its clap, so that all offsets are as alike as can be, and averages them.
 * A flash begins somewhere within its frame: a frame's length is spread evenly, so half a frame is taken off the
 * stated time nowhere, and its twelfth root stays in the spread.
 * @returns null when nothing can be paired
 */
export function pairMarks(flashes: readonly Mark[], claps: readonly Mark[], frameMs: number): PictureOffset | null {
  const near = flashes
    .filter((f) => f.used)
    .map((flash) => ({
      flash,
      claps: claps.filter((c) => c.used && c.atMs - flash.atMs > EARLIEST_MS && c.atMs - flash.atMs < LATEST_MS),
    }))
    .filter((n) => n.claps.length > 0);
  if (near.length === 0) return null;
  const middle = commonOffset(
    near.flatMap((n) => n.claps.map((c) => c.atMs - n.flash.atMs)),
    near.length,
    frameMs,
  );
  const taken = new Set<Mark>();
  const pairs: MarkPair[] = [];
  for (const { flash, claps: choices } of near) {
    const clap = choices
      .filter((c) => !taken.has(c))
      .reduce<Mark | undefined>(
        (best, c) => (best && distance(best, flash, middle) <= distance(c, flash, middle) ? best : c),
        undefined,
      );
    if (!clap) continue;
    taken.add(clap);
    const offsetMs = clap.atMs - flash.atMs;
    pairs.push({
      flashMs: flash.atMs,
      clapMs: clap.atMs,
      offsetMs,
      used: Math.abs(offsetMs - middle) <= Math.max(ODD_ONE_MS, frameMs),
    });
  }
  const used = pairs.filter((p) => p.used);
  if (used.length === 0) return null;
  const mean = used.reduce((sum, p) => sum + p.offsetMs, 0) / used.length;
  const scatter =
    used.length > 1 ? Math.sqrt(used.reduce((sum, p) => sum + (p.offsetMs - mean) ** 2, 0) / (used.length - 1)) : 0;
  const withinFrame = frameMs / Math.sqrt(12);
  return { pairs, offsetMs: mean, sdMs: Math.max(scatter, withinFrame), count: used.length };
}

const distance = (clap: Mark, flash: Mark, middle: number): number => Math.abs(clap.atMs - flash.atMs - middle);

/** The offset that most flashes can agree on; of several, the one nearest to nothing. */
function commonOffset(offsets: readonly number[], flashes: number, frameMs: number): number {
  const reach = Math.max(ODD_ONE_MS, frameMs);
  let best = { count: 0, middle: offsets[0]! };
  for (const candidate of offsets) {
    const agreeing = offsets.filter((o) => Math.abs(o - candidate) <= reach);
    const middle = agreeing.reduce((a, b) => a + b, 0) / agreeing.length;
    const count = Math.min(flashes, agreeing.length);
    if (count > best.count || (count === best.count && Math.abs(middle) < Math.abs(best.middle)))
      best = { count, middle };
  }
  return best.middle;
}
