import { Button, chakra, Input } from '@chakra-ui/react';
import { useState } from 'react';
import { figuresSince, type Session } from '#core/live/run/index.ts';
import type { Rig } from '#core/model/rig/index.ts';
import { formatDate, Sheet, StateMark } from '#web/shared/parts/index.ts';
import { recordEvent, selectDayLink, selectWaiting, useAppDispatch, useAppSelector } from '#web/shared/store/index.ts';
import { run as say } from '#words/index.ts';

/** The session in progress, its state on the server, and its end. */
export function SessionBar({ rig, session }: { rig: Rig; session: Session | null }) {
  const dispatch = useAppDispatch();
  const [ending, setEnding] = useState(false);
  return (
    <span className="row">
      <Sending />
      {session ? (
        <>
          <span className="quiet small">{say.since({ beganAt: formatDate(session.beganAt) })}</span>
          <Button onClick={() => setEnding(true)}>{say.endSession()}</Button>
        </>
      ) : (
        <Button onClick={() => dispatch(recordEvent({ kind: 'begin', name: rig.name }))}>{say.startSession()}</Button>
      )}
      {ending && session && <Ending rig={rig} session={session} onClose={() => setEnding(false)} />}
    </span>
  );
}

/** Entries are sent to the server; while it doesn't respond, they are kept here. */
function Sending() {
  const link = useAppSelector(selectDayLink);
  const waiting = useAppSelector(selectWaiting);
  if (link === 'opening' || (link === 'sent' && waiting === 0)) return null;
  return (
    <span className={link === 'refused' ? 'fix' : 'watch'} role="status">
      <StateMark state={link === 'refused' ? 'fix' : 'watch'} />{' '}
      {link === 'lost'
        ? say.serverIsntRespondingKept({ waiting })
        : link === 'refused'
          ? say.serverRefusedEntryThey({ waiting })
          : say.toBeSent({ waiting })}
    </span>
  );
}

/** How it went; the rig as it stands goes into the log with it. */
function Ending({ rig, session, onClose }: { rig: Rig; session: Session; onClose: () => void }) {
  const dispatch = useAppDispatch();
  const [says, setSays] = useState('');
  const end = (good: boolean) => {
    for (const figure of figuresSince(rig, session.beganAt)) dispatch(recordEvent(figure));
    dispatch(recordEvent({ kind: 'end', good, says: says.trim(), rig }));
    onClose();
  };
  return (
    <Sheet title={say.howDidItGo()} onClose={onClose}>
      <p>{say.currentRigIsSaved()}</p>
      <Input
        aria-label={say.whatToRemember()}
        placeholder={say.whatToRememberNext()}
        maxLength={300}
        value={says}
        onChange={(e) => setSays(e.target.value)}
      />
      <chakra.p className="row" marginTop="12px">
        <Button variant="solid" onClick={() => end(true)}>
          {say.endItWentWell()}
        </Button>
        <Button onClick={() => end(false)}>{say.endThereWereProblems()}</Button>
        <Button variant="plain" onClick={onClose}>
          {say.notFinishedYet()}
        </Button>
      </chakra.p>
    </Sheet>
  );
}
