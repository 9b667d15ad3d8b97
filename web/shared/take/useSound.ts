import { useCallback, useEffect, useState } from 'react';
import { useWork, type Work } from '#web/shared/jobs/index.ts';
import { openSoundDesk, type SoundDesk, type TakeFacts } from '#web/shared/workers/index.ts';
import { take as say } from '#words/index.ts';
import { sourceOf } from './files.ts';

/** Takes that are open in a worker, what they hold, and the work under way. */
export interface SoundAtHand {
  readonly desk: SoundDesk | null;
  readonly facts: readonly TakeFacts[] | null;
  readonly work: Omit<Work, 'run' | 'drop'>;
  /** Runs a job at the desk, in place of the one before. Null where it failed, was stopped or outdated. */
  run<T>(what: string, job: (desk: SoundDesk, heard: (done: number) => void) => Promise<T>): Promise<T | null>;
}

interface Opened {
  readonly desk: SoundDesk;
  readonly facts: readonly TakeFacts[];
}

/** Opens takes for as long as the page is about them. */
export function useSound(takeIds: readonly string[]): SoundAtHand {
  const [opened, setOpened] = useState<Opened | null>(null);
  const [turn, setTurn] = useState(0);
  const work = useWork();
  const { run: lineUp, drop } = work;
  const address = takeIds.join(' ');
  // biome-ignore lint/correctness/useExhaustiveDependencies: a turn more opens them again
  useEffect(() => {
    if (!address) return;
    const desk = openSoundDesk();
    const sources = address.split(' ').map(sourceOf);
    const open = async (heard: (done: number) => void) => ({ desk, facts: await desk.api.open(sources, heard) });
    void lineUp({
      name: say.opening(),
      start: (heard) => ({
        result: desk.whole(open(desk.heard((done) => heard({ what: 'decoding', done })))),
        stop: desk.end,
      }),
    }).then(setOpened);
    return () => {
      drop();
      desk.end();
      setOpened(null);
    };
  }, [address, turn, lineUp, drop]);
  const desk = opened?.desk ?? null;
  const run = useCallback<SoundAtHand['run']>(
    async (what, job) =>
      desk &&
      lineUp({
        name: what,
        start: (heard) => ({
          result: desk.whole(
            job(
              desk,
              desk.heard((done) => heard({ what: 'measuring', done })),
            ),
          ),
          // The desk stays open for the next job.
          stop: () => undefined,
        }),
      }),
    [desk, lineUp],
  );
  return {
    desk,
    facts: opened?.facts ?? null,
    run,
    work: {
      task: work.task,
      stop() {
        desk?.end();
        setOpened(null);
        work.stop();
      },
      again: () => setTurn((n) => n + 1),
    },
  };
}
