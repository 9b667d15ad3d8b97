import { memo, useDeferredValue, useState } from 'react';
import type { PlanCell, Rig } from '#core/model/rig/index.ts';
import { findSource } from '#core/model/rig/index.ts';
import { mainVoiceOf } from '#core/signal/index.ts';
import { MomentNote } from '#web/shared/moment/index.ts';
import { Page, type Place, Term, useKey, useKeyHint, useSteady, WANTS, wantOf } from '#web/shared/parts/index.ts';
import { applyHere, selectRig, selectScene, useAppDispatch, useAppSelector } from '#web/shared/store/index.ts';
import { plan } from '#words/index.ts';
import { LEVEL_ID, without } from './cell.ts';
import { FarSide } from './FarSide.tsx';
import { MomentList } from './MomentList.tsx';
import { PlanTable } from './PlanTable.tsx';
import { SessionForm } from './SessionForm.tsx';
import { Starts } from './Starts.tsx';
import { WantCard } from './WantCard.tsx';

/** Plan: what every listener has to hear, in every moment of the session, and what the session asks for. */
export function PlanScreen() {
  const rig = useAppSelector(selectRig);
  const scene = useAppSelector(selectScene);
  return rig && scene ? <Plan rig={rig} there={scene.rig} /> : null;
}

interface Props {
  readonly rig: Rig;
  /** The rig in the selected moment. */
  readonly there: Rig;
}

type Change = (known: PlanCell | undefined) => PlanCell | null;

function Plan({ rig, there }: Props) {
  const dispatch = useAppDispatch();
  // What stands around the table follows once the cell itself is on the screen.
  const settled = useDeferredValue(rig);
  const settledThere = useDeferredValue(there);
  const [at, setAt] = useState<Place>({ row: 0, column: 0 });
  const source = there.sources[at.row] ?? there.sources[0];
  const listener = there.listeners[at.column] ?? there.listeners[0];
  const cellOf = (sourceId: string, listenerId: string) =>
    there.plan.find((c) => c.sourceId === sourceId && c.listenerId === listenerId);
  const set = (sourceIds: readonly string[], change: (sourceId: string) => PlanCell | null, label: string) => {
    if (!listener) return;
    const listenerId = listener.id;
    const edits = sourceIds.map((sourceId) => ({
      kind: 'set-plan' as const,
      sourceId,
      listenerId,
      cell: change(sourceId),
    }));
    dispatch(applyHere(edits.length === 1 ? edits[0]! : { kind: 'batch', edits }, `${listener.name}, ${label}`));
  };
  const wanted = (sourceId: string, want: PlanCell['want'] | null) =>
    want && listener ? { ...cellOf(sourceId, listener.id), sourceId, listenerId: listener.id, want } : null;
  const want = (next: PlanCell['want'] | null) =>
    source && set([source.id], (id) => wanted(id, next), `${source.name}: ${wantOf(next).says}`);
  const wantAll = (next: PlanCell['want'] | null) =>
    set(
      there.sources.map((s) => s.id),
      (id) => wanted(id, next),
      `${plan.everySource()}: ${wantOf(next).says}`,
    );
  const refine = (change: Change, label: string) => {
    if (!source || !listener || !cellOf(source.id, listener.id)) return;
    set([source.id], (id) => change(cellOf(id, listener.id)), `${source.name}: ${label}`);
  };
  const known = source && listener && cellOf(source.id, listener.id);
  const heard = known !== undefined && known.want !== 'must-not';
  const alone = () =>
    refine(
      (c) => without(c!, 'ownTrack', c!.ownTrack ? undefined : true),
      known?.ownTrack ? plan.onTrackWithOthers() : plan.aloneOnTrack(),
    );
  const time = () =>
    refine(
      (c) => without(c!, 'keepTime', c!.keepTime === false ? undefined : false),
      known?.keepTime === false ? plan.inSync() : plan.anyTime(),
    );
  const onWant = useSteady(want);
  const onRefine = useSteady((cell: PlanCell, label: string) => refine(() => cell, label));
  const onAlone = useSteady(alone);
  const onTime = useSteady(time);
  useKey('m', plan.mustKey(), () => want('must'), source !== undefined);
  useKey('x', plan.mustNotKey(), () => want('must-not'), source !== undefined);
  useKey('o', plan.mayKey(), () => want('may'), source !== undefined);
  useKey('backspace', plan.noRequirementKey(), () => want(null), source !== undefined);
  useKey('shift+m', plan.allMustKey(), () => wantAll('must'), source !== undefined);
  useKey('shift+x', plan.allMustNotKey(), () => wantAll('must-not'), source !== undefined);
  useKey('a', plan.ownTrackKey(), alone, heard);
  useKey('i', plan.inTimeKey(), time, heard);
  useKey('l', plan.levelKey(), focusLevel, heard);
  useKeyHint('arrowleft,arrowright,arrowup,arrowdown', plan.arrowsKey());
  const voice = findSource(there, mainVoiceOf(there));
  return (
    <Page
      title={plan.title()}
      actions={source && listener && <Purposes there={settledThere} />}
      card={
        source &&
        listener && (
          <Card
            rig={there}
            source={source}
            listener={listener}
            cell={known}
            onWant={onWant}
            onRefine={onRefine}
            onAlone={onAlone}
            onTime={onTime}
          />
        )
      }
    >
      <MomentNote edits="into-the-moment" />
      {source && listener ? (
        <>
          <p className="quiet">
            <Term id="hearing-plan">{plan.required()}</Term>:{' '}
            {plan.key({
              marks: WANTS.filter((w) => w.word)
                .map((w) => `${w.mark} ${w.word}`)
                .join(', '),
            })}{' '}
            {voice ? plan.relativeTo({ voice: voice.name }) : plan.noVoice()}
          </p>
          <PlanTable rig={there} plain={rig} at={at} onAt={setAt} />
        </>
      ) : (
        <p className="quiet">{plan.empty()}</p>
      )}
      <UnderTheTable rig={settled} />
    </Page>
  );
}

const Purposes = memo(Starts);
const Card = memo(WantCard);

const UnderTheTable = memo(function UnderTheTable({ rig }: { rig: Rig }) {
  return (
    <>
      <MomentList rig={rig} />
      <FarSide rig={rig} />
      <SessionForm key={rig.session.plainMoment} rig={rig} />
    </>
  );
});

const focusLevel = (): void => document.getElementById(LEVEL_ID)?.focus();
