import { StateMark } from '#web/shared/parts/index.ts';
import { selectDayLink, selectWaiting, useAppSelector } from '#web/shared/store/index.ts';
import { phone as say } from '#words/index.ts';

/** In the hand: it is done, and the computer knows, or will. */
export function Told() {
  const waiting = useAppSelector(selectWaiting);
  const link = useAppSelector(selectDayLink);
  const isSent = waiting === 0 || link === 'sent';
  return (
    <p className="good" role="status">
      <StateMark state="good" /> {isSent ? say.doneAndSentTo() : say.doneHere()}
    </p>
  );
}
