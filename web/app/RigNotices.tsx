import { Button } from '@chakra-ui/react';
import { StateMark } from '#web/parts/index.ts';
import { dismissed, keptMine, selectDesk, tookTheirs, useAppDispatch, useAppSelector } from '#web/store/index.ts';
import { RoomMaker } from './RoomMaker.tsx';

/** What stands between the rig in hand and the server: said in a line, with what was kept and what to do. */
export function RigNotices() {
  const dispatch = useAppDispatch();
  const { save, newer, refusal, waits } = useAppSelector(selectDesk);
  return (
    <div aria-live="polite">
      {save === 'offline' && (
        <p className="notice">
          <StateMark state="watch" /> The server does not answer. Your changes are kept in this browser and sent when it
          is back.
        </p>
      )}
      {waits !== null && (save === 'waiting' || save === 'unsaved') && (
        <div className="notice">
          <StateMark state="fix" />
          <span>
            <strong>Not saved.</strong> {waits} Your changes are kept in this browser, and it is tried again by itself.
          </span>
          <RoomMaker />
        </div>
      )}
      {save === 'conflict' && newer && (
        <div className="notice">
          <StateMark state="fix" />
          <span>Another window changed this rig first. Both are kept until you choose.</span>
          <Button onClick={() => dispatch(tookTheirs())}>Take theirs</Button>
          <Button onClick={() => dispatch(keptMine())}>Keep mine</Button>
        </div>
      )}
      {refusal && (
        <div className="notice">
          <StateMark state="watch" />
          <span>{refusal}</span>
          <Button onClick={() => dispatch(dismissed())}>Good</Button>
        </div>
      )}
    </div>
  );
}
