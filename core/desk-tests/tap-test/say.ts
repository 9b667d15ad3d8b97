import { listOf, quoted, type Text } from '#core/base/said/index.ts';
import type { BandEdge } from '#core/desk-tests/tunes/index.ts';
import type { Rig } from '#core/model/rig/index.ts';
import type { Interval } from '#core/model/units/index.ts';
import { deviceName } from '#core/signal/index.ts';
import { type Disagreement, FAINT_DB } from './disagree.ts';
import type { TapCell, TimeKnown } from './judge.ts';
import { say } from './sayings.ts';

const tenths = (x: number): string => (Math.round(10 * Math.abs(x)) / 10).toString();
const whole = (x: number): string => Math.abs(Math.round(x)).toString();
const ms = (x: number): string => (Math.abs(x) < 10 ? tenths(x) : whole(x));

/** What is not found may be there all the same. */
export const NOT_UNCONNECTED = say.notFoundDoesntMean();

/** How far a time may be trusted, in words. */
export const TIME_KNOWN: Readonly<Record<TimeKnown, Text>> = {
  alone: say.knownOnItsOwn(),
  'between-sources': say.onlyKnownRelativeTo(),
  'between-takes': say.onlyKnownRelativeToThis(),
  double: say.onlyKnownAsOne(),
};

const sayUnder = (underDb: number | null): Text =>
  underDb === null || Math.round(underDb) < 1 ? '' : say.dbBelowLoudest({ db: whole(underDb) });

const nameOf = (list: readonly { readonly id: string; readonly name: string }[], id: string): string =>
  list.find((e) => e.id === id)?.name ?? id;

/** What a disagreement is, as one would say it. */
export function sayDisagreement(
  rig: Rig,
  cell: Pick<TapCell, 'sourceId' | 'listenerId' | 'underDb' | 'time' | 'read'>,
  d: Disagreement,
): Text {
  const source = nameOf(rig.sources, cell.sourceId);
  const listener = nameOf(rig.listeners, cell.listenerId);
  switch (d.kind) {
    case 'missing':
      return say.shouldReachButWas({ source, listener });
    case 'hardly':
      return say.shouldBeLoudAt({ source, listener });
    case 'extra':
      return say.shouldNotReachBut({ source, listener, under: sayUnder(cell.underDb) });
    case 'twice':
      return say.reachesTwiceAgainMs({
        source,
        listener,
        after: ms(d.afterMs),
        order: d.afterMs > 0 ? 'later' : 'earlier',
        under: whole(d.underDb),
        faint: d.underDb > FAINT_DB ? 'yes' : 'no',
      });
    case 'once':
      return say.shouldReachTwiceMs({ source, listener, after: ms(d.afterMs) });
    case 'upside-down':
      return say.hasInvertedPolarityAt({ source, listener });
    case 'level':
      return say.isDbLouderAt({ source, db: whole(d.db), change: d.db > 0 ? 'louder' : 'quieter', listener });
    case 'late':
      return say.arrivesMsLaterAt({
        source,
        ms: ms(d.ms),
        order: d.ms > 0 ? 'later' : 'earlier',
        listener,
        known: cell.time ? TIME_KNOWN[cell.time.known] : say.unknown(),
      });
    case 'band':
      return say.arrivesAtUpTo({ source, listener, high: sayHz(d.highHz) });
    case 'clock':
      return say.runsPpmLongAt({ source, ppm: whole(d.ppm), length: d.ppm > 0 ? 'long' : 'short', listener });
    case 'jump':
      return say.jumpsByMsAt({ source, ms: ms(d.ms), listener });
    case 'wanders':
      return sayWander([source], listener, d);
  }
}

export const sayHz = (hz: number): string => (hz >= 1000 ? `${tenths(hz / 1000)} kHz` : `${whole(hz)} Hz`);
const isTold = (end: BandEdge): end is Interval => end !== null && end !== 'beyond';

/** Its bandwidth, as far as it could be read. */
export function sayBand(low: BandEdge, high: BandEdge): Text {
  if (isTold(low) && isTold(high)) return say.bandBetween({ low: sayHz(low.nominal), high: sayHz(high.nominal) });
  if (isTold(low)) return say.bandFrom({ low: sayHz(low.nominal) });
  return isTold(high) ? say.bandUpTo({ high: sayHz(high.nominal) }) : say.wholeBand();
}

/** Sources whose delay moves at one listener, and how far at most. */
export const sayWander = (
  sources: readonly string[],
  listener: string,
  { earliestMs, latestMs }: { readonly earliestMs: number; readonly latestMs: number },
): Text =>
  say.delayKeepsChangingUp({
    sources: listOf('and', sources.map(quoted)),
    listener,
    earlier: ms(earliestMs),
    later: ms(latestMs),
  });

/** The way that a source takes, as the drawing has it. */
export const sayWay = (rig: Rig, deviceIds: readonly string[]): string =>
  deviceIds.map((id) => deviceName(rig, id)).join(' → ');

/** Against what the plan wants. */
export function sayPlan(rig: Rig, { sourceId, listenerId, toPlan, expected, underDb }: TapCell): Text | null {
  const source = nameOf(rig.sources, sourceId);
  const listener = nameOf(rig.listeners, listenerId);
  if (toPlan === 'lacking') return say.shouldArriveAtBut({ source, listener });
  if (toPlan !== 'unwanted') return null;
  const way = expected.ways[0];
  return say.mustNotArriveAt({
    source,
    listener,
    under: sayUnder(underDb),
    way: way ? say.asDrawnBy({ way: sayWay(rig, way.deviceIds) }) : '',
  });
}

/** What would make more of time known. */
export const SAY_JOINS = [say.putPhoneThatPlays(), say.usingOnePlayerFor(), say.recordTwoDestinationsAs()] as const;
