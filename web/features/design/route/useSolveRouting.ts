import { useCallback, useEffect, useRef, useState } from 'react';
import type { Rig } from '#core/model/rig/index.ts';
import type { Whole } from '#core/routing/plan/index.ts';
import { searchMakeItSo } from '#web/shared/workers/index.ts';

type Search =
  | { readonly at: 'idle' }
  | { readonly at: 'busy' }
  | { readonly at: 'found'; readonly made: Whole }
  | { readonly at: 'failed'; readonly why: string };

/** The search for the fewest changes, in a worker; what it found is of the rig it was asked for and of no other. */
export function useSolveRouting(rig: Rig): { search: Search; begin: () => void; drop: () => void } {
  const [state, setState] = useState<{ rig: Rig; search: Search } | null>(null);
  const stop = useRef<(() => void) | null>(null);
  const drop = useCallback(() => {
    stop.current?.();
    stop.current = null;
    setState(null);
  }, []);
  useEffect(() => () => stop.current?.(), []);
  const begin = () => {
    stop.current?.();
    const job = searchMakeItSo(rig);
    stop.current = job.stop;
    setState({ rig, search: { at: 'busy' } });
    job.result.then(
      (made) => {
        if (stop.current === job.stop) setState({ rig, search: { at: 'found', made } });
      },
      (error: unknown) => {
        if (stop.current === job.stop) setState({ rig, search: { at: 'failed', why: (error as Error).message } });
      },
    );
  };
  return { search: state?.rig === rig ? state.search : { at: 'idle' }, begin, drop };
}
