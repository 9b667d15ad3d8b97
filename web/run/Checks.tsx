import { useMemo } from 'react';
import { Link, useParams } from 'react-router';
import type { Rig } from '#core/rig/index.ts';
import { answeredBy, budgetsOf, checksOf, readinessOf, type Session } from '#core/run/index.ts';
import { evaluationAt } from '#core/signal/index.ts';
import { count, StateMark, Term } from '#web/parts/index.ts';
import { itemOfCheck } from './lists.ts';
import { TickList } from './TickList.tsx';

const TOLD = 3;

/** What has to be found well before one begins, and whether it was. */
export function Checks({ rig, session, hand }: { rig: Rig; session: Session | null; hand: boolean }) {
  const { rigId } = useParams();
  const gauges = session?.gauges;
  const checks = useMemo(() => checksOf(rig, budgetsOf(rig, gauges), evaluationAt(rig, null)), [rig, gauges]);
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
        aria-label="Go or no go"
      >
        <p className="run-says">
          <StateMark state={ready.go ? 'good' : ready.amiss.length > 0 ? 'fix' : 'watch'} />{' '}
          {ready.go ? 'Go' : 'No go yet'}
        </p>
        <p>
          {ready.go
            ? `Everything that has to be is well${ready.leftOut.length > 0 ? `, ${ready.leftOut.length} left out with a reason` : ''}.`
            : [
                ready.amiss.length > 0 ? `${count(ready.amiss.length, 'thing')} not well` : '',
                ready.open.length > 0 ? `${ready.open.length} not looked at yet` : '',
              ]
                .filter(Boolean)
                .join(', ')}
          {!ready.go && open.length <= TOLD && `: ${open.map((c) => c.says).join(' ')}`}
        </p>
      </section>
      <p className="quiet small">
        <Term id="go-no-go">Go or no go</Term>: one thing at a time.
        {!hand && (
          <>
            {' '}
            What is not well is found by <Link to={`/rigs/${rigId}/trouble`}>its causes</Link>; a take on the{' '}
            <Link to={`/rigs/${rigId}/bench`}>bench</Link> that was taken into the rig answers its check.
          </>
        )}
      </p>
      <TickList
        list="checks"
        items={items}
        ticks={ticks}
        canFail
        allDone="All checks are through."
        {...(measured ? { measured } : {})}
      />
    </>
  );
}
