import { Button } from '@chakra-ui/react';
import { useMemo } from 'react';
import { Link } from 'react-router';
import { listOfDay, nextOfToday, type Session, todayOf } from '#core/live/run/index.ts';
import type { Rig } from '#core/model/rig/index.ts';
import { StateMark, useKey } from '#web/shared/parts/index.ts';
import {
  findingsOf,
  recordEvent,
  selectLastGoodRig,
  selectSession,
  useAppDispatch,
  useAppSelector,
  useSettledRig,
} from '#web/shared/store/index.ts';
import { next as say, textOf } from '#words/index.ts';
import { StepButtons } from './StepButtons.tsx';
import { minutesOf, sayPlace, sayTakesAway } from './say.ts';
import { useAct } from './useAct.ts';
import { useAhead } from './useAhead.tsx';

interface Props {
  readonly rig: Rig;
  readonly rigId: string;
}

/** Under the frame of every view: the one thing to do next; on the day, the next step of the run. */
export function NextLine({ rig, rigId }: Props) {
  const session = useAppSelector(selectSession);
  return (
    <section className="frame-next" aria-label={say.next()}>
      {session ? <OfToday rig={rig} rigId={rigId} session={session} /> : <OnTheWay rig={rig} rigId={rigId} />}
    </section>
  );
}

function OnTheWay({ rig, rigId }: Props) {
  const { ahead, steps, isCurrent, failed, retry } = useAhead();
  const acts = useAct(rig, rigId);
  const [step] = steps;
  if (failed !== null)
    return (
      <>
        <p className="next-says">{failed}</p>
        <Button onClick={retry}>{say.tryAgain()}</Button>
      </>
    );
  if (!step)
    return ahead && isCurrent ? (
      <>
        <p className="next-says">
          <StateMark state={ahead.readiness.ready ? 'good' : 'watch'} />{' '}
          {ahead.readiness.ready ? GOALS[ahead.readiness.goal]() : say.nearlyReady()}
        </p>
        <Others rigId={rigId} />
      </>
    ) : (
      <p className="next-says quiet" role="status">
        {say.planning()}
      </p>
    );
  const minutes = minutesOf(step.seconds);
  return (
    <>
      <p className="next-where">
        <span className="strong">{say.next()}</span>, {sayPlace(rig, step)} <br />
        {minutes === 0 ? say.underAMinute() : say.about({ minutes })}
      </p>
      <div className="next-what">
        <p className="next-says">{textOf(step.says)}</p>
        <p className="next-why" title={textOf(step.why)}>
          {textOf(step.why)} {sayTakesAway(step)}
        </p>
      </div>
      <StepButtons key={step.id} step={step} acts={acts} isKeyed>
        <Others rigId={rigId} />
      </StepButtons>
    </>
  );
}

const GOALS = {
  drawn: say.readyDrawn,
  confirmed: say.readyConfirmed,
  measured: say.readyMeasured,
  rehearsed: say.readyRehearsed,
};

const Others = ({ rigId }: { rigId: string }) => (
  <Button asChild>
    <Link to={`/rigs/${rigId}/next`}>
      {say.allSteps()} <kbd>⇧N</kbd>
    </Link>
  </Button>
);

/** The day itself: the list of the run, with the same keys. */
function OfToday({ rig, rigId, session }: Props & { session: Session }) {
  const dispatch = useAppDispatch();
  const last = useAppSelector(selectLastGoodRig);
  const list = listOfDay(session, last);
  const { gauges } = session;
  // The day follows an edit, and no edit waits for it.
  const settled = useSettledRig() ?? rig;
  const today = useMemo(() => todayOf(settled, list, last, gauges, findingsOf(settled)), [settled, list, last, gauges]);
  const now = nextOfToday(today, session);
  const tick = (amiss: boolean) =>
    now && dispatch(recordEvent({ kind: 'tick', list: now.list, itemId: now.item.id, ...(amiss && { amiss }) }));
  useKey('shift+y', say.done(), () => tick(false), now !== null);
  useKey('shift+d', say.notOk(), () => tick(true), now?.list === 'checks');
  const run = (view: string) => (
    <Button asChild>
      <Link to={`/rigs/${rigId}/run?view=${view}`}>{say.show()}</Link>
    </Button>
  );
  if (!now)
    return (
      <>
        <p className="next-says">
          <StateMark state="good" /> {say.runDone()}
        </p>
        {run('during')}
      </>
    );
  return (
    <>
      <p className="next-where">
        <span className="strong">{say.next()}</span>
        <br />
        {say.stepOf({ at: now.at, of: now.of })}
      </p>
      <div className="next-what">
        <p className="next-says">{textOf(now.item.says)}</p>
        <p className="next-why">{textOf(now.item.why)}</p>
      </div>
      <span className="row">
        <Button
          variant="solid"
          aria-label={say.named({ label: now.list === 'checks' ? say.ok() : say.done(), step: textOf(now.item.says) })}
          onClick={() => tick(false)}
        >
          {now.list === 'checks' ? say.ok() : say.done()} <kbd>⇧Y</kbd>
        </Button>
        {now.list === 'checks' && (
          <Button
            aria-label={say.named({ label: say.notOk(), step: textOf(now.item.says) })}
            onClick={() => tick(true)}
          >
            {say.notOk()} <kbd>⇧D</kbd>
          </Button>
        )}
        {run(now.list === 'checks' ? 'checks' : 'order')}
      </span>
    </>
  );
}
