import { Button } from '@chakra-ui/react';
import { useCallback, useEffect, useRef, useState } from 'react';
import { Link, useLocation, useNavigate, useSearchParams } from 'react-router';
import type { Session } from '#core/live/run/index.ts';
import { rich, StateMark, useKey } from '#web/shared/parts/index.ts';
import {
  api,
  selectDesk,
  selectSession,
  selectTour,
  tourLeft,
  tourMoved,
  useAppDispatch,
  useAppSelector,
} from '#web/shared/store/index.ts';
import { frame, guides, next, tour as say } from '#words/index.ts';
import { TOUR, type TourStep } from './steps.ts';
import { usePoint } from './usePoint.ts';

const PAGES: Record<string, () => string> = {
  next: next.title,
  wire: frame.wire,
  route: frame.route,
  sync: frame.sync,
  bench: frame.measure,
  run: frame.run,
};

/** Below what comes next, on the practice rig: the step of the tour, whether it is done, and the way on. */
export function TourLine({ rigId }: { rigId: string }) {
  const tour = useAppSelector((state) => selectTour(state));
  if (tour.step === null || tour.rigId !== rigId) return null;
  const step = TOUR[tour.step];
  return (
    <section className="frame-tour" aria-label={say.title()}>
      {step ? <Step key={step.id} step={step} at={tour.step} rigId={rigId} /> : <Finished rigId={rigId} />}
    </section>
  );
}

const ticksOf = (session: Session | null): number =>
  session ? 1 + Object.values(session.ticks).reduce((sum, ticks) => sum + Object.keys(ticks).length, 0) : 0;

/** Undo takes away, so steps made are counted by what can be undone. */
const useCounts = () => ({
  changes: useAppSelector((state) => selectDesk(state).history?.past.length ?? 0),
  entries: useAppSelector((state) => ticksOf(selectSession(state))),
});

const GO_ON = { done: say.nextStep, open: say.skip };

function Step({ step, at, rigId }: { step: TourStep; at: number; rigId: string }) {
  const dispatch = useAppDispatch();
  const navigate = useNavigate();
  const page = useLocation().pathname.split('/').slice(3).join('/');
  const [query] = useSearchParams();
  const counts = useCounts();
  const begun = useRef(counts);
  const [touched, setTouched] = useState(false);
  const [wasDone, setWasDone] = useState(false);
  const isHere = page === step.page;
  const isDone =
    wasDone ||
    step.isDone({
      page,
      query,
      touched,
      changes: counts.changes - begun.current.changes,
      entries: counts.entries - begun.current.entries,
    });
  // What was done once stays done when the page is left.
  useEffect(() => setWasDone(isDone), [isDone]);
  usePoint(
    isHere && !isDone ? step.at : null,
    useCallback(() => setTouched(true), []),
  );
  const go = (to: number) => {
    dispatch(tourMoved(to));
    const there = TOUR[to];
    // What is chosen on a page stays so.
    if (there && there.page !== page) navigate(`/rigs/${rigId}/${there.page}`);
  };
  useKey('shift+c', say.nextStepKey(), () => go(at + 1));
  return (
    <>
      <p className="next-where">{say.at({ at: at + 1, of: TOUR.length })}</p>
      <div className="next-what" role="status">
        <p className="next-says">
          {isDone && <StateMark state="good" />} {rich(step.title, {})}
        </p>
        <p className="tour-says">{isDone ? say.done() : rich(step.says, {})}</p>
      </div>
      <span className="row">
        {!isHere && !isDone && (
          <Button variant="solid" onClick={() => go(at)}>
            {say.goThere({ page: PAGES[step.page]!() })}
          </Button>
        )}
        <Button variant={isDone ? 'solid' : 'outline'} onClick={() => go(at + 1)}>
          {rich(GO_ON[isDone ? 'done' : 'open'], {})}
        </Button>
        {at > 0 && <Button onClick={() => go(at - 1)}>{say.back()}</Button>}
        <Button variant="plain" onClick={() => dispatch(tourLeft(false))}>
          {say.leave()}
        </Button>
      </span>
    </>
  );
}

function Finished({ rigId }: { rigId: string }) {
  const dispatch = useAppDispatch();
  const navigate = useNavigate();
  const revision = useAppSelector((state) => selectDesk(state).revision);
  const [remove, { isLoading }] = api.useDeleteRigMutation();
  const leaveFor = (path: string) => {
    dispatch(tourLeft(true));
    navigate(path);
  };
  return (
    <>
      <div className="next-what" role="status">
        <p className="next-says">
          <StateMark state="good" /> {say.finished()}
        </p>
        <p className="tour-says">{rich(say.finishedSays, {})}</p>
      </div>
      <span className="row">
        <Button variant="solid" onClick={() => leaveFor('/new')}>
          {say.ownDesk()}
        </Button>
        <Button asChild>
          <Link to={`/rigs/${rigId}/how`} onClick={() => dispatch(tourLeft(true))}>
            {guides.title()}
          </Link>
        </Button>
        <Button
          loading={isLoading}
          onClick={async () => {
            await remove({ id: rigId, revision });
            leaveFor('/');
          }}
        >
          {say.deleteRig()}
        </Button>
        <Button variant="plain" onClick={() => dispatch(tourLeft(true))}>
          {say.leave()}
        </Button>
      </span>
    </>
  );
}
