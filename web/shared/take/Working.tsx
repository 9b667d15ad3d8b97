import { Button } from '@chakra-ui/react';
import { formatNumber, Progress } from '#web/shared/parts/index.ts';
import { common, take as say } from '#words/index.ts';
import type { SoundAtHand } from './useSound.ts';

/** What is under way, with a stop; or what went wrong, with a way to try again. */
export function Working({ sound: { working, failed, stop, again } }: { sound: SoundAtHand }) {
  if (failed)
    return (
      <p className="row" role="alert">
        <span className="fix">{failed}</span>
        <Button onClick={again}>{say.startOver()}</Button>
      </p>
    );
  if (!working) return null;
  return (
    <p className="row" role="status">
      <Progress value={working.done} label={working.what} />
      <span className="quiet">
        {working.what}, {formatNumber(100 * working.done)}%
      </span>
      <Button onClick={stop}>{common.stop()}</Button>
    </p>
  );
}
