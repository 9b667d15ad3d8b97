import type { SlipList } from '#core/report/index.ts';
import type { Rate } from '#core/units/index.ts';
import { formatClock, formatNumber, formatSigned, Term } from '#web/parts/index.ts';
import { CorrectedWav, SlipExports } from '#web/take/index.ts';
import type { Comparison } from './useComparison.ts';
import type { BenchTake } from './useTake.ts';

interface Props {
  readonly bench: readonly BenchTake[];
  readonly comparison: Comparison;
  readonly frameRate: Rate;
}

/** A drift that could be none is not made up for. */
const SURE_SD = 2;

/** What has to be done in the edit so that the second take lies to the first; null where it is not known. */
export function slipsOf({ bench: [first, second], comparison: { offset }, frameRate }: Props): SlipList | null {
  if (!offset || !first?.look?.sound || !second?.look?.sound) return null;
  const { offsetMs, driftPpm, driftSdPpm } = offset;
  const sure = driftPpm !== null && Math.abs(driftPpm) > SURE_SD * (driftSdPpm ?? 0);
  const item = (take: BenchTake, moveMs: number, longerPpm: number) => ({
    name: take.name.replace(/\.[a-z0-9]{2,4}$/i, ''),
    fileName: take.name,
    durationMs: take.look!.durationMs,
    moveMs,
    longerPpm,
    sampleRateHz: take.look!.sound!.sampleRateHz,
  });
  return {
    title: `${first.name} and ${second.name}`,
    frameRate,
    // The same sound stands later in the second: so much earlier it goes.
    items: [item(first, 0, 0), item(second, -offsetMs, sure ? driftPpm : 0)],
  };
}

/** How the second take is moved and stretched onto the first, to take along into an edit. */
export function SlipListRow(props: Props) {
  const slips = slipsOf(props);
  if (!slips) return null;
  const moved = slips.items[1]!;
  return (
    <p className="row" style={{ marginTop: 8 }} data-testid="slip-list">
      <span>
        <Term id="slip-list">In the edit</Term>: move {moved.name} by{' '}
        <span className="strong">{formatSigned(moved.moveMs, 2)} ms</span>
        {moved.longerPpm !== 0 && <> and play it at {formatNumber(1 + moved.longerPpm * 1e-6, 6)} of its speed</>}.
      </span>
      {props.comparison.apart?.jumps[0] && (
        <span className="watch">
          Right up to {formatClock(props.comparison.apart.jumps[0].atMs)}, where a buffer was lost.
        </span>
      )}
      <SlipExports list={slips} />
      <CorrectedWav takeId={props.bench[1]!.id} item={moved} />
    </p>
  );
}
