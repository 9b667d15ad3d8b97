import { Button } from '@chakra-ui/react';
import type { Stretch } from '#core/audio/measure/index.ts';
import { isUnderWay, useWork, WorkLine } from '#web/shared/jobs/index.ts';
import { saveBlob } from '#web/shared/parts/index.ts';
import { correctTake } from '#web/shared/workers/index.ts';
import { take as say } from '#words/index.ts';
import { sourceOf } from './files.ts';

interface Props {
  readonly takeId: string;
  readonly name: string;
  /** Its alignment to the reference take. */
  readonly stretches: readonly Stretch[];
}

/** One take moved and stretched, stretch by stretch, written as a WAV. */
export function CorrectedWav({ takeId, name, stretches }: Props) {
  const { task, run, drop } = useWork();
  const correct = async () => {
    const blob = await run({ name, start: (heard) => correctTake(sourceOf(takeId), stretches, heard) });
    if (blob) saveBlob(`${name}, corrected.wav`, blob);
  };
  return (
    <>
      {!isUnderWay(task) && <Button onClick={() => void correct()}>{say.correctedWav()}</Button>}
      <WorkLine task={task} width="90px" onStop={drop} />
    </>
  );
}
