import { Button } from '@chakra-ui/react';
import { faultsOf } from '#core/live/troubleshoot/index.ts';
import type { Rig } from '#core/model/rig/index.ts';
import { findListener } from '#core/model/rig/index.ts';
import { evaluate } from '#core/signal/index.ts';
import { StateMark } from '#web/shared/parts/index.ts';
import { tapTest as say, textOf } from '#words/index.ts';
import type { Tap } from './useTap.ts';

/** Where a drill stands; once it is over, what it was, and how few takes would have done. */
export function DrillOver({ rig, tap }: { rig: Rig; tap: Tap }) {
  const { drill, desk } = tap.kept;
  if (!drill) return null;
  const nameOf = (id: string) => findListener(rig, id)?.name ?? id;
  const fewest = drill.fewest.map(nameOf).join(', ');
  const giveUp = () => {
    const fault = faultsOf(rig, evaluate(rig)).find((f) => f.id === desk.faultId);
    const { wrong } = drill;
    const was = fault?.says ?? say.itsNoLongerIn();
    tap.change({
      desk: { ...desk, faultId: null },
      drill: {
        ...drill,
        over: { how: 'given-up', wrong, takes: tap.read.length, was: textOf(was), mend: textOf(fault?.mend ?? '') },
      },
    });
  };
  if (!drill.over)
    return (
      <p className="run-step row" role="status">
        <span>
          <StateMark state="watch" />{' '}
          {say.practiceIsOnSomething({
            take: tap.read.length,
            guesses: drill.wrong > 0 ? `, ${say.wrongGuesses({ count: drill.wrong })}` : '',
          })}
        </span>
        <Button size="sm" onClick={giveUp}>
          {say.giveUp()}
        </Button>
      </p>
    );
  const { how, wrong, takes, was, mend } = drill.over;
  return (
    <section className="run-step" aria-label={say.practiceIsOver()} data-testid="drill-over">
      <p>
        <StateMark state={how === 'found' ? 'good' : 'watch'} />{' '}
        {say.fewestThatWouldDo({
          take:
            how === 'found'
              ? say.foundWith({ count: takes, wrong: wrong > 0 ? `, ${say.wrongGuesses({ count: wrong })}` : '' })
              : say.gaveUpAfter({ count: takes }),
          fewest: drill.fewest.length,
          fewest2: fewest,
        })}
      </p>
      <p>{say.itWasThis({ was, mend })}</p>
      <Button size="sm" onClick={() => tap.change({ drill: null, takes: [] })}>
        {say.closeExercise()}
      </Button>
    </section>
  );
}
