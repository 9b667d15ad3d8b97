import { Button } from '@chakra-ui/react';
import { useEffect, useRef, useState } from 'react';
import { EdlError, type SlipList, slipListToCsv, slipListToEdl, slipListToOtio } from '#core/report/index.ts';
import type { Rate } from '#core/units/index.ts';
import { formatClock, formatNumber, formatSigned, saveAs, saveBlob, Term } from '#web/parts/index.ts';
import { sourceOf } from '#web/take/index.ts';
import { correctTake, type Job } from '#web/workers/index.ts';
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
  const [failed, setFailed] = useState<string | null>(null);
  const slips = slipsOf(props);
  const [writing, setWriting] = useState<number | null>(null);
  const job = useRef<Job<Blob> | null>(null);
  useEffect(() => () => job.current?.stop(), []);
  if (!slips) return null;
  const correct = () => {
    const take = props.bench[1]!;
    const { moveMs, longerPpm, name } = slips.items[1]!;
    setFailed(null);
    setWriting(0);
    const mine = correctTake(sourceOf(take.id), -moveMs / 1000, 1 + longerPpm * 1e-6, ({ done }) => setWriting(done));
    // A job that is stopped never answers: what it wrote is forgotten.
    job.current = {
      ...mine,
      stop: () => {
        mine.stop();
        setWriting(null);
      },
    };
    mine.result.then(
      (blob) => {
        setWriting(null);
        saveBlob(`${name}, corrected.wav`, blob);
      },
      (error: unknown) => {
        setWriting(null);
        setFailed(error instanceof Error ? error.message : String(error));
      },
    );
  };
  const moved = slips.items[1]!;
  const save = (ending: string, type: string, write: (list: SlipList) => string) => {
    try {
      setFailed(null);
      saveAs(`slip list.${ending}`, write(slips), type);
    } catch (error) {
      if (!(error instanceof EdlError)) throw error;
      setFailed(error.message);
    }
  };
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
      <Button onClick={() => save('csv', 'text/csv', slipListToCsv)}>Table, CSV</Button>
      <Button onClick={() => save('otio', 'application/json', slipListToOtio)}>Timeline, OTIO</Button>
      <Button onClick={() => save('edl', 'text/plain', slipListToEdl)}>EDL</Button>
      {writing === null ? (
        <Button onClick={correct}>Corrected, WAV</Button>
      ) : (
        <>
          <progress value={writing} max={1} aria-label="Written" style={{ width: 90 }} />
          <Button onClick={() => job.current?.stop()}>Stop</Button>
        </>
      )}
      {failed && <span className="fix">{failed}</span>}
    </p>
  );
}
