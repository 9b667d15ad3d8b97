import { useCallback, useEffect, useState } from 'react';
import { openSoundDesk, type SoundDesk, type TakeFacts } from '#web/shared/workers/index.ts';
import { take as say } from '#words/index.ts';
import { sourceOf } from './files.ts';

/** Takes that are open in a worker, what they hold, and the work under way. */
export interface SoundAtHand {
  readonly desk: SoundDesk | null;
  readonly facts: readonly TakeFacts[] | null;
  /** The part that is done, 0 to 1, and of what; null at rest. */
  readonly working: { readonly what: string; readonly done: number } | null;
  readonly failed: string | null;
  /** Runs a job, reports progress, and keeps its error sentence. Null then, and once outdated. */
  run<T>(what: string, work: (desk: SoundDesk, heard: (done: number) => void) => Promise<T>): Promise<T | null>;
  stop(): void;
  again(): void;
}

/** Opens takes for as long as the page is about them. */
export function useSound(takeIds: readonly string[]): SoundAtHand {
  const [desk, setDesk] = useState<SoundDesk | null>(null);
  const [facts, setFacts] = useState<readonly TakeFacts[] | null>(null);
  const [working, setWorking] = useState<SoundAtHand['working']>(null);
  const [failed, setFailed] = useState<string | null>(null);
  const [turn, setTurn] = useState(0);
  const address = takeIds.join(' ');
  // biome-ignore lint/correctness/useExhaustiveDependencies: a turn more opens them again
  useEffect(() => {
    if (!address) return;
    const opened = openSoundDesk(() => setFailed(say.measuringFailedReloadPage()));
    let gone = false;
    let settled = false;
    setFailed(null);
    setFacts(null);
    setWorking({ what: 'opening', done: 0 });
    opened.api
      .open(
        address.split(' ').map(sourceOf),
        opened.heard((done) => {
          if (!settled) setWorking({ what: 'decoding', done });
        }),
      )
      .then((found) => {
        settled = true;
        if (gone) return;
        setDesk(opened);
        setFacts(found);
        setWorking(null);
      })
      .catch((error: unknown) => {
        settled = true;
        if (gone) return;
        setWorking(null);
        setFailed(error instanceof Error ? error.message : String(error));
      });
    return () => {
      gone = true;
      opened.end();
      setDesk(null);
    };
  }, [address, turn]);
  const run = useCallback<SoundAtHand['run']>(
    async (what, work) => {
      if (!desk) return null;
      setFailed(null);
      setWorking({ what, done: 0 });
      // Progress may arrive after the end: messages of two kinds aren't ordered.
      let over = false;
      try {
        return await work(
          desk,
          desk.heard((done) => {
            if (!over) setWorking({ what, done });
          }),
        );
      } catch (error) {
        setFailed(error instanceof Error ? error.message : String(error));
        return null;
      } finally {
        over = true;
        setWorking(null);
      }
    },
    [desk],
  );
  return {
    desk,
    facts,
    working,
    failed,
    run,
    stop() {
      desk?.end();
      setDesk(null);
      setWorking(null);
      setFailed(say.stoppedYouCanStart());
    },
    again: () => setTurn((n) => n + 1),
  };
}
