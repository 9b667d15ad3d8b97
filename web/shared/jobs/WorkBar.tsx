import { chakra } from '@chakra-ui/react';
import { useEffect, useState, useSyncExternalStore } from 'react';
import { work as say } from '#words/index.ts';
import { queue } from './queue.ts';
import { isUnderWay } from './useWork.ts';
import { WorkLine } from './WorkLine.tsx';

/** What is over sooner is not worth a glance. */
const SEEN_AFTER_MS = 1200;

/** What goes on whichever page one looks at, in one place: how far it is, its stop, and what failed. */
export function WorkBar() {
  const tasks = useSyncExternalStore(queue.subscribe, queue.tasks).filter((t) => t.background);
  const [late, setLate] = useState(false);
  const any = tasks.length > 0;
  useEffect(() => {
    if (!any) return;
    const timer = setTimeout(() => setLate(true), SEEN_AFTER_MS);
    return () => {
      clearTimeout(timer);
      setLate(false);
    };
  }, [any]);
  const shown = tasks.filter((t) => late || !isUnderWay(t));
  if (shown.length === 0) return null;
  return (
    <chakra.section className="work-bar no-print" aria-label={say.title()}>
      {shown.map((t) => (
        <WorkLine
          key={t.id}
          task={t}
          name={t.name}
          onStop={() => queue.stop(t.id)}
          onAgain={() => queue.again(t.id)}
          onDrop={() => queue.drop(t.id)}
        />
      ))}
    </chakra.section>
  );
}
