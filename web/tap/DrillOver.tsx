import { Button } from '@chakra-ui/react';
import type { Rig } from '#core/rig/index.ts';
import { evaluate } from '#core/signal/index.ts';
import { faultsOf } from '#core/trouble/index.ts';
import { count, StateMark } from '#web/parts/index.ts';
import type { Tap } from './useTap.ts';

/** Where a drill stands; once it is over, what it was, and how few takes would have done. */
export function DrillOver({ rig, tap }: { rig: Rig; tap: Tap }) {
  const { drill, desk } = tap.kept;
  if (!drill) return null;
  const nameOf = (id: string) => rig.listeners.find((l) => l.id === id)?.name ?? id;
  const fewest = drill.fewest.map(nameOf).join(', ');
  const giveUp = () => {
    const fault = faultsOf(rig, evaluate(rig)).find((f) => f.id === desk.faultId);
    const { wrong } = drill;
    const was = fault?.says ?? 'It is no longer in this rig: the drawing was changed meanwhile.';
    tap.change({
      desk: { ...desk, faultId: null },
      drill: { ...drill, over: { how: 'given-up', wrong, takes: tap.read.length, was, mend: fault?.mend ?? '' } },
    });
  };
  if (!drill.over)
    return (
      <p className="run-step row" role="status">
        <span>
          <StateMark state="watch" /> A drill is on: something is wrong at this desk that the drawing does not show.{' '}
          {count(tap.read.length, 'take')} so far
          {drill.wrong > 0 && `, ${count(drill.wrong, 'wrong guess', 'wrong guesses')}`}.
        </span>
        <Button size="sm" onClick={giveUp}>
          Give up
        </Button>
      </p>
    );
  const { how, wrong, takes, was, mend } = drill.over;
  return (
    <section className="run-step" aria-label="The drill is over" data-testid="drill-over">
      <p>
        <StateMark state={how === 'found' ? 'good' : 'watch'} />{' '}
        {how === 'found'
          ? `Found, with ${count(takes, 'take')}${wrong > 0 ? ` and ${count(wrong, 'wrong guess', 'wrong guesses')}` : ''}.`
          : `Given up, after ${count(takes, 'take')}.`}{' '}
        The fewest that would do, by who is found where: {drill.fewest.length} ({fewest}).
      </p>
      <p>
        It was this: {was} {mend}
      </p>
      <Button size="sm" onClick={() => tap.change({ drill: null, takes: [] })}>
        Put the drill away
      </Button>
    </section>
  );
}
