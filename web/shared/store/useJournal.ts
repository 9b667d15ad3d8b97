import { useEffect } from 'react';
import { askDay, followDay } from './journal.ts';
import { useAppDispatch } from './store.ts';

/** Keeps the day of a rig in step with the server as long as the caller is shown. */
export function useJournal(rigId: string): void {
  const dispatch = useAppDispatch();
  useEffect(() => {
    const stop = dispatch(followDay(rigId));
    document.addEventListener('visibilitychange', askDay);
    return () => {
      stop();
      document.removeEventListener('visibilitychange', askDay);
    };
  }, [rigId, dispatch]);
}
