import { Button } from '@chakra-ui/react';
import { useDeferredValue, useMemo, useState } from 'react';
import type { Finding } from '#core/check/index.ts';
import { type Bridge, planEdit, proposePlan } from '#core/plan/index.ts';
import { alreadySo, applyEdit, type LeadChange, type PlanCell, type Rig, toDoAtDesk } from '#core/rig/index.ts';
import { type Evaluation, evaluate, mainVoiceOf } from '#core/signal/index.ts';
import { useListenKey } from '#web/listen/index.ts';
import { MomentNote } from '#web/moment/index.ts';
import { Choice, count, type Place, Term, useKey, useKeyHint, wantOf } from '#web/parts/index.ts';
import { applyHere, selectScene, useAppDispatch, useAppSelector, useSettledFindings } from '#web/store/index.ts';
import { cellsOf, isWrong, wrongOnly } from './cells.ts';
import { HearingTable } from './HearingTable.tsx';
import { Insides } from './Insides.tsx';
import { MuteFinder, type PairName } from './MuteFinder.tsx';
import { PairCard } from './PairCard.tsx';
import { Proposal } from './Proposal.tsx';
import { useMakeItSo } from './useMakeItSo.ts';

/** Route: who hears what, wanted against actual; where a sound stops, and what opens its way. */
export function RouteScreen() {
  const scene = useAppSelector(selectScene);
  const findings = useSettledFindings();
  return scene ? <Routes {...scene} findings={findings} /> : null;
}

interface Props {
  readonly rig: Rig;
  readonly evaluation: Evaluation;
  readonly findings: readonly Finding[];
}

