import { Button } from '@chakra-ui/react';
import { useEffect, useRef, useState } from 'react';
import type { SlipItem } from '#core/report/index.ts';
import { saveBlob } from '#web/parts/index.ts';
import { correctTake, type Job } from '#web/workers/index.ts';
import { sourceOf } from './files.ts';

/** One take moved and stretched as its slip says, written as a WAV. */
export function CorrectedWav({ takeId, item }: { takeId: string; item: SlipItem }) {
  const [writing, setWriting] = useState<number | null>(null);
  const [failed, setFailed] = useState<string | null>(null);
  const job = useRef<Job<Blob> | null>(null);
  useEffect(() => () => job.current?.stop(), []);
  const correct = () => {
    setFailed(null);
    setWriting(0);
    const mine = correctTake(sourceOf(takeId), -item.moveMs / 1000, 1 + item.longerPpm * 1e-6, ({ done }) =>
      setWriting(done),
    );
    job.current = mine;
    mine.result.then(
      (blob) => {
        setWriting(null);
        saveBlob(`${item.name}, corrected.wav`, blob);
      },
      (error: unknown) => {
        setWriting(null);
        setFailed(error instanceof Error ? error.message : String(error));
      },
    );
  };
  // A job that is stopped never answers: what it wrote is forgotten.
  const stop = () => {
    job.current?.stop();
    setWriting(null);
  };
  return (
    <>
      {writing === null ? (
        <Button onClick={correct}>Corrected, WAV</Button>
      ) : (
        <>
          <progress value={writing} max={1} aria-label="Written" style={{ width: 90 }} />
          <Button onClick={stop}>Stop</Button>
        </>
      )}
      {failed && <span className="fix">{failed}</span>}
    </>
  );
}
