import { AFTER_MS, BEFORE_MS, PRESENT_DB, type TuneHeard, type TuneReading } from '#core/desk-tests/tunes/index.ts';
import { difference, uncertain } from '#core/signal/index.ts';
import type { Expected, ExpectedWay } from './expected.ts';

/** What does not agree between a reading and what the rig led one to expect. */
export type Disagreement =
  | { readonly kind: 'missing'; readonly weight: number }
  /** Perhaps there, where it should be loud. */
  | { readonly kind: 'hardly'; readonly weight: number }
  | { readonly kind: 'extra'; readonly weight: number }
  | { readonly kind: 'twice'; readonly weight: number; readonly afterMs: number; readonly underDb: number }
  | { readonly kind: 'once'; readonly weight: number; readonly afterMs: number }
  | { readonly kind: 'upside-down'; readonly weight: number }
  | { readonly kind: 'level'; readonly weight: number; readonly db: number }
  | { readonly kind: 'late'; readonly weight: number; readonly ms: number }
  | { readonly kind: 'band'; readonly weight: number; readonly highHz: number }
  | { readonly kind: 'clock'; readonly weight: number; readonly ppm: number }
  | { readonly kind: 'jump'; readonly weight: number; readonly ms: number }
  | { readonly kind: 'wanders'; readonly weight: number; readonly earliestMs: number; readonly latestMs: number };

/** Nearer the loudest than this a tune should be found. */
const SURELY_DB = 24;
/** What should be no further under it is not 'perhaps' there, as drawn. */
const LOUD_DB = 14;
const WEIGHT = {
  missing: 6,
  hardly: 4,
  extra: 8,
  twice: 3,
  faint: 0.75,
  once: 3,
  upsideDown: 2.5,
  band: 2,
  clock: 1.5,
  jump: 1,
  wanders: 1,
};
const LEVEL_DB = 6;
/** Second ways this far under the first stand little over what is round them. */
export const FAINT_DB = 24;
const CLOCK_PPM = 8;
/** Resolution of any time, ms. */
export const SURE_TIME_MS = 1;
const MAX_TIME_WEIGHT = 5;
const MAX_LEVEL_WEIGHT = 4;

/** Ways that differ by no more than this may change places: what a knob does. */
export const LIKE_DB = 8;

/** A reading with its expectation, and its deviation once the unknown offsets are fitted. */
interface Laid {
  readonly expected: Expected;
  readonly read: TuneReading | null;
  readonly time: { readonly offMs: number; readonly toleranceMs: number } | null;
  readonly levelOffDb: number | null;
  readonly clockOffPpm: number | null;
}

/** All that does not agree of one reading. @param strongest  the drawn way of the loudest in its take */
export function disagreementsOf(
  { expected, read, time, levelOffDb, clockOffPpm }: Laid,
  strongest: ExpectedWay | null,
): Disagreement[] {
  if (!read) return [];
  const { ways, underDb } = expected;
  const first = ways[0];
  if (read.word === 'not-found')
    return first && underDb! <= SURELY_DB && !first.heldBack ? [{ kind: 'missing', weight: WEIGHT.missing }] : [];
  const { heard } = read;
  if (!heard) return first && underDb! <= LOUD_DB && !first.heldBack ? [{ kind: 'hardly', weight: WEIGHT.hardly }] : [];
  if (!first) return [{ kind: 'extra', weight: WEIGHT.extra }];
  const out: Disagreement[] = [...waysApart(expected, heard)];
  if (time && Math.abs(time.offMs) > time.toleranceMs)
    out.push({
      kind: 'late',
      ms: time.offMs,
      weight: Math.min(MAX_TIME_WEIGHT, 1 + (Math.abs(time.offMs) - time.toleranceMs) / 20),
    });
  if (levelOffDb !== null && Math.abs(levelOffDb) > LEVEL_DB)
    out.push({ kind: 'level', db: levelOffDb, weight: Math.min(MAX_LEVEL_WEIGHT, Math.abs(levelOffDb) / LEVEL_DB) });
  if (
    heard.polarity !== null &&
    strongest &&
    !first.throughAir &&
    !strongest.throughAir &&
    heard.polarity !== first.polarity * strongest.polarity
  )
    out.push({ kind: 'upside-down', weight: WEIGHT.upsideDown });
  const high = bandApart(first, heard);
  if (high !== null) out.push({ kind: 'band', highHz: high, weight: WEIGHT.band });
  if (clockOffPpm !== null && Math.abs(clockOffPpm) > CLOCK_PPM)
    out.push({ kind: 'clock', ppm: clockOffPpm, weight: WEIGHT.clock });
  if (heard.wander) out.push({ kind: 'wanders', ...heard.wander, weight: WEIGHT.wanders });
  if (heard.jump) out.push({ kind: 'jump', ms: heard.jump.ms, weight: WEIGHT.jump });
  return out;
}

