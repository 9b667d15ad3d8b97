import { useMemo, useState } from 'react';
import type { Finding } from '#core/check/index.ts';
import type { PlanCell, Rig } from '#core/rig/index.ts';
import type { Evaluation } from '#core/signal/index.ts';
import { Choice, count, Term, useKey, useKeyHint } from '#web/parts/index.ts';
import {
  applyStep,
  selectEvaluation,
  selectFindings,
  selectRig,
  useAppDispatch,
  useAppSelector,
} from '#web/store/index.ts';
import { cellsOf, isWrong, mainVoiceOf, WANTS, wrongOnly } from './cells.ts';
import { HearingTable, type Place } from './HearingTable.tsx';
import { PairCard } from './PairCard.tsx';

/** Route: who hears what, wanted against actual; where a sound stops, and what opens its way. */
export function RouteScreen() {
  const rig = useAppSelector(selectRig);
  const evaluation = useAppSelector(selectEvaluation);
  const findings = useAppSelector(selectFindings);
  return rig && evaluation ? <Routes rig={rig} evaluation={evaluation} findings={findings} /> : null;
}

interface Props {
  readonly rig: Rig;
  readonly evaluation: Evaluation;
  readonly findings: readonly Finding[];
}

function Routes({ rig, evaluation, findings }: Props) {
  const dispatch = useAppDispatch();
  const [shown, setShown] = useState<'all' | 'wrong'>('all');
  const cells = useMemo(() => cellsOf(rig, evaluation), [rig, evaluation]);
  const [at, setAt] = useState<Place>(() => firstWrong(cells));
  const wrong = useMemo(() => wrongOnly(cells), [cells]);
  const every = { rows: cells.map((_, i) => i), columns: rig.listeners.map((_, i) => i) };
  const { rows, columns } = shown === 'wrong' && wrong.rows.length > 0 ? wrong : every;
  const cell = cells[at.row]?.[at.column];
  const want = (next: PlanCell['want'] | null) => {
    if (!cell) return;
    const { sourceId, listenerId } = cell.pair;
    const known = rig.plan.find((c) => c.sourceId === sourceId && c.listenerId === listenerId);
    const source = rig.sources[at.row]!.name;
    const says = WANTS.find((w) => w.want === next)!.says;
    dispatch(
      applyStep(
        { kind: 'set-plan', sourceId, listenerId, cell: next && { ...known, sourceId, listenerId, want: next } },
        `${rig.listeners[at.column]!.name}, ${source}: ${says}`,
      ),
    );
  };
  useKey('m', 'It must be heard there', () => want('must'), cell !== undefined);
  useKey('x', 'It must not be heard there', () => want('must-not'), cell !== undefined);
  useKey('o', 'It may be heard there', () => want('may'), cell !== undefined);
  useKey('backspace', 'Nothing is said of it', () => want(null), cell !== undefined);
  useKey('w', 'Only what is wrong, or everything', () => setShown(shown === 'all' ? 'wrong' : 'all'));
  useKeyHint('arrowleft,arrowright,arrowup,arrowdown', 'In the table: from cell to cell');
  const voice = rig.sources.find((s) => s.id === mainVoiceOf(rig));
  const wrongs = cells.flat().filter(isWrong).length;
  return (
    <main className={`frame-page ${cell ? 'with-card' : ''}`}>
      <div className="page">
        <div className="spread">
          <h1>Who hears what</h1>
          <Choice
            label="Shown"
            value={shown}
            options={[
              ['all', 'everything'],
              ['wrong', `only what is wrong (${wrongs})`],
            ]}
            onChange={(s) => setShown(s as 'all' | 'wrong')}
          />
        </div>
        {cell ? (
          <>
            <p className="quiet">
              <Term id="hearing-plan">Wanted</Term>: ● must, × must not, ○ may.{' '}
              {voice ? `Levels are told against ${voice.name}.` : 'There is no voice to tell levels against.'}{' '}
              {shown === 'wrong' && wrongs === 0 && 'Nothing is wrong: everything is shown.'}
              {rig.plan.length === 0 && ` Say what is wanted: ${count(cells.flat().length, 'pair')}, one key each.`}
            </p>
            <HearingTable rig={rig} cells={cells} rows={rows} columns={columns} at={at} onAt={setAt} />
          </>
        ) : (
          <p className="quiet">
            Nothing sounds here yet, or nobody listens. Add boxes in Wire: sources and listeners come with them.
          </p>
        )}
      </div>
      {cell && <PairCard rig={rig} evaluation={evaluation} cell={cell} findings={findings} onWant={want} />}
    </main>
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
