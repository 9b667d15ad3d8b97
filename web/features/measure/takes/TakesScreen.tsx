import { useEffect, useRef, useState } from 'react';
import { useParams, useSearchParams } from 'react-router';
import { selectEvaluation, selectRig, useAppSelector } from '#web/shared/store/index.ts';
import { TakeFrame } from '#web/shared/take/index.ts';
import { TakesPage } from './TakesPage.tsx';

const MAX_TAKES = 2;

/** The page Measure, inside a rig or without one. Its takes are in the address, so a reload restores them. */
export function TakesScreen() {
  const { rigId } = useParams();
  const rig = useAppSelector(selectRig);
  const evaluation = useAppSelector(selectEvaluation);
  const [params, setParams] = useSearchParams();
  const takeIds = (params.get('takes') ?? '').split(',').filter(Boolean).slice(0, MAX_TAKES);
  const address = takeIds.join(' ');
  const [failed, setFailed] = useState<string | null>(null);
  /** The bench as it is once a take has left: what was wrong with that is said there still. */
  const left = useRef<string | null>(null);
  // Other takes, other troubles.
  useEffect(() => {
    if (left.current !== address) setFailed(null);
    left.current = null;
  }, [address]);
  const setTakeIds = (ids: readonly string[]) =>
    setParams((all) => {
      if (ids.length === 0) all.delete('takes');
      else all.set('takes', ids.slice(-MAX_TAKES).join(','));
      return all;
    });
  const leave = (id: string, says: string) => {
    const rest = takeIds.filter((t) => t !== id);
    left.current = rest.join(' ');
    setFailed(says);
    setTakeIds(rest);
  };
  const bench = (
    <TakesPage
      key={address || 'empty'}
      takeIds={takeIds}
      onTakes={setTakeIds}
      failed={failed}
      onFailed={setFailed}
      onLeave={leave}
      rigId={rigId ?? null}
      rig={rigId ? rig : null}
      evaluation={rigId ? evaluation : null}
    />
  );
  return <TakeFrame>{bench}</TakeFrame>;
}
