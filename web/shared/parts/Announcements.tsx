import { Button } from '@chakra-ui/react';
import { useEffect } from 'react';
import { common } from '#words/index.ts';
import { closeAnnouncement, useAnnouncement } from './announce.ts';
import { useOffReasons } from './off.ts';
import { StateMark } from './StateMark.tsx';

const SHOWN_MS = 8000;

/** The one place where it is said what was just done, over the foot of every page. */
export function Announcements() {
  useOffReasons();
  const now = useAnnouncement();
  const stays = now?.state === 'fix' || now?.state === 'stop' || now?.act?.stays === true;
  // biome-ignore lint/correctness/useExhaustiveDependencies: the same said again is shown as long again
  useEffect(() => {
    if (!now || stays) return;
    const timer = setTimeout(closeAnnouncement, SHOWN_MS);
    return () => clearTimeout(timer);
  }, [now?.id, stays]);
  return (
    <div className="announcements no-print" aria-live="polite">
      {now && (
        <div className="announcement">
          <StateMark state={now.state} /> <span className="announcement-says">{now.says}</span>
          {now.act && (
            <Button
              size="sm"
              aria-label={now.act.name}
              onClick={() => {
                closeAnnouncement();
                now.act!.run();
              }}
            >
              {now.act.label}
            </Button>
          )}
          <Button variant="plain" size="sm" onClick={closeAnnouncement}>
            {common.close()}
          </Button>
        </div>
      )}
    </div>
  );
}
