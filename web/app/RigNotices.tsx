import { Button } from '@chakra-ui/react';
import { StateMark } from '#web/shared/parts/index.ts';
import {
  dismissed,
  keptMine,
  selectDesk,
  tookTheirs,
  useAppDispatch,
  useAppSelector,
} from '#web/shared/store/index.ts';
import { common, frame } from '#words/index.ts';
import { RoomMaker } from './RoomMaker.tsx';

/** What stands between the rig in hand and the server: said in a line, with what was kept and what to do. */
export function RigNotices() {
  const dispatch = useAppDispatch();
  const { save, newer, refusal, waits } = useAppSelector(selectDesk);
  return (
    <div aria-live="polite">
      {save === 'offline' && (
        <p className="notice">
          <StateMark state="watch" /> {frame.offline()}
        </p>
      )}
      {waits !== null && (save === 'waiting' || save === 'unsaved') && (
        <div className="notice">
          <StateMark state="fix" />
          <span>
            <strong>{frame.notSavedYet()}</strong> {waits} {frame.keptHere()}
          </span>
          <RoomMaker />
        </div>
      )}
      {save === 'conflict' && newer && (
        <div className="notice">
          <StateMark state="fix" />
          <span>{frame.conflict()}</span>
          <Button onClick={() => dispatch(tookTheirs())}>{frame.theirVersion()}</Button>
          <Button onClick={() => dispatch(keptMine())}>{frame.myVersion()}</Button>
        </div>
      )}
      {refusal && (
        <div className="notice">
          <StateMark state="watch" />
          <span>{refusal}</span>
          <Button onClick={() => dispatch(dismissed())}>{common.dismiss()}</Button>
        </div>
      )}
    </div>
  );
}