function Routes({ rig, evaluation, findings }: Props) {
  const dispatch = useAppDispatch();
  const [shown, setShown] = useState<'all' | 'wrong'>('all');
  const { search, begin, drop } = useMakeItSo(rig);
  const made = search.at === 'found' ? search.made : null;
  // While changes are proposed, the table shows what would be heard with them.
  const seen = useMemo(() => {
    const done = made && applyEdit(rig, alreadySo(rig, made.changes));
    return done?.ok ? { rig: done.rig, evaluation: evaluate(done.rig) } : { rig, evaluation };
  }, [rig, evaluation, made]);
  const cells = useMemo(() => cellsOf(seen.rig, seen.evaluation), [seen]);
  const [at, setAt] = useState<Place>(() => firstWrong(cells));
  const wrong = useMemo(() => wrongOnly(cells), [cells]);
  const every = { rows: cells.map((_, i) => i), columns: rig.listeners.map((_, i) => i) };
  const { rows, columns } = shown === 'wrong' && wrong.rows.length > 0 ? wrong : every;
  const cell = cells[at.row]?.[at.column];
  // The card follows the table: what one pressed is seen first.
  const looked = useMemo(() => cell && { cell, ...seen }, [cell, seen]);
  const onCard = useDeferredValue(looked);
  const listener = rig.listeners[at.column];
  useListenKey(seen.rig, cell && listener ? { at: listener.sound, name: listener.name } : null);
  const set = (change: (known: PlanCell | undefined) => PlanCell | null, says: string) => {
    if (!cell) return;
    const { sourceId, listenerId } = cell.pair;
    const known = rig.plan.find((c) => c.sourceId === sourceId && c.listenerId === listenerId);
    dispatch(
      applyHere(
        { kind: 'set-plan', sourceId, listenerId, cell: change(known) },
        `${rig.listeners[at.column]!.name}, ${rig.sources[at.row]!.name}: ${says}`,
      ),
    );
  };
  const [marked, setMarked] = useState<readonly PairName[]>([]);
  const isMarked = ({ sourceId, listenerId }: PairName) =>
    marked.some((m) => m.sourceId === sourceId && m.listenerId === listenerId);
  const mark = () => {
    if (!cell) return;
    const { sourceId, listenerId } = cell.pair;
    const others = marked.filter((m) => m.sourceId !== sourceId || m.listenerId !== listenerId);
    setMarked(others.length < marked.length ? others : [...marked, { sourceId, listenerId }]);
  };
  const want = (next: PlanCell['want'] | null) =>
    set(
      (known) => next && { ...known, sourceId: cell!.pair.sourceId, listenerId: cell!.pair.listenerId, want: next },
      wantOf(next).says,
    );
  const wantUnder = (db: number | undefined) =>
    set(
      (known) => {
        if (!known) return null;
        const { underVoiceDb: _before, ...rest } = known;
        return db === undefined ? rest : { ...rest, underVoiceDb: db };
      },
      db === undefined ? 'any level' : `${db} dB under the main voice`,
    );
  useKey('m', 'It must be heard there', () => want('must'), cell !== undefined);
  useKey('x', 'It must not be heard there', () => want('must-not'), cell !== undefined);
  useKey('o', 'It may be heard there', () => want('may'), cell !== undefined);
  useKey('backspace', 'Nothing is said of it', () => want(null), cell !== undefined);
  useKey('e', 'Mark it: which mute takes exactly these', mark, cell !== undefined);
  useKey('w', 'Only what is wrong, or everything', () => setShown(shown === 'all' ? 'wrong' : 'all'));
  const carryOut = (verb: 'to-do' | 'so') => {
    if (!made || made.changes.length === 0) return;
    const { changes } = made;
    const edit = verb === 'so' ? alreadySo(rig, changes) : toDoAtDesk(rig, changes, new Date().toISOString());
    dispatch(applyHere(edit, `Make it so: ${count(changes.length, 'setting')}`, 'solver'));
  };
  const build = ({ box, cables, changes, pair }: Bridge, verb: 'to-do' | 'so') => {
    if (!made) return;
    const { changes: before } = made;
    const all = [...cables.map((cable): LeadChange => ({ cableId: cable.id, cable })), ...before, ...changes];
    const now = new Date().toISOString();
    const done = verb === 'so' ? alreadySo(rig, all) : toDoAtDesk(rig, all, now, box?.deviceId);
    const to = rig.listeners.find((l) => l.id === pair.listenerId)?.name;
    dispatch(applyHere({ kind: 'batch', edits: [...(box ? [box.edit] : []), done] }, `A way to ${to}`, 'solver'));
  };
  useKey('s', 'Make it so: the fewest settings', begin, search.at !== 'busy' && cell !== undefined);
  useKey('d', 'To do at the desk, what is proposed', () => carryOut('to-do'), made !== null);
  useKey('escape', 'Stop the search, or drop what is proposed', drop, search.at !== 'idle');
  useKeyHint('arrowleft,arrowright,arrowup,arrowdown', 'In the table: from cell to cell');
  const voice = rig.sources.find((s) => s.id === mainVoiceOf(rig));
  const wrongs = cells.flat().filter(isWrong).length;
  return (
    <main className={`frame-page ${cell ? 'with-card' : ''}`}>
      <div className="page">
        <div className="spread">
          <h1>Who hears what</h1>
          <span className="row">
            <Choice
              label="Shown"
              value={shown}
              options={[
                ['all', 'everything'],
                ['wrong', `only what is wrong (${wrongs})`],
              ]}
              onChange={(s) => setShown(s as 'all' | 'wrong')}
            />
            {search.at === 'busy' ? (
              <Button onClick={drop}>
                Searching; stop <kbd>Esc</kbd>
              </Button>
            ) : (
              <Button variant="solid" disabled={!cell} onClick={begin}>
                Make it so <kbd>s</kbd>
              </Button>
            )}
          </span>
        </div>
        <MomentNote edits="into-the-moment" />
        <div aria-live="polite">
          {search.at === 'failed' && <p className="fix">{search.why}</p>}
          {made && (
            <Proposal
              rig={rig}
              made={made}
              onToDo={() => carryOut('to-do')}
              onSo={() => carryOut('so')}
              onDrop={drop}
              onBridge={build}
            />
          )}
        </div>
        {cell ? (
          <>
            <p className="quiet">
              <Term id="hearing-plan">Wanted</Term>: ● must, × must not, ○ may.{' '}
              {voice ? `Levels are told against ${voice.name}.` : 'There is no voice to tell levels against.'}{' '}
              {shown === 'wrong' && wrongs === 0 && 'Nothing is wrong: everything is shown.'}
            </p>
            {rig.plan.length === 0 && <ProposedPlan rig={rig} />}
            <HearingTable
              rig={rig}
              cells={cells}
              isMarked={isMarked}
              rows={rows}
              columns={columns}
              at={at}
              onAt={setAt}
            />
            {!made && <Insides rig={rig} evaluation={evaluation} ways={onCard?.cell.pair.ways ?? []} />}
            {!made && <MuteFinder rig={rig} evaluation={evaluation} marked={marked} onClear={() => setMarked([])} />}
          </>
        ) : (
          <p className="quiet">
            Nothing sounds here yet, or nobody listens. Add boxes in Wire: sources and listeners come with them.
          </p>
        )}
      </div>
      {onCard && (
        <PairCard {...onCard} findings={findings} proposed={made !== null} onWant={want} onUnderVoice={wantUnder} />
      )}
    </main>
  );
}

/** For a rig without a plan: one that follows from what its sources and listeners are, to be taken and changed. */
function ProposedPlan({ rig }: { rig: Rig }) {
  const dispatch = useAppDispatch();
  const proposed = useMemo(() => proposePlan(rig), [rig]);
  const take = () => dispatch(applyHere(planEdit(proposed), `Plan as proposed: ${count(proposed.length, 'want')}`));
  useKey('p', 'Take the plan that is proposed', take, proposed.length > 0);
  if (proposed.length === 0) return null;
  const reasons = [...new Set(proposed.map((p) => p.why))];
  return (
    <section aria-label="Proposed plan" style={{ margin: '10px 0' }}>
      <p>
        Nothing is said yet of what is wanted. From what sounds and who listens here, {count(proposed.length, 'want')}{' '}
        follow: {reasons.join('; ')}. Each is changed by one key afterwards.
      </p>
      <p style={{ marginTop: 6 }}>
        <Button onClick={take}>
          Take this plan <kbd>p</kbd>
        </Button>
      </p>
    </section>
  );
}

/** The first cell that is to be mended; the first of all where none is. */
function firstWrong(cells: ReturnType<typeof cellsOf>): Place {
  for (const severity of ['stop', 'fix', 'watch'])
    for (const [row, line] of cells.entries()) {
      const column = line.findIndex((c) => c.state === severity);
      if (column >= 0) return { row, column };
    }
  return { row: 0, column: 0 };
}
