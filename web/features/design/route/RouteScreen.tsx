import { Button, chakra } from '@chakra-ui/react';
import { useDeferredValue, useMemo, useState } from 'react';
import {
  addTasks,
  applyEdit,
  findListener,
  findSource,
  type LeadChange,
  markDone,
  type PlanCell,
  type Rig,
  type Verb,
} from '#core/model/rig/index.ts';
import { type Bridge, planEdit, proposePlan } from '#core/routing/plan/index.ts';
import type { Finding } from '#core/rules/index.ts';
import { type Evaluation, evaluate, mainVoiceOf } from '#core/signal/index.ts';
import { useListenKey } from '#web/shared/listen/index.ts';
import { MomentNote } from '#web/shared/moment/index.ts';
import {
  Choice,
  FoldedTracks,
  off,
  Page,
  type Place,
  rich,
  useFoldedListeners,
  useKey,
  useKeyHint,
  wantOf,
} from '#web/shared/parts/index.ts';
import { applyHere, selectScene, useAppDispatch, useAppSelector, useSettledFindings } from '#web/shared/store/index.ts';
import { plan, route as say } from '#words/index.ts';
import { cellsOf, isWrong, wrongOnly } from './cells.ts';
import { HearingTable } from './HearingTable.tsx';
import { Insides } from './Insides.tsx';
import { MuteFinder, type PairName } from './MuteFinder.tsx';
import { PairCard } from './PairCard.tsx';
import { Proposal } from './Proposal.tsx';
import { useSolveRouting } from './useSolveRouting.ts';

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
  const { search, begin, drop } = useSolveRouting(rig);
  const made = search.at === 'found' ? search.made : null;
  // While changes are proposed, the table shows what would be heard with them.
  const seen = useMemo(() => {
    const done = made && applyEdit(rig, markDone(rig, made.changes));
    return done?.ok ? { rig: done.rig, evaluation: evaluate(done.rig) } : { rig, evaluation };
  }, [rig, evaluation, made]);
  const cells = useMemo(() => cellsOf(seen.rig, seen.evaluation), [seen]);
  const [at, setAt] = useState<Place>(() => firstWrong(cells));
  const wrong = useMemo(() => wrongOnly(cells), [cells]);
  const { columns: inOrder, ...tracks } = useFoldedListeners(rig, () => evaluation, at.column);
  const every = { rows: cells.map((_, i) => i), columns: inOrder };
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
      db === undefined ? say.anyLevel() : say.dbBelowMainVoiceOf({ db }),
    );
  useKey('m', say.itMustArriveThere(), () => want('must'), cell !== undefined);
  useKey('x', say.itMustNotArrive(), () => want('must-not'), cell !== undefined);
  useKey('o', say.itMayArriveThere(), () => want('may'), cell !== undefined);
  useKey('backspace', say.noRequirement(), () => want(null), cell !== undefined);
  useKey('e', say.markItFindMute(), mark, cell !== undefined);
  useKey('w', say.showOnlyWhatsWrong(), () => setShown(shown === 'all' ? 'wrong' : 'all'));
  const carryOut = (verb: Verb) => {
    if (!made || made.changes.length === 0) return;
    const { changes } = made;
    const edit = verb === 'done' ? markDone(rig, changes) : addTasks(rig, changes, new Date().toISOString());
    dispatch(applyHere(edit, say.suggestedSetting({ setting: changes.length }), 'solver'));
  };
  const build = ({ box, cables, changes, pair }: Bridge, verb: Verb) => {
    if (!made) return;
    const { changes: before } = made;
    const all = [...cables.map((cable): LeadChange => ({ cableId: cable.id, cable })), ...before, ...changes];
    const now = new Date().toISOString();
    const done = verb === 'done' ? markDone(rig, all) : addTasks(rig, all, now, box?.deviceId);
    const to = findListener(rig, pair.listenerId)?.name ?? pair.listenerId;
    dispatch(applyHere({ kind: 'batch', edits: [...(box ? [box.edit] : []), done] }, say.pathTo({ to }), 'solver'));
  };
  useKey('s', say.suggestSettingsFewestThat(), begin, search.at !== 'busy' && cell !== undefined);
  useKey('escape', say.cancelSearchOrDiscard(), drop, search.at !== 'idle');
  useKeyHint('arrowleft,arrowright,arrowup,arrowdown', say.inTableFromCell());
  const voice = findSource(rig, mainVoiceOf(rig));
  const wrongs = cells.flat().filter(isWrong).length;
  return (
    <Page
      title={say.whoGetsWhat()}
      actions={
        <span className="row">
          <Choice
            label={say.shown()}
            value={shown}
            options={[
              ['all', say.everything()],
              ['wrong', say.onlyWhatsWrong({ wrongs })],
            ]}
            onChange={(s) => setShown(s as 'all' | 'wrong')}
          />
          {search.at === 'busy' ? (
            <Button onClick={drop}>{rich(say.stopSearching, {})}</Button>
          ) : (
            <Button variant="solid" {...off(cell ? null : say.nothingToSolve())} onClick={begin}>
              {rich(say.suggestSettingsS, {})}
            </Button>
          )}
        </span>
      }
      card={
        onCard && (
          <PairCard {...onCard} findings={findings} proposed={made !== null} onWant={want} onUnderVoice={wantUnder} />
        )
      }
    >
      <MomentNote edits="into-the-moment" />
      <div aria-live="polite">
        {search.at === 'failed' && <p className="fix">{search.why}</p>}
        {made && <Proposal rig={rig} made={made} onVerb={carryOut} onDrop={drop} onBridge={build} />}
      </div>
      {cell ? (
        <>
          <p className="quiet">
            {rich(say.requiredKey, {
              against: voice ? plan.relativeTo({ voice: voice.name }) : plan.noVoice(),
              shown: shown === 'wrong' && wrongs === 0 ? say.nothingWrong() : '',
            })}
          </p>
          {rig.plan.length === 0 && <ProposedPlan rig={rig} />}
          {shown === 'all' && <FoldedTracks {...tracks} />}
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
        <p className="quiet">{say.noSourcesOrDestinations()}</p>
      )}
    </Page>
  );
}

/** For a rig without a plan: one that follows from what its sources and listeners are, to be taken and changed. */
function ProposedPlan({ rig }: { rig: Rig }) {
  const dispatch = useAppDispatch();
  const proposed = useMemo(() => proposePlan(rig), [rig]);
  const take = () => dispatch(applyHere(planEdit(proposed), say.planStep({ want: proposed.length })));
  useKey('p', say.takePlanKey(), take, proposed.length > 0);
  if (proposed.length === 0) return null;
  const reasons = [...new Set(proposed.map((p) => p.why))];
  return (
    <chakra.section aria-label={say.suggestedPlan()} margin="10px 0">
      <p>{say.noRequirementsYetBased({ want: proposed.length, join: reasons.join('; ') })}</p>
      <chakra.p marginTop="6px">
        <Button onClick={take}>{rich(say.applyThisPlanP, {})}</Button>
      </chakra.p>
    </chakra.section>
  );
}

/** The first cell that has to be fixed; the first of all where none has. */
function firstWrong(cells: ReturnType<typeof cellsOf>): Place {
  for (const severity of ['stop', 'fix', 'watch'])
    for (const [row, line] of cells.entries()) {
      const column = line.findIndex((c) => c.state === severity);
      if (column >= 0) return { row, column };
    }
  return { row: 0, column: 0 };
}
