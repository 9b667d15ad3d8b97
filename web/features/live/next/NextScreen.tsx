import { Button } from '@chakra-ui/react';
import { useParams } from 'react-router';
import type { NextStep } from '#core/live/next/index.ts';
import { CAUTIONS } from '#core/live/run/index.ts';
import { READY_LEVELS, type ReadyLevel, type Rig } from '#core/model/rig/index.ts';
import { nextSheets } from '#core/output/sheets/index.ts';
import { Choice, off, Page, printSheets, StateMark, Term, useKey } from '#web/shared/parts/index.ts';
import { applyStep, selectRig, useAppDispatch, useAppSelector } from '#web/shared/store/index.ts';
import { common, next as say, textOf } from '#words/index.ts';
import { InHand, isInHand } from './InHand.tsx';
import { StepButtons } from './StepButtons.tsx';
import { minutesOf, sayAhead, sayConfirmed, sayMeasured, sayPlace, sayTakesAway } from './say.ts';
import { useAct, useActInHand } from './useAct.ts';
import { useAhead } from './useAhead.tsx';

/** The whole way to ready: every step in its order, by where one stands. In the hand, errands are ticked and questions answered, and nothing else is changed. */
export function NextScreen({ hand = false }: { hand?: boolean }) {
  const rig = useAppSelector(selectRig);
  const { rigId = '' } = useParams();
  return rig ? <Way rig={rig} rigId={rigId} hand={hand} /> : null;
}

const LEVELS: Record<ReadyLevel, () => string> = {
  drawn: say.levelDrawn,
  confirmed: say.levelConfirmed,
  measured: say.levelMeasured,
  rehearsed: say.levelRehearsed,
};

/** Steps one after another at one place. */
interface Stop {
  readonly place: string;
  readonly steps: readonly NextStep[];
}

function stopsOf(rig: Rig, steps: readonly NextStep[]): Stop[] {
  const stops: { place: string; steps: NextStep[] }[] = [];
  for (const step of steps) {
    const place = sayPlace(rig, step);
    const last = stops.at(-1);
    if (last?.place === place) last.steps.push(step);
    else stops.push({ place, steps: [step] });
  }
  return stops;
}

function Way({ rig, rigId, hand }: { rig: Rig; rigId: string; hand: boolean }) {
  const dispatch = useAppDispatch();
  const { ahead, steps, isCurrent } = useAhead();
  const atDesk = useAct(rig, rigId);
  const inHand = useActInHand();
  const acts = hand ? { ...atDesk, ...inHand } : atDesk;
  const goal = ahead?.readiness.goal ?? 'confirmed';
  const setGoal = (ready: ReadyLevel) =>
    dispatch(
      applyStep({ kind: 'set-session', session: { ...rig.session, ready } }, say.goalStep({ goal: LEVELS[ready]() })),
    );
  const print = () =>
    ahead &&
    printSheets(
      nextSheets(
        { title: say.sheetTitle({ rig: rig.name }), lead: sayAhead(ahead, steps.length), stops: stopsOf(rig, steps) },
        'a4',
      ),
      'a4',
      false,
    );
  useKey('p', common.print(), print, ahead !== null);
  let count = 0;
  return (
    <Page
      title={say.title()}
      actions={
        !hand && (
          <span className="row">
            <span className="row">
              <Term id="ready">{say.readyMeans()}</Term>
              <Choice
                label={say.readyMeans()}
                value={goal}
                onChange={(value) => setGoal(value as ReadyLevel)}
                options={READY_LEVELS.map((level) => [level, LEVELS[level]()] as const)}
              />
            </span>
            <Button onClick={print} {...off(ahead ? null : say.planning())}>
              {common.print()} <kbd>p</kbd>
            </Button>
          </span>
        )
      }
    >
      {ahead && (
        <p className="next-lead" role="status">
          <StateMark state={ahead.readiness.ready ? 'good' : ahead.readiness.blockers > 0 ? 'stop' : 'watch'} />{' '}
          <span className="strong">{sayAhead(ahead, steps.length)}</span>{' '}
          <span className="quiet">
            ({sayConfirmed(ahead.readiness)}, {sayMeasured(ahead.readiness)})
          </span>{' '}
          {!isCurrent && <span className="quiet small">{say.replanning()}</span>}
        </p>
      )}
      {!ahead && <p className="quiet">{say.planning()}</p>}
      {stopsOf(rig, ahead ? steps : []).map((stop, s) => (
        // biome-ignore lint/suspicious/noArrayIndexKey: one comes to the same place again
        <section className="next-stop" key={`${s} ${stop.place}`} aria-label={stop.place}>
          <h2>
            {stop.place} <span className="quiet small">{sayMinutes(stop.steps)}</span>
          </h2>
          <ol className="next-steps" start={count + 1}>
            {stop.steps.map((step) => {
              count++;
              return (
                <li key={step.id} aria-current={step === steps[0] ? 'step' : undefined}>
                  <div className="next-what">
                    <p className="strong">{textOf(step.says)}</p>
                    <p className="quiet small">
                      {textOf(step.why)} {sayTakesAway(step)}
                    </p>
                    {step.cautions.map((c) => (
                      <p key={c} className="watch small">
                        <StateMark state="watch" /> {textOf(CAUTIONS[c])}
                      </p>
                    ))}
                  </div>
                  {!hand ? (
                    <StepButtons step={step} acts={acts} isKeyed={false} />
                  ) : (
                    isInHand(step) && <InHand step={step} acts={acts} />
                  )}
                </li>
              );
            })}
          </ol>
        </section>
      ))}
      {ahead && ahead.further > 0 && <p className="quiet">{say.further({ count: ahead.further })}</p>}
    </Page>
  );
}

const sayMinutes = (steps: readonly NextStep[]): string => {
  const minutes = minutesOf(steps.reduce((sum, s) => sum + s.seconds, 0));
  return minutes === 0 ? say.underAMinute() : say.about({ minutes });
};
