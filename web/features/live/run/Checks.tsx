import { useMemo } from 'react';
import { useParams } from 'react-router';
import { answeredBy, budgetsOf, checksOf, readinessOf, type Session } from '#core/live/run/index.ts';
import type { Rig } from '#core/model/rig/index.ts';
import { evaluationAt } from '#core/signal/index.ts';
import { rich, StateMark } from '#web/shared/parts/index.ts';
import { findingsOf } from '#web/shared/store/index.ts';
import { run as say, textOf } from '#words/index.ts';
import { itemOfCheck } from './lists.ts';
import { TickList } from './TickList.tsx';

const TOLD = 3;

/** What has to be found well before one begins, and whether it was. */
export function Checks({ rig, session, hand }: { rig: Rig; session: Session | null; hand: boolean }) {
  const { rigId } = useParams();
  const gauges = session?.gauges;
  const checks = useMemo(
    () => checksOf(rig, budgetsOf(rig, gauges), evaluationAt(rig, null), findingsOf(rig)),
    [rig, gauges],
  );
  const items = useMemo(() => checks.map(itemOfCheck), [checks]);
  const ticks = session?.ticks.checks ?? {};
  const ready = readinessOf(checks, ticks);
  const measured = useMemo(
    () => (session ? answeredBy(rig, checks, session.beganAt) : undefined),
    [rig, checks, session],
  );
  const open = [...ready.amiss, ...ready.open];
  return (
    <>
      <section
        className={`run-verdict ${ready.go ? 'good' : ready.amiss.length > 0 ? 'fix' : 'watch'}`}
        aria-label={say.goOrNoGo()}
      >
        <p className="run-says">
          <StateMark state={ready.go ? 'good' : ready.amiss.length > 0 ? 'fix' : 'watch'} />{' '}
          {ready.go ? say.go() : say.noGoYet()}
        </p>
        <p>
          {ready.go
            ? say.allRequiredChecksAre({
                reason: ready.leftOut.length > 0 ? say.skippedWithReason({ leftOut: ready.leftOut.length }) : '',
              })
            : [
                ready.amiss.length > 0 ? say.checkFailed({ thing: ready.amiss.length }) : '',
                ready.open.length > 0 ? say.requiredLeft({ open: ready.open.length }) : '',
              ]
                .filter(Boolean)
                .join(', ')}
          {!ready.go && open.length <= TOLD && `: ${open.map((c) => textOf(c.says)).join(' ')}`}
        </p>
      </section>
      <p className="quiet small">
        {rich(say.goOrNoGoWork, {})}
        {!hand && <> {rich(say.ifOneFails, {}, `/rigs/${rigId}/trouble`)}</>}
      </p>
      <TickList
        list="checks"
        items={items}
        ticks={ticks}
        canFail
        allDone={say.allChecksDone()}
        {...(measured ? { measured } : {})}
      />
    </>
  );
}
