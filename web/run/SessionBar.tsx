import { Button, Input } from '@chakra-ui/react';
import { useState } from 'react';
import type { Rig } from '#core/rig/index.ts';
import { figuresSince, type Session } from '#core/run/index.ts';
import { formatDate, Sheet, StateMark } from '#web/parts/index.ts';
import { selectDayLink, selectWaiting, tellDay, useAppDispatch, useAppSelector } from '#web/store/index.ts';

/** Which session is under way, how it stands to the server, and its end. */
export function SessionBar({ rig, session }: { rig: Rig; session: Session | null }) {
  const dispatch = useAppDispatch();
  const [ending, setEnding] = useState(false);
  return (
    <span className="row">
      <Sending />
      {session ? (
        <>
          <span className="quiet small">since {formatDate(session.beganAt)}</span>
          <Button onClick={() => setEnding(true)}>End the session</Button>
        </>
      ) : (
        <Button onClick={() => dispatch(tellDay({ kind: 'begin', name: rig.name }))}>Begin a session</Button>
      )}
      {ending && session && <Ending rig={rig} session={session} onClose={() => setEnding(false)} />}
    </span>
  );
}

/** What is told goes to the server; while it does not answer, it is kept here. */
function Sending() {
  const link = useAppSelector(selectDayLink);
  const waiting = useAppSelector(selectWaiting);
  if (link === 'opening' || (link === 'sent' && waiting === 0)) return null;
  return (
    <span className={link === 'refused' ? 'fix' : 'watch'} role="status">
      <StateMark state={link === 'refused' ? 'fix' : 'watch'} />{' '}
      {link === 'lost'
        ? `The server does not answer: ${waiting} kept here, sent when it is back`
        : link === 'refused'
          ? `The server takes none of it: ${waiting} kept here`
          : `${waiting} to be sent`}
    </span>
  );
}

/** How it went; the rig as it stands goes into the log with it. */
function Ending({ rig, session, onClose }: { rig: Rig; session: Session; onClose: () => void }) {
  const dispatch = useAppDispatch();
  const [says, setSays] = useState('');
  const end = (good: boolean) => {
    for (const figure of figuresSince(rig, session.beganAt)) dispatch(tellDay(figure));
    dispatch(tellDay({ kind: 'end', good, says: says.trim(), rig }));
    onClose();
  };
  return (
    <Sheet title="How did it go?" onClose={onClose}>
      <p>
        The rig as it stands now goes into the log with it: after a good session, next time only what has changed since
        is to be done.
      </p>
      <Input
        aria-label="What to remember"
        placeholder="What to remember next time"
        maxLength={300}
        value={says}
        onChange={(e) => setSays(e.target.value)}
      />
      <p className="row" style={{ marginTop: 12 }}>
        <Button variant="solid" onClick={() => end(true)}>
          It went well
        </Button>
        <Button onClick={() => end(false)}>Not so well</Button>
        <Button variant="plain" onClick={onClose}>
          It goes on
        </Button>
      </p>
    </Sheet>
  );
}
