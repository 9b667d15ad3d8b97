import { useCallback, useLayoutEffect, useRef } from 'react';

/** A function that stays the same one and does what the latest one does: handed down, it draws nothing again. */
export function useSteady<A extends unknown[]>(run: (...args: A) => void): (...args: A) => void {
  const latest = useRef(run);
  useLayoutEffect(() => {
    latest.current = run;
  });
  return useCallback((...args: A) => latest.current(...args), []);
}
