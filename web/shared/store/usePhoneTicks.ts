import { useEffect } from 'react';
import { tickTask } from '#core/model/rig/index.ts';
import { store as say } from '#words/index.ts';
import { selectSession } from './journal.ts';
import { applyStep, selectRig } from './open-rig.ts';
import { useAppDispatch, useAppSelector } from './store.ts';

/** Ticks from a phone are drawn as done, by any window with the rig open. */
export function usePhoneTicks(): void {
  const dispatch = useAppDispatch();
  const rig = useAppSelector(selectRig);
  const told = useAppSelector(selectSession)?.tasks;
  useEffect(() => {
    const task = rig?.tasks.find((t) => told?.[t.id] !== undefined && told[t.id]! >= t.openedAt);
    if (rig && task) dispatch(applyStep(tickTask(rig, task), say.doneOnPhone()));
  }, [rig, told, dispatch]);
}
