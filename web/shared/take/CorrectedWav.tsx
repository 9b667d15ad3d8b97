import { Button } from '@chakra-ui/react';
import { useEffect, useRef, useState } from 'react';
import type { Stretch } from '#core/audio/measure/index.ts';
import { Progress, saveBlob } from '#web/shared/parts/index.ts';
import { correctTake, type Job } from '#web/shared/workers/index.ts';
import { common, take as say } from '#words/index.ts';
import { sourceOf } from './files.ts';

interface Props {
  readonly takeId: string;
  readonly name: string;
  /** Its alignment to the reference take. */
  readonly stretches: readonly Stretch[];
}

/** One take moved and stretched, stretch by stretch, written as a WAV. */
export function CorrectedWav({ takeId, name, stretches }: Props) {
  const [writing, setWriting] = useState<number | null>(null);
  const [failed, setFailed] = useState<string | null>(null);
  const job = useRef<Job<Blob> | null>(null);
  useEffect(() => () => job.current?.stop(), []);
  const correct = () => {
    setFailed(null);
    setWriting(0);
    const mine = correctTake(sourceOf(takeId), stretches, ({ done }) => setWriting(done));
    job.current = mine;
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
  // A job that is stopped never answers: what it wrote is forgotten.
  const stop = () => {
    job.current?.stop();
    setWriting(null);
  };
  return (
    <>
      {writing === null ? (
        <Button onClick={correct}>{say.correctedWav()}</Button>
      ) : (
        <>
          <Progress value={writing} label={say.writing()} width="90px" />
          <Button onClick={stop}>{common.stop()}</Button>
        </>
      )}
      {failed && <span className="fix">{failed}</span>}
    </>
  );
}
