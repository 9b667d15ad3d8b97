import { chakra } from '@chakra-ui/react';
import { offsetAtMs, type Stretch, stretchesOf } from '#core/audio/measure/index.ts';
import type { Rate } from '#core/model/units/index.ts';
import type { SlipItem, SlipList } from '#core/output/exchange/index.ts';
import { formatClock, formatNumber, formatSigned, rich } from '#web/shared/parts/index.ts';
import { CorrectedWav, SlipExports } from '#web/shared/take/index.ts';
import { takes as say } from '#words/index.ts';
import type { Comparison } from './useComparison.ts';
import type { BenchTake } from './useTake.ts';

interface Props {
  readonly bench: readonly BenchTake[];
  readonly comparison: Comparison;
  readonly frameRate: Rate;
}

/** A drift that could be none is not made up for. */
const SURE_SD = 2;

/** Alignment of the second take to the first, stretch by stretch: followed to the end, or as first measured. */
function stretchesOfComparison({ offset, apart }: Comparison): Stretch[] {
  if (apart && apart.readings.length > 0) return stretchesOf(apart);
  if (!offset) return [];
  const { offsetMs, driftPpm, driftSdPpm } = offset;
  const sure = driftPpm !== null && Math.abs(driftPpm) > SURE_SD * (driftSdPpm ?? 0);
  return [{ fromMs: 0, offsetMs, longerPpm: sure ? driftPpm : 0 }];
}

/** The edit that aligns the second take with the first; null where it isn't known. */
export function slipsOf({ bench: [first, second], comparison, frameRate }: Props): SlipList | null {
  const stretches = stretchesOfComparison(comparison);
  if (stretches.length === 0 || !first?.look?.sound || !second?.look?.sound) return null;
  const item = (take: BenchTake) => ({
    name: take.name.replace(/\.[a-z0-9]{2,4}$/i, ''),
    fileName: take.name,
    durationMs: take.look!.durationMs,
    moveMs: 0,
    longerPpm: 0,
    sampleRateHz: take.look!.sound!.sampleRateHz,
  });
  return {
    title: say.and({ first: first.name, second: second.name }),
    frameRate,
    items: [item(first), ...cutAt(stretches, item(second))],
  };
}

/** One item for each stretch: from where it begins in the file to where the next one does. */
function cutAt(stretches: readonly Stretch[], whole: SlipItem): SlipItem[] {
  return stretches.map(({ fromMs, offsetMs, longerPpm }, k) => {
    const next = stretches[k + 1];
    const from = k === 0 ? 0 : fromMs + offsetMs;
    const to = next ? next.fromMs + offsetAtMs(stretches.slice(0, k + 1), next.fromMs) : whole.durationMs;
    return {
      ...whole,
      ...(k > 0 && { fromMs: from }),
      durationMs: to - from,
      // The sound is later in the second take: move it earlier by as much.
      moveMs: k === 0 ? -offsetMs : fromMs,
      longerPpm,
    };
  });
}

/** Slip list: how the second take is moved and stretched onto the first, for an editing app. */
export function SlipListRow(props: Props) {
  const slips = slipsOf(props);
  if (!slips) return null;
  const moved = slips.items[1]!;
  return (
    <chakra.p className="row" marginTop="8px" data-testid="slip-list">
      <span>
        {rich(say.inTheEdit, { moved: moved.name })} <span className="strong">{formatSigned(moved.moveMs, 2)} ms</span>
        {moved.longerPpm !== 0 && <> {say.playAtSpeed({ n6: formatNumber(1 + moved.longerPpm * 1e-6, 6) })}</>}.
      </span>
      {slips.items.length > 2 && (
        <span>
          {say.cutAtPartsEach({
            join: slips.items
              .slice(2)
              .map((i) => formatClock(i.moveMs))
              .join(', '),
            n1: slips.items.length - 1,
          })}
        </span>
      )}
      <SlipExports list={slips} />
      <CorrectedWav takeId={props.bench[1]!.id} name={moved.name} stretches={stretchesOfComparison(props.comparison)} />
    </chakra.p>
  );
}
