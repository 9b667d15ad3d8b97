import { lazy, Suspense, useSyncExternalStore } from 'react';
import { queue } from './queue.ts';

/** It comes with the first job that goes on whichever page one looks at. */
const WorkBar = lazy(async () => ({ default: (await import('./WorkBar.tsx')).WorkBar }));

export function InBackground() {
  const any = useSyncExternalStore(queue.subscribe, () => queue.tasks().some((t) => t.background));
  return <Suspense fallback={null}>{any && <WorkBar />}</Suspense>;
}
