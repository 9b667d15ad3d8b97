import { scaleLinear } from 'd3-scale';
import type { Evaluation, Pair, Tolerance } from '#core/signal/index.ts';

/** What one listener's small chart is drawn from; offsets of sound to picture, ms. */
export interface SmallArrivals {
  readonly listenerId: string;
  readonly tolerancePx: { readonly from: number; readonly to: number };
  readonly zeroPx: number;
  readonly rows: readonly {
    readonly sourceId: string;
    readonly atPx: number;
    readonly lowPx: number;
    readonly highPx: number;
    /** Former position, if a trial moves it; null otherwise. */
    readonly beforePx: number | null;
    readonly offsetMs: number;
    readonly met: boolean;
  }[];
}

const MIN_MS = 120;
const MARGIN = 1.06;
const MOVED_MS = 0.5;

const offsetsOf = (pairs: readonly Pair[]) =>
  pairs.flatMap((p) => (p.ways[0]?.offset ? [{ pair: p, ...p.ways[0].offset.value }] : []));

/** All listeners that have a picture to keep time with, on one scale, so that they can be held against each other. */
export function layoutSmallArrivals(
  now: Evaluation,
  before: Evaluation,
  listenerIds: readonly string[],
  toleranceOf: (listenerId: string) => Tolerance,
  widthPx: number,
): SmallArrivals[] {
  const all = offsetsOf([...now.pairs, ...before.pairs]);
  const reach = all.reduce((most, o) => Math.max(most, Math.abs(o.nominal)), MIN_MS) * MARGIN;
  const x = scaleLinear().domain([-reach, reach]).range([0, widthPx]).clamp(true);
  return listenerIds.flatMap((listenerId) => {
    const here = offsetsOf(now.pairs.filter((p) => p.listenerId === listenerId));
    if (here.length === 0) return [];
    const { earlyMs, lateMs } = toleranceOf(listenerId);
    return [
      {
        listenerId,
        tolerancePx: { from: x(earlyMs), to: x(lateMs) },
        zeroPx: x(0),
        rows: here.map(({ pair, low, nominal, high }) => {
          const was = before.pairs.find((p) => p.listenerId === listenerId && p.sourceId === pair.sourceId)?.ways[0]
            ?.offset?.value.nominal;
          return {
            sourceId: pair.sourceId,
            atPx: x(nominal),
            lowPx: x(low),
            highPx: x(high),
            beforePx: was !== undefined && Math.abs(was - nominal) > MOVED_MS ? x(was) : null,
            offsetMs: nominal,
            met: nominal >= earlyMs && nominal <= lateMs,
          };
        }),
      },
    ];
  });
}
