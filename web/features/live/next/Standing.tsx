import { Link } from 'react-router';
import { Term } from '#web/shared/parts/index.ts';
import { next as say } from '#words/index.ts';
import { sayAhead, sayConfirmed, sayMeasured } from './say.ts';
import { useAhead } from './useAhead.tsx';

/** Beside the verdict: how long until ready, and how far it is by what. */
export function Standing({ rigId }: { rigId: string }) {
  const { ahead, steps } = useAhead();
  return (
    <div className="frame-rests">
      <Link to={`/rigs/${rigId}/next`}>{ahead ? sayAhead(ahead, steps.length) : say.planning()}</Link>
      <br />
      {ahead && (
        <>
          <Term id="ready">{sayConfirmed(ahead.readiness)}</Term>,{' '}
          <Link to={`/rigs/${rigId}/measured`}>{sayMeasured(ahead.readiness)}</Link>
        </>
      )}
    </div>
  );
}
