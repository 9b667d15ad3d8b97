import { createContext, type ReactNode, useContext, useEffect, useMemo, useState, useSyncExternalStore } from 'react';
import { type Ahead, type NextStep, stillOpen } from '#core/live/next/index.ts';
import type { Rig } from '#core/model/rig/index.ts';
import { queue } from '#web/shared/jobs/index.ts';
import { findingsOf, selectLastGoodRig, useAppSelector } from '#web/shared/store/index.ts';
import { planNext } from '#web/shared/workers/index.ts';

/** The way to ready as it is known: of the rig as it is, or of the one before while it is planned anew. */
export interface AheadKnown {
  /** The rig that the steps are of; null before there is one. An edit is on the screen before they follow it. */
  readonly of: Rig | null;
  readonly ahead: Ahead | null;
  readonly steps: readonly NextStep[];
  /** It is of the rig as it is. */
  readonly isCurrent: boolean;
  readonly failed: string | null;
  readonly retry: () => void;
}

const AheadContext = createContext<AheadKnown>({
  of: null,
  ahead: null,
  steps: [],
  isCurrent: false,
  failed: null,
  retry: () => undefined,
});
export const useAhead = (): AheadKnown => useContext(AheadContext);

/** Whether someone has looked at all that verdicts rest on. */
export function useConfirmed(): boolean {
  const { ahead, isCurrent } = useAhead();
  return isCurrent && ahead !== null && ahead.readiness.confirmed.done === ahead.readiness.confirmed.of;
}

/** Several edits after each other are planned for once, ms. */
const PAUSE_MS = 300;

interface Planned {
  readonly rig: Rig;
  readonly last: Rig | null;
  readonly ahead: Ahead | null;
  readonly failed: string | null;
}

/** Plans beside the page, anew after each edit; until then, what is still open of the former plan. */
export function AheadProvider({ rig, children }: { rig: Rig; children: ReactNode }) {
  const last = useAppSelector(selectLastGoodRig);
  const [planned, setPlanned] = useState<Planned | null>(null);
  const [first, setFirst] = useState<{ readonly rig: Rig; readonly step: NextStep } | null>(null);
  const [tries, setTries] = useState(0);
  // What someone asked for has the machine first.
  const waits = useSyncExternalStore(queue.subscribe, () => queue.tasks().some((t) => t.state === 'running'));
  // biome-ignore lint/correctness/useExhaustiveDependencies: another try asks for the same again
  useEffect(() => {
    if (waits) return undefined;
    let stop: () => void = () => undefined;
    const timer = setTimeout(() => {
      const job = planNext(rig, last, (step) => setFirst({ rig, step }));
      stop = job.stop;
      job.result.then(
        (ahead) => setPlanned({ rig, last, ahead, failed: null }),
        (error: unknown) =>
          setPlanned((now) => ({ rig, last, ahead: now?.ahead ?? null, failed: (error as Error).message })),
      );
    }, PAUSE_MS);
    return () => {
      clearTimeout(timer);
      stop();
    };
  }, [rig, last, tries, waits]);
  const known = useMemo((): AheadKnown => {
    const isCurrent = planned?.rig === rig && planned.last === last;
    const ahead = planned?.ahead ?? null;
    const steps = ahead?.steps ?? [];
    const open = isCurrent || steps.length === 0 ? steps : stillOpen(steps, rig, findingsOf(rig));
    return {
      of: rig,
      ahead,
      // Until the first plan is there, what is right to begin with.
      steps: ahead === null && first?.rig === rig ? [first.step] : open,
      isCurrent: isCurrent && planned.failed === null,
      failed: isCurrent ? planned.failed : null,
      retry: () => setTries((n) => n + 1),
    };
  }, [planned, first, rig, last]);
  return <AheadContext.Provider value={known}>{children}</AheadContext.Provider>;
}
