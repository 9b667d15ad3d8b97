import { Button } from '@chakra-ui/react';
import { useState } from 'react';
import { useSearchParams } from 'react-router';
import { budgetsOf, checksOf, type ListId, listOfDay } from '#core/live/run/index.ts';
import type { Rig } from '#core/model/rig/index.ts';
import { runSheet, runToIcs, runToMarkdown } from '#core/output/sheets/index.ts';
import { BareButton, Page, printSheets, saveAs, useKey } from '#web/shared/parts/index.ts';
import { selectLastGoodRig, selectRig, selectSession, useAppSelector } from '#web/shared/store/index.ts';
import { run as say } from '#words/index.ts';
import { Budgets } from './Budgets.tsx';
import { Checks } from './Checks.tsx';
import { During } from './During.tsx';
import { WAYS, type Way } from './lists.ts';
import { OnPhone } from './OnPhone.tsx';
import { Order, stepsOf } from './Order.tsx';
import { SessionBar } from './SessionBar.tsx';
import { WhenDialog } from './WhenDialog.tsx';

const VIEWS = [
  ['order', say.steps()],
  ['checks', say.checks()],
  ['budgets', say.resources()],
  ['during', say.live()],
  ['phone', say.onPhone()],
] as const;

/** Run: the day itself. What to do in which order, what has to be well before one begins, what may run out, and what happens. In the hand, without what only the desk has. */
export function RunScreen({ hand = false }: { hand?: boolean }) {
  const rig = useAppSelector(selectRig);
  return rig ? <Run rig={rig} hand={hand} /> : null;
}

const NO_TICKS = {};

function Run({ rig, hand }: { rig: Rig; hand: boolean }) {
  const [params, setParams] = useSearchParams();
  const session = useAppSelector(selectSession);
  const last = useAppSelector(selectLastGoodRig);
  const views = hand ? VIEWS.filter(([v]) => v !== 'phone') : VIEWS;
  const view = views.find(([v]) => v === params.get('view'))?.[0] ?? 'order';
  const go = (next: string) =>
    setParams(
      (all) => {
        all.set('view', next);
        return all;
      },
      { replace: true },
    );
  const step = (by: number) => go(views[(views.findIndex(([v]) => v === view) + by + views.length) % views.length]![0]);
  useKey('arrowright', say.nextTab(), () => step(1));
  useKey('arrowleft', say.previousTab(), () => step(-1));
  const ticks = (list: ListId) => session?.ticks[list] ?? NO_TICKS;
  const way: Way = WAYS.find(([w]) => w === params.get('way'))?.[0] ?? listOfDay(session, last);
  return (
    <Page title={say.run()} actions={<SessionBar rig={rig} session={session} />}>
      <div className="spread no-print">
        <nav className="run-parts" aria-label={say.partsDay()}>
          {views.map(([id, name]) => (
            <BareButton key={id} aria-current={id === view ? 'page' : undefined} onClick={() => go(id)}>
              {name}
            </BareButton>
          ))}
        </nav>
        {!hand && <TakeAlong rig={rig} way={way} good={last} ticks={ticks} />}
      </div>
      {view === 'order' && <Order rig={rig} last={last} way={way} ticks={ticks} />}
      {view === 'checks' && <Checks rig={rig} session={session} hand={hand} />}
      {view === 'budgets' && <Budgets rig={rig} session={session} />}
      {view === 'phone' && !hand && <OnPhone />}
      {view === 'during' && <During rig={rig} session={session} hand={hand} />}
      <p className="quiet small">{say.localElectricalAndVenue()}</p>
    </Page>
  );
}

interface AlongProps {
  readonly rig: Rig;
  readonly way: Way;
  readonly good: Rig | null;
  readonly ticks: (list: ListId) => Parameters<typeof runToMarkdown>[0]['ticks'];
}

/** The day on paper, as a list, and in the calendar. */
function TakeAlong({ rig, way, good, ticks }: AlongProps) {
  const [asking, setAsking] = useState(false);
  const sheet = () => ({
    title: `${rig.name}: ${WAYS.find(([w]) => w === way)![1]}`,
    steps: stepsOf(rig, way, good),
    checks: checksOf(rig, budgetsOf(rig)),
    down: stepsOf(rig, 'down', null),
    ticks: { ...ticks(way), ...ticks('checks') },
    downTicks: ticks('down'),
  });
  return (
    <span className="row">
      <Button onClick={() => printSheets(runSheet(sheet(), 'a4'), 'a4', false)}>{say.printOnePage()}</Button>
      <Button onClick={() => saveAs(`${rig.name}, run.md`, runToMarkdown(sheet()), 'text/markdown')}>Markdown</Button>
      <Button onClick={() => setAsking(true)}>{say.calendarIcs()}</Button>
      {asking && (
        <WhenDialog
          hours={rig.session.hours ?? null}
          onClose={() => setAsking(false)}
          onWhen={(startsAt, hours) => {
            setAsking(false);
            const ics = runToIcs({ ...sheet(), name: rig.name, startsAt, hours, now: new Date() });
            saveAs(`${rig.name}.ics`, ics, 'text/calendar');
          }}
        />
      )}
    </span>
  );
}
