import { useEffect, useState } from 'react';

/** Keeps the screen awake as long as it is wanted, also after the page was hidden; says where the browser withholds it. */
export function useWakeLock(wanted: boolean): 'held' | 'withheld' | 'none' {
  const [state, setState] = useState<'held' | 'withheld' | 'none'>('none');
  useEffect(() => {
    if (!wanted) return setState('none');
    const locks = (navigator as { wakeLock?: WakeLock }).wakeLock;
    if (!locks) return setState('withheld');
    let gone = false;
    let held: WakeLockSentinel | null = null;
    const hold = async () => {
      if (document.hidden || gone) return;
      try {
        held = await locks.request('screen');
        if (gone) void held.release();
        else setState('held');
      } catch {
        if (!gone) setState('withheld');
      }
    };
    const seen = () => void hold();
    document.addEventListener('visibilitychange', seen);
    void hold();
    return () => {
      gone = true;
      document.removeEventListener('visibilitychange', seen);
      void held?.release().catch(() => undefined);
    };
  }, [wanted]);
  return state;
}