const NEAREST_MS = 3;
const EXPECTED_UNDER_DB = 18;
/** Slightly inside the band that a response covers. */
const SEEN_MS = { before: BEFORE_MS - 20, after: AFTER_MS - 100 };

/** Second ways that were read and are not drawn, and such as are drawn and were not read. */
function waysApart({ ways }: Expected, { seconds }: TuneHeard): Disagreement[] {
  const drawn = ways.flatMap((a, i) =>
    ways.slice(i + 1).map((b) => {
      const open = uncertain(difference(b.terms, a.terms));
      const half = open.reduce(
        (ms, t) => ms + (Math.abs(t.count) * (t.term.ms.high - t.term.ms.low)) / 2,
        SURE_TIME_MS,
      );
      const afterMs = b.delayMs.nominal - a.delayMs.nominal;
      const isSeen = (ms: number) => ms - half > -SEEN_MS.before && ms + half < SEEN_MS.after;
      return {
        afterMs: Math.abs(afterMs),
        half,
        // Of ways nearly as loud either may be the strongest.
        isSeen: isSeen(afterMs) && (a.levelDb - b.levelDb > LIKE_DB || isSeen(-afterMs)),
        underDb: ways[0]!.levelDb - b.levelDb,
        ofFirst: i === 0,
        heldBack: b.heldBack,
      };
    }),
  );
  // What is against the first finds its own first, then what is known best; what it found is no one else's.
  const open = seconds.ways.slice();
  const lacking: typeof drawn = [];
  for (const d of drawn.sort((a, b) => Number(b.ofFirst) - Number(a.ofFirst) || a.half - b.half)) {
    const at = open.findIndex((s) => Math.abs(d.afterMs - Math.abs(s.afterMs)) <= d.half);
    if (at >= 0) open.splice(at, 1);
    else if (d.ofFirst && d.isSeen && !d.heldBack && d.underDb <= Math.min(EXPECTED_UNDER_DB, -seconds.noneAboveDb - 3))
      lacking.push(d);
  }
  return [
    ...open
      .filter((s) => !s.perhapsReflection)
      .map(
        ({ afterMs, underDb }): Disagreement => ({
          kind: 'twice',
          afterMs,
          underDb,
          weight: underDb > FAINT_DB ? WEIGHT.faint : WEIGHT.twice,
        }),
      ),
    ...lacking
      .filter((d) => d.afterMs + d.half > NEAREST_MS)
      // Paths with uncertain times may coincide by chance.
      .map(
        (d): Disagreement => ({
          kind: 'once',
          afterMs: d.afterMs,
          weight: d.afterMs - d.half < NEAREST_MS ? WEIGHT.once / 2 : WEIGHT.once,
        }),
      ),
  ];
}

const ABSENT_DB = -20;

/** Up to where a source was heard, where that is an octave from what was to be expected; null where it agrees. */
function bandApart(way: ExpectedWay, { bands }: TuneHeard): number | null {
  const present = bands.filter((b) => b.db !== null && b.db > PRESENT_DB);
  const highest = Math.max(0, ...present.map((b) => b.highHz));
  const beyond = present.find((b) => b.lowHz > 1.3 * way.highHz);
  if (beyond) return highest;
  const lost = bands.some(
    (b) => b.lowHz > 1000 && b.highHz < 0.8 * way.highHz && (b.db ?? b.atMostDb ?? 0) < ABSENT_DB,
  );
  return lost ? highest : null;
}
